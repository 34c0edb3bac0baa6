import type { GridCut, Size, Spacing } from "../model";

/** A grid that a sheet may have been drawn on. */
export interface GridSuggestion {
  /** The same for all cells: where pixels are spread between them, the largest whole size of which so many fit. */
  readonly cell: Size;
  readonly margin: Spacing;
  readonly gap: Spacing;
  readonly columns: number;
  readonly rows: number;
  /** 0 to 1: how well it fits; only to be compared on the same sheet. */
  readonly score: number;
  /** Whether lines are drawn between its cells, or boxes around them. They lie in its gaps. */
  readonly framed?: true;
  /** Whether the pixels that its counts leave over are spread between its cells, as on art that was made or resized to a given size. */
  readonly spread?: true;
}

/** One side of a grid. */
export interface Side {
  readonly count: number;
  readonly cell: number;
  readonly margin: number;
  readonly gap: number;
}

/** The grid with these sides. */
export function suggestionOf(x: Side, y: Side, score: number): GridSuggestion {
  return {
    cell: { w: x.cell, h: y.cell },
    margin: { x: x.margin, y: y.margin },
    gap: { x: x.gap, y: y.gap },
    columns: x.count,
    rows: y.count,
    score,
  };
}

/** The cut that a suggestion stands for. */
export function cutOfSuggestion({ cell, margin, gap, columns, rows, spread }: GridSuggestion): GridCut {
  const own = { margin, gap, keepEmpty: false };
  return spread ? { by: "count", columns, rows, spread, ...own } : { by: "cell", cell, ...own };
}
