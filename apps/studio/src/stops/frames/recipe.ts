/** The grid that the fields show and change: the source's own cut, or for an uncut sheet one cell of its whole size. */
import { type Grid, gridOf } from "@caravan/core/cut";
import type { Cut, Size, Source, Spacing } from "@caravan/core/model";

const NONE: Spacing = { x: 0, y: 0 };

/** The cut to start from. */
export function cutOf(source: Source): Cut {
  return source.cut ?? { by: "count", columns: 1, rows: 1, margin: NONE, gap: NONE, keepEmpty: false };
}

export function gridOfSource(source: Source): Grid {
  return gridOf({ w: source.width, h: source.height }, cutOf(source), source.name);
}

/** The cut by a new cell size; a side that is not given stays as it comes out now. */
export function withCell(cut: Cut, grid: Grid, cell: Partial<Size>): Cut {
  const { margin, gap, keepEmpty } = cut;
  return { by: "cell", cell: { ...grid.cell, ...cell }, margin, gap, keepEmpty };
}

/** The cut by new counts; a count that is not given stays as it comes out now. */
export function withCounts(cut: Cut, grid: Grid, counts: { columns?: number; rows?: number }): Cut {
  const { margin, gap, keepEmpty } = cut;
  return { by: "count", columns: grid.columns, rows: grid.rows, ...counts, margin, gap, keepEmpty };
}

/** What the grid makes of the sheet, in words: `60 frames, 4 empty left out, 3 px left over at right`. */
export function outcomeInWords(source: Source, grid: Grid): { text: string; good: boolean } {
  const kept = source.frames.filter((frame) => !frame.dropped).length;
  const empty = source.frames.filter((frame) => frame.empty && !frame.dropped).length;
  const dropped = source.frames.length - kept;
  const skipped = grid.columns * grid.rows - source.frames.length;
  const { right, bottom } = grid.leftOver;
  const parts = [
    kept === 1 ? "1 frame" : `${kept} frames`,
    skipped > 0 ? `${skipped} empty left out` : empty > 0 ? `${empty} empty` : "none empty",
    ...(dropped > 0 ? [`${dropped} dropped`] : []),
    right + bottom === 0
      ? "nothing left over"
      : `left over: ${[right && `${right} px at right`, bottom && `${bottom} px at bottom`].filter(Boolean).join(", ")}`,
  ];
  return { text: parts.join(", "), good: right + bottom === 0 };
}
