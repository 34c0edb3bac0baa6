/**
 * Computes the part of a grid from dragging its edges on the sheet. Pure, and tested. An edge released near a grid line adds or removes
 * columns or rows; the left or top edge released elsewhere moves the start of the grid, and cells keep their size.
 */
import { cellRect, type Grid, pitchOf } from "@caravan/core/cut";
import type { GridCut, Rect } from "@caravan/core/model";

/** Share of a cell within which an edge is near a line. */
const NEAR = 0.2;

/** What of the grid becomes frames, as one rectangle: from its first column and row to its last. */
export function partOfGrid(grid: Grid, { only }: Pick<GridCut, "only">): Rect {
  const [columns, rows] = [spanOf(only?.columns, grid.columns), spanOf(only?.rows, grid.rows)];
  const [from, to] = [cellRect(grid, columns.first, rows.first), cellRect(grid, columns.last, rows.last)];
  return { x: from.x, y: from.y, w: to.x + to.w - from.x, h: to.y + to.h - from.y };
}

/** The cut after the part was dragged from `before` to `after`. */
export function cutAfterDrag(cut: GridCut, grid: Grid, before: Rect, after: Rect): GridCut {
  const pitch = pitchOf(grid);
  const along = sideAfterDrag(
    { start: grid.margin.x, pitch: pitch.x, gap: grid.gap.x, count: grid.columns },
    spanOf(cut.only?.columns, grid.columns),
    [before.x, before.x + before.w],
    [after.x, after.x + after.w],
  );
  const down = sideAfterDrag(
    { start: grid.margin.y, pitch: pitch.y, gap: grid.gap.y, count: grid.rows },
    spanOf(cut.only?.rows, grid.rows),
    [before.y, before.y + before.h],
    [after.y, after.y + after.h],
  );
  const { only: _only, offset = { x: 0, y: 0 }, ...rest } = cut;
  const moved = { x: offset.x + along.moved, y: offset.y + down.moved };
  const isMoved = along.moved !== 0 || down.moved !== 0;
  const only = {
    ...(along.span ? { columns: along.span } : {}),
    ...(down.span ? { rows: down.span } : {}),
  };
  return {
    // A grid that begins elsewhere keeps its cells; counts would make them smaller.
    ...(isMoved && rest.by === "count" ? { ...withoutCounts(rest), by: "cell", cell: grid.cell } : rest),
    ...(moved.x !== 0 || moved.y !== 0 ? { offset: moved } : {}),
    ...(Object.keys(only).length > 0 ? { only } : {}),
  } as GridCut;
}

function withoutCounts({
  columns: _columns,
  rows: _rows,
  spread: _spread,
  ...rest
}: Omit<Extract<GridCut, { by: "count" }>, "only" | "offset">) {
  return rest;
}

interface Side {
  readonly start: number;
  /** px: from one cell to the next, on average. */
  readonly pitch: number;
  readonly gap: number;
  readonly count: number;
}

interface Span {
  readonly first: number;
  readonly last: number;
}

type Ends = readonly [from: number, to: number];

/** The cells taken on one side, null for all, and how far the grid moved along it. */
function sideAfterDrag({ start, pitch, gap, count }: Side, span: Span, before: Ends, after: Ends): { span: Span | null; moved: number } {
  let { first, last } = span;
  let moved = 0;
  if (after[1] !== before[1]) last = clamp(Math.round((after[1] - start + gap) / pitch) - 1, first, count - 1);
  if (after[0] !== before[0]) {
    const nearest = Math.round((after[0] - start) / pitch);
    if (Math.abs(after[0] - (start + nearest * pitch)) <= pitch * NEAR) first = clamp(nearest, 0, last);
    else {
      moved = after[0] - before[0];
      // What was left out before the part is left out by where the grid begins now.
      moved += Math.round(first * pitch);
      last = Math.max(0, last - first);
      first = 0;
    }
  }
  return { span: first === 0 && (last >= count - 1 || (moved !== 0 && span.last >= count - 1)) ? null : { first, last }, moved };
}

function spanOf(span: Span | undefined, count: number): Span {
  return { first: Math.min(span?.first ?? 0, count - 1), last: Math.min(span?.last ?? count - 1, count - 1) };
}

function clamp(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(most, value));
}
