import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findBlocks } from "./blocks";
import { coverageOf } from "./coverage";
import { clearPixels, type Pixels } from "./pixels";

type Colour = readonly [number, number, number, number];
const GREEN: Colour = [0, 200, 80, 255];
const SKIN: Colour = [200, 150, 110, 255];

function paint(pixels: Pixels, x: number, y: number, w: number, h: number, colour: Colour): void {
  for (let row = y; row < y + h; row++)
    for (let column = x; column < x + w; column++) pixels.bytes.set(colour, (row * pixels.width + column) * 4);
}

/** Cells of a size with a figure in each, `apart` from each other. */
function sheet(columns: number, rows: number, cell: number, apart: number, ground: (k: number) => Colour | null, figure = 0.5): Pixels {
  const pixels = clearPixels(columns * (cell + apart), rows * (cell + apart));
  for (let k = 0; k < columns * rows; k++) {
    const [x, y] = [(k % columns) * (cell + apart), Math.floor(k / columns) * (cell + apart)];
    const behind = ground(k);
    if (behind) paint(pixels, x, y, cell, cell, behind);
    const side = Math.floor(cell * figure);
    // It stands at the cell's lower edge.
    paint(pixels, x + Math.floor((cell - side) / 2), y + cell - side, side, side, SKIN);
  }
  return pixels;
}
const found = (pixels: Pixels) => findBlocks(pixels, coverageOf(pixels));

describe("blocks behind figures", () => {
  it("are found by their colour, whatever the size and number of cells", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 12, max: 40 }),
        fc.integer({ min: 1, max: 9 }),
        (columns, rows, cell, apart) => {
          expect(found(sheet(columns, rows, cell, apart, () => GREEN))).toBe("#00c850");
        },
      ),
      { numRuns: 60 },
    ));

  it("are none without a ground, with a ground that differs from cell to cell, or where they touch", () => {
    expect(found(sheet(4, 2, 24, 3, () => null))).toBeNull();
    expect(found(sheet(4, 2, 24, 3, (k) => [k * 20, 0, 0, 255]))).toBeNull();
    expect(found(sheet(4, 2, 24, 0, () => GREEN))).toBeNull();
    expect(found(clearPixels(32, 32))).toBeNull();
  });

  it("are none that are full or empty, nor half-transparent ones: tiles, plain squares, shadows", () => {
    expect(found(sheet(4, 2, 24, 3, () => GREEN, 0.95))).toBeNull();
    expect(found(sheet(4, 2, 24, 3, () => GREEN, 0))).toBeNull();
    expect(found(sheet(4, 2, 24, 3, () => [0, 0, 0, 90]))).toBeNull();
  });

  it("are none if something else is drawn on the sheet as well", () => {
    const pixels = sheet(4, 3, 24, 3, (k) => (k < 8 ? GREEN : null), 0.8);
    expect(found(pixels)).toBeNull();
  });
});
