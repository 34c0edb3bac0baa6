/**
 * Suggests cutting along outlines, and ranks that first if no grid fits: figures drawn or packed in uneven boxes.
 *
 * A grid fits if its lines cut through little that is connected. Holds: a suggestion has at least two pieces. Cost: that of cutting along
 * outlines, and O(islands) per grid.
 */
import type { Cut, Rect } from "../model";
import type { Coverage } from "../raster";
import { cellAt, type Grid, gridOf } from "./grid";
import { findIslands, type Island } from "./islands";
import { cutSheet, type Piece } from "./pieces";
import { cutOfSuggestion } from "./suggest";
import type { GridSuggestion } from "./suggestion";

type OutlineCut = Extract<Cut, { by: "outlines" }>;

/** The default recipe: loose bits join their figure, dirt is left out, rows are level. */
export const USUAL_OUTLINES: OutlineCut = { by: "outlines", joinPx: 12, leastPx: 2, level: true };

export interface OutlineSuggestion {
  readonly cut: OutlineCut;
  readonly count: number;
  /** The pieces of the row that has most of them. */
  readonly row: readonly Piece[];
  /** Whether the best grid does not fit, so that this ranks first. */
  readonly first: boolean;
}

/** The fraction of the drawing that a fitting grid may cut. */
const MOST_CUT = 0.12;
/** Figures in a cell, on average: a grid that fits holds one in each. */
const MOST_IN_A_CELL = 1.4;
/** Bits that hang together, before loose ones are joined to their figures. */
const MOST_ISLANDS = 4000;
/** More pieces than this are no figures. */
const MOST_PIECES = 1000;

/** Null if there are no outlines to speak of: a sheet that is drawn all over, or one figure. */
export function suggestOutlines(coverage: Coverage, grids: readonly GridSuggestion[]): OutlineSuggestion | null {
  if (coverage.colours) return null;
  const { islands } = findIslands(coverage, { joinPx: 0, leastPx: 1 });
  // Joining dust takes long, and dust contains no figures.
  if (islands.length < 2 || islands.length > MOST_ISLANDS) return null;
  const { pieces } = cutSheet(coverage, USUAL_OUTLINES, "suggestion");
  if (pieces.length < 2 || pieces.length > MOST_PIECES) return null;
  const row = groupedByRow(pieces).reduce((most, each) => (each.length > most.length ? each : most), [] as readonly Piece[]);
  const size = { w: coverage.width, h: coverage.height };
  const grid = grids[0] && gridOf(size, cutOfSuggestion(grids[0]), "suggestion");
  // The lines themselves are islands that no cell contains.
  const fits = grids[0]?.framed || (grid !== undefined && cutBy(grid, islands) <= MOST_CUT && perCell(grid, pieces) <= MOST_IN_A_CELL);
  return { cut: USUAL_OUTLINES, count: pieces.length, row, first: !fits && areAlike(pieces.map(({ rect }) => rect)) };
}

function groupedByRow(pieces: readonly Piece[]): Piece[][] {
  const rows: Piece[][] = [];
  for (const piece of pieces) {
    const row = rows[piece.row] ?? [];
    rows[piece.row] = row;
    row.push(piece);
  }
  return rows;
}

/** Share of the drawn pixels that hang together across the lines of a grid. */
function cutBy(grid: Grid, islands: readonly Island[]): number {
  let cut = 0;
  let all = 0;
  for (const { rect, area } of islands) {
    all += area;
    const [from, to] = [cellAt(grid, rect.x, rect.y), cellAt(grid, rect.x + rect.w - 1, rect.y + rect.h - 1)];
    if (!from || !to || from.column !== to.column || from.row !== to.row) cut += area;
  }
  return all === 0 ? 0 : cut / all;
}

/** The number of pieces in each non-empty cell, by their centres. */
function perCell(grid: Grid, pieces: readonly Piece[]): number {
  const cells = new Set<string>();
  for (const { rect } of pieces) {
    const cell = cellAt(grid, Math.floor(rect.x + rect.w / 2), Math.floor(rect.y + rect.h / 2));
    cells.add(cell ? `${cell.column} ${cell.row}` : "none");
  }
  return pieces.length / cells.size;
}

/** Figures of one sheet are of like size; a blob of many that touch is not. */
function areAlike(rects: readonly Rect[]): boolean {
  const areas = rects.map(({ w, h }) => w * h).sort((a, b) => a - b);
  const middle = areas[Math.floor(areas.length / 2)] as number;
  return (areas.at(-1) as number) <= 8 * middle;
}
