import { describe, expect, it } from "vitest";
import { type Coverage, clearGround, clearPixels, coverageOf, findGround, type Pixels, paste, sheetCoverageOf } from "../raster";
import { framedSheet, fullSheet, type KnownSheet, knownSheet, unevenSheet } from "./sheets.fixture";
import { suggestGrids } from "./suggest";
import { suggestFramed } from "./suggest-framed";
import { suggestOutlines } from "./suggest-outlines";

/** As the studio and the command line look at a sheet: through an opaque ground. */
function seen(pixels: Pixels): { coverage: Coverage; whole: Coverage } {
  const whole = sheetCoverageOf(pixels);
  const ground = whole.colours ? findGround(pixels) : null;
  return { coverage: ground ? coverageOf(clearGround(pixels, ground.clearing)) : whole, whole };
}

const first = (pixels: Pixels) => {
  const { coverage, whole } = seen(pixels);
  return suggestGrids(coverage, 6, whole)[0];
};
const gridOf = ({ cell, margin, gap, columns, rows }: KnownSheet) => ({ cell, margin, gap, columns, rows });

/** Tiles of a fully drawn sheet, put apart by lines of one colour. */
function ruled({ pixels, cell, columns, rows }: KnownSheet, thick: number, around: boolean): KnownSheet {
  const margin = around ? thick : 0;
  const width = 2 * margin + columns * (cell.w + thick) - thick;
  const height = 2 * margin + rows * (cell.h + thick) - thick;
  const out = clearPixels(width, height);
  for (let k = 0; k < out.bytes.length; k += 4) out.bytes.set([255, 0, 255, 255], k);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      paste(
        out,
        pixels,
        { x: column * cell.w, y: row * cell.h, ...cell },
        margin + column * (cell.w + thick),
        margin + row * (cell.h + thick),
      );
  return { pixels: out, cell, columns, rows, margin: { x: margin, y: margin }, gap: { x: thick, y: thick } };
}

describe("a sheet whose cells are framed", () => {
  it("is cut inside its lines or boxes: 99 of 100 at least", () => {
    const wrong = Array.from({ length: 100 }, (_, seed) => seed).filter((seed) => {
      const known = framedSheet(seed);
      const found = first(known.pixels);
      return JSON.stringify(found && gridOf(found as unknown as KnownSheet)) !== JSON.stringify(gridOf(known));
    });
    expect(wrong.length, `seeds ${wrong}`).toBeLessThanOrEqual(1);
  });

  it("is so with tiles too, whatever they show, with lines between them only or around the sheet as well", () => {
    for (let seed = 0; seed < 40; seed++) {
      const tiles = fullSheet(seed);
      if (tiles.columns * tiles.rows < 2) continue;
      const known = ruled(tiles, 1 + (seed % 3), seed % 2 === 0);
      expect(first(known.pixels), `seed ${seed}`).toMatchObject({
        cell: known.cell,
        columns: known.columns,
        rows: known.rows,
        framed: true,
      });
    }
  });

  it("does not rank outlines before its grid, though its lines hang together", () => {
    const { coverage, whole } = seen(framedSheet(3).pixels);
    expect(suggestOutlines(coverage, suggestGrids(coverage, 6, whole))?.first ?? false).toBe(false);
  });

  it("is none where nothing is drawn around cells", () => {
    for (let seed = 0; seed < 100; seed++)
      for (const { pixels } of [knownSheet(seed), fullSheet(seed), unevenSheet(seed)]) {
        const { coverage, whole } = seen(pixels);
        expect(suggestFramed(coverage, whole), `seed ${seed}`).toBeNull();
      }
  });

  it("is none where tiles have outlines of their own, and where shadows run together", () => {
    const outlined = clearPixels(64, 64);
    for (let y = 0; y < 64; y++)
      for (let x = 0; x < 64; x++) outlined.bytes.set([x % 16 && y % 16 ? (x * 7 + y * y) % 200 : 0, 0, 0, 255], (y * 64 + x) * 4);
    expect(suggestFramed(sheetCoverageOf(outlined), sheetCoverageOf(outlined))).toBeNull();
    const shadows = clearPixels(160, 96);
    for (let y = 0; y < 96; y++)
      for (let x = 0; x < 160; x++) {
        const [u, v] = [(x % 40) - 20, (y % 48) - 42];
        if ((u * u) / 400 + (v * v) / 25 <= 1 || (Math.abs(u) < 6 && v < 0 && v > -30)) shadows.bytes.set([0, 0, 0, 90], (y * 160 + x) * 4);
      }
    expect(suggestFramed(coverageOf(shadows), coverageOf(shadows))).toBeNull();
    expect(suggestFramed(coverageOf(clearPixels(20, 20)), coverageOf(clearPixels(20, 20)))).toBeNull();
  });
});
