import type { Rect } from "../model";
import { type Coverage, isClear } from "../raster";
import { cellRect, type Grid } from "./grid";

/** One cell of a grid. `number` counts all cells in reading order from 0, empty ones too, so that names do not shift. */
export interface Cell {
  readonly column: number;
  readonly row: number;
  readonly number: number;
  readonly rect: Rect;
  readonly empty: boolean;
}

export interface CutCells {
  /** In reading order; empty ones only if they are kept. */
  readonly cells: Cell[];
  readonly skippedEmpty: number;
}

/** Cuts a sheet along a grid. A cell is empty when every pixel's alpha is 0. Cost: O(pixels / 32) at worst. */
export function cutByGrid(coverage: Coverage, grid: Grid, keepEmpty: boolean): CutCells {
  const cells: Cell[] = [];
  let skippedEmpty = 0;
  for (let row = 0; row < grid.rows; row++)
    for (let column = 0; column < grid.columns; column++) {
      const rect = cellRect(grid, column, row);
      const empty = isClear(coverage, rect);
      if (empty && !keepEmpty) skippedEmpty++;
      else cells.push({ column, row, number: row * grid.columns + column, rect, empty });
    }
  return { cells, skippedEmpty };
}
