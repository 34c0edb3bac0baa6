/** Runs a recipe on a sheet and returns the pieces it finds, in reading order. */
import { type Cut, commonArea, type GridCut, type Rect, type Size, type Spacing, unreachable } from "../model";
import type { Coverage } from "../raster";
import { t } from "../words";
import { cutByGrid } from "./cells";
import { gridOf } from "./grid";
import { findIslands } from "./islands";
import { levelRow, rowsOf } from "./rows";

/** What a frame will be made of. */
export interface Piece {
  /** Its place by name, where the recipe gives it one that lasts: cells do. */
  readonly key: string | null;
  readonly column: number;
  readonly row: number;
  readonly number: number;
  readonly rect: Rect;
  readonly size?: Size;
  readonly inset?: Spacing;
  readonly empty: boolean;
}

export interface CutPieces {
  /** Size of the sheet they were found in. */
  readonly width: number;
  readonly height: number;
  readonly pieces: Piece[];
  readonly skippedEmpty: number;
  /** Islands left out for being too small. */
  readonly small: number;
}

/** Recipes that find frames by themselves; the others are given their rectangles. */
export type FindingCut = Exclude<Cut, { by: "hand" | "metadata" | "pictures" | "pieces" }>;

/** Throws what `gridOf` throws. `where` names the sheet in errors. */
export function cutSheet(coverage: Coverage, cut: FindingCut, where: string): CutPieces {
  const { width, height } = coverage;
  return { width, height, ...foundIn(coverage, cut, where) };
}

type Found = Omit<CutPieces, "width" | "height">;

function foundIn(coverage: Coverage, cut: FindingCut, where: string): Found {
  switch (cut.by) {
    case "cell":
    case "count":
      return { ...alongGrid(coverage, cut, where), small: 0 };
    case "regions":
      return inRegions(coverage, cut, where);
    case "outlines":
      return byOutlines(coverage, cut);
    default:
      return unreachable(cut);
  }
}

function alongGrid(coverage: Coverage, cut: GridCut, where: string): Omit<Found, "small"> {
  const grid = gridOf({ w: coverage.width, h: coverage.height }, cut, where);
  const { cells, skippedEmpty } = cutByGrid(coverage, grid, cut.keepEmpty, cut.only);
  const pieces = cells.map(({ column, row, number, rect, empty }) => ({ key: `c${column}r${row}`, column, row, number, rect, empty }));
  return { pieces, skippedEmpty };
}

/** Each region as a separate sheet; numbers continue, and so do rows, so that a row is picked as one. */
function inRegions(coverage: Coverage, { regions }: Extract<Cut, { by: "regions" }>, where: string): Found {
  const pieces: Piece[] = [];
  let skippedEmpty = 0;
  let number = 0;
  let row = 0;
  for (const [k, { area, grid: cut }] of regions.entries()) {
    const place = t("{where}, region {k}", { where, k: k + 1 });
    const inside = { x: area.x, y: area.y, w: Math.min(area.w, coverage.width - area.x), h: Math.min(area.h, coverage.height - area.y) };
    // A sheet that became smaller may have lost a region.
    if (inside.w < 1 || inside.h < 1) continue;
    const grid = gridOf({ w: inside.w, h: inside.h }, cut, place);
    const moved = { ...grid, margin: { x: grid.margin.x + inside.x, y: grid.margin.y + inside.y } };
    const found = cutByGrid(coverage, moved, cut.keepEmpty, cut.only);
    for (const cell of found.cells)
      pieces.push({
        ...cell,
        key: k === 0 ? `c${cell.column}r${cell.row}` : `g${k}c${cell.column}r${cell.row}`,
        number: number + cell.number,
        row: row + cell.row,
      });
    skippedEmpty += found.skippedEmpty;
    number += grid.columns * grid.rows;
    row += grid.rows;
  }
  return { pieces, skippedEmpty, small: 0 };
}

function byOutlines(coverage: Coverage, { joinPx, leastPx, level }: Extract<Cut, { by: "outlines" }>): Found {
  const { islands, small } = findIslands(coverage, { joinPx, leastPx });
  let number = 0;
  const pieces = rowsOf(islands).flatMap((members, row) => {
    const levels = level ? levelRow(members) : [];
    return members.map(({ rect }, column): Piece => {
      const own = levels[column];
      const padded = own && (own.size.w !== rect.w || own.size.h !== rect.h) ? own : {};
      return { key: null, column, row, number: number++, rect, ...padded, empty: false };
    });
  });
  return { pieces, skippedEmpty: 0, small };
}

/** The overlap of two rectangles as a fraction of their union: 1 equal, 0 disjoint. */
export function likenessOf(a: Rect, b: Rect): number {
  const common = commonArea(a, b);
  return common / (a.w * a.h + b.w * b.h - common);
}
