/** A small project for tests: one sheet of 4 × 3 cells of 8 × 10 px, each with something drawn in it. */
import { emptyProject, type Project, type SourceId } from "../model";
import { type Coverage, clearPixels, coverageOf, type Pixels } from "../raster";
import { addSources } from "./add-sources";
import { cutSource } from "./cutting";

export const CELL = { w: 8, h: 10 };

/** A sheet whose cells each hold a block of their own colour; those listed in `empty` hold nothing. */
export function sheetOfCells(columns: number, rows: number, empty: readonly number[] = []): Pixels {
  const sheet = clearPixels(columns * CELL.w, rows * CELL.h);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const number = row * columns + column;
      if (empty.includes(number)) continue;
      for (let y = 2; y < 9; y++)
        for (let x = 1; x < 6; x++) {
          const at = ((row * CELL.h + y) * sheet.width + column * CELL.w + x) * 4;
          sheet.bytes.set([number * 9, 255 - number * 5, (x * y * 7) % 256, x === 1 ? 128 : 255], at);
        }
    }
  return sheet;
}

export const PORTER = "s1" as SourceId;
export const NO_SPACE = { x: 0, y: 0 };

export function porterCoverage(): Coverage {
  return coverageOf(sheetOfCells(4, 3));
}

export function porterProject(): Project {
  const { width, height } = sheetOfCells(4, 3);
  const added = addSources(emptyProject("test"), [{ fileName: "porter.png", sha256: "a".repeat(64), width, height }]);
  return cutSource(added, PORTER, { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false }, porterCoverage());
}
