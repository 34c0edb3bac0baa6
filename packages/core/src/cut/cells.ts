import type { GridCut, Rect } from "../model";
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

/** Cuts a sheet along a grid, all of it or only some columns and rows. A cell is empty when every pixel's alpha is 0. Cost: O(pixels / 32) at worst. */
export function cutByGrid(coverage: Coverage, grid: Grid, keepEmpty: boolean, only?: GridCut["only"]): CutCells {
  const cells: Cell[] = [];
  let skippedEmpty = 0;
  for (let row = 0; row < grid.rows; row++)
    for (let column = 0; column < grid.columns; column++) {
      if (!isWithin(only?.columns, column) || !isWithin(only?.rows, row)) continue;
      const rect = cellRect(grid, column, row);
      const empty = isClear(coverage, rect);
      if (empty && !keepEmpty) skippedEmpty++;
      else cells.push({ column, row, number: row * grid.columns + column, rect, empty });
    }
  return { cells, skippedEmpty };
}

function isWithin(range: { readonly first: number; readonly last: number } | undefined, place: number): boolean {
  return range === undefined || (place >= range.first && place <= range.last);
}
