import { describe, expect, it } from "vitest";
import { clearPixels, sheetCoverageOf } from "../raster";
import { fullSheet, knownSheet, unevenSheet } from "./sheets.fixture";
import { suggestGrids } from "./suggest";
import { suggestOutlines } from "./suggest-outlines";

const SHEETS = 60;
const suggested = (pixels: ReturnType<typeof clearPixels>) => {
  const coverage = sheetCoverageOf(pixels);
  return suggestOutlines(coverage, suggestGrids(coverage));
};
const share = (count: number) => count / SHEETS;

describe("suggestOutlines", () => {
  it("ranks first, before the grids on sheets of figures in uneven boxes, one piece per figure", () => {
    let first = 0;
    let right = 0;
    for (let seed = 0; seed < SHEETS; seed++) {
      const { pixels, figures } = unevenSheet(seed);
      const found = suggested(pixels);
      if (found?.first) first++;
      if (found?.count === figures) right++;
    }
    console.log(`Outlines on ${SHEETS} uneven sheets: first on ${first}, every figure its own on ${right}`);
    // Where the few figures of one row happen to stand one in each cell, a grid cuts them as well.
    expect(share(first)).toBeGreaterThanOrEqual(0.85);
    expect(share(right)).toBeGreaterThanOrEqual(0.9);
  });

  it("ranks last, after the grids if one fits", () => {
    let first = 0;
    for (let seed = 0; seed < SHEETS; seed++) if (suggested(knownSheet(seed).pixels)?.first) first++;
    expect(share(first)).toBeLessThanOrEqual(0.03);
  });

  it("shows the row that has most pieces, in order, and none twice", () => {
    const { pixels } = unevenSheet(1);
    const { row = [] } = suggested(pixels) ?? {};
    expect(row.length).toBeGreaterThan(2);
    expect(new Set(row.map((piece) => piece.row)).size).toBe(1);
    for (const [k, { rect }] of row.entries()) if (k > 0) expect(rect.x).toBeGreaterThan((row[k - 1] as (typeof row)[number]).rect.x);
  });

  it("is none for sheets that are fully drawn, empty or with one figure", () => {
    expect(suggested(fullSheet(0).pixels)).toBeNull();
    expect(suggested(clearPixels(32, 32))).toBeNull();
    const one = clearPixels(32, 32);
    one.bytes.set([1, 2, 3, 255], 400);
    expect(suggested(one)).toBeNull();
  });
});
