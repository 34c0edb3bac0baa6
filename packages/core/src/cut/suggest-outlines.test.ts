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
    expect(share(first)).toBeGreaterThanOrEqual(0.8);
    expect(share(right)).toBeGreaterThanOrEqual(0.9);
  });

  it("ranks last, after the grids if one fits", () => {
    let first = 0;
    for (let seed = 0; seed < SHEETS; seed++) if (suggested(knownSheet(seed).pixels)?.first) first++;
    expect(share(first)).toBeLessThanOrEqual(0.03);
  });

  it("joins over a smaller distance where figures stand closer together than loose bits usually do", () => {
    // Two rows of narrow cells above two rows of wide ones: no grid fits both.
    const pixels = clearPixels(480, 216);
    const figure = (x: number, y: number, w: number) => {
      for (let k = 0; k < w * 30; k++) pixels.bytes.set([90, 60, 30, 255], ((y + Math.floor(k / w)) * 480 + x + (k % w)) * 4);
      // A spark, 3 px above it.
      pixels.bytes.set([255, 255, 0, 255], ((y - 4) * 480 + x + 2) * 4);
    };
    for (let row = 0; row < 2; row++) for (let k = 0; k < 12; k++) figure(k * 40 + 6, row * 48 + 10, 24 + ((k * 5 + row) % 9));
    for (let row = 0; row < 2; row++) for (let k = 0; k < 8; k++) figure(k * 60 + 14, 96 + row * 60 + 20, 24 + ((k * 7) % 8));
    expect(suggested(pixels)).toMatchObject({ count: 40, cut: { joinPx: 5 } });
  });

  it("ranks after a grid on which the sheet repeats plainly, though shadows hang together all along its rows", () => {
    const pixels = clearPixels(320, 192);
    for (let y = 0; y < 192; y++)
      for (let x = 0; x < 320; x++) {
        const [u, v] = [(x % 40) - 20, (y % 48) - 42];
        const swing = Math.floor(x / 40) % 4;
        if ((u * u) / 400 + (v * v) / 25 <= 1 || (Math.abs(u - swing) < 6 && v < 0 && v > -34))
          pixels.bytes.set([0, 0, 0, 90], (y * 320 + x) * 4);
      }
    expect(suggestGrids(sheetCoverageOf(pixels))[0]).toMatchObject({ columns: 8, rows: 4 });
    expect(suggested(pixels)?.first ?? false).toBe(false);
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
