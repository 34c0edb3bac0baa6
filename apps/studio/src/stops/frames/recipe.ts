/** The grid that the fields show and edit: the source's own cut, or for an uncut sheet one cell of its full size. */

import { type Grid, gridOf, leavesBorderOnly } from "@caravan/core/cut";
import { type GridCut, type Size, type Source, type Spacing, sheetOf } from "@caravan/core/model";
import { t } from "../../ui/words";

const NONE: Spacing = { x: 0, y: 0 };

/** The cut to start from. */
export function cutOf(source: Source): GridCut {
  const { cut } = source;
  return cut?.by === "cell" || cut?.by === "count" ? cut : { by: "count", columns: 1, rows: 1, margin: NONE, gap: NONE, keepEmpty: false };
}

export function gridOfSource(source: Source): Grid {
  const { width, height } = sheetOf(source);
  return gridOf({ w: width, h: height }, cutOf(source), source.name);
}

/** The cut with a new cell size; a side not given keeps its current result. */
export function withCell(cut: GridCut, grid: Grid, cell: Partial<Size>): GridCut {
  return { by: "cell", cell: { ...grid.cell, ...cell }, ...restOf(cut) };
}

/** The cut with new counts; a count not given keeps its current result. */
export function withCounts(cut: GridCut, grid: Grid, counts: { columns?: number; rows?: number }): GridCut {
  return { by: "count", columns: grid.columns, rows: grid.rows, ...spreadOf(cut), ...counts, ...restOf(cut) };
}

/** The cut by the counts that it comes to, with what is left over spread between the cells or not. */
export function withSpread(cut: GridCut, grid: Grid, isSpread: boolean): GridCut {
  return { by: "count", columns: grid.columns, rows: grid.rows, ...(isSpread ? { spread: true as const } : {}), ...restOf(cut) };
}

/** The grid moved by its margin: cells keep their size, or their shares of the sheet. */
export function nudged(cut: GridCut, grid: Grid, dx: number, dy: number): GridCut {
  const margin = { x: Math.max(0, cut.margin.x + dx), y: Math.max(0, cut.margin.y + dy) };
  return { ...(isSpread(cut) ? cut : withCell(cut, grid, {})), margin };
}

export function isSpread(cut: GridCut): boolean {
  return cut.by === "count" && cut.spread === true;
}

/** Whether spreading what is left over would move cells, or does. */
export function maySpread(cut: GridCut, grid: Grid): boolean {
  const { right, bottom } = grid.leftOver;
  return isSpread(cut) || (cut.by === "count" && ((right > 0 && grid.columns > 1) || (bottom > 0 && grid.rows > 1)));
}

function spreadOf(cut: GridCut): { spread?: true } {
  return isSpread(cut) ? { spread: true } : {};
}

/** The facts of a grid, however it is given. */
function restOf({ margin, gap, keepEmpty, offset, only }: GridCut): Pick<GridCut, "margin" | "gap" | "keepEmpty" | "offset" | "only"> {
  return { margin, gap, keepEmpty, ...(offset ? { offset } : {}), ...(only ? { only } : {}) };
}

/** What the grid makes of the sheet, in words: `60 frames, 4 empty left out, 3 px left over at right`. */
export function outcomeInWords(source: Source, grid: Grid): { text: string; good: boolean } {
  const kept = source.frames.filter((frame) => !frame.dropped).length;
  const empty = source.frames.filter((frame) => frame.empty && !frame.dropped).length;
  const dropped = source.frames.length - kept;
  const taken = span(cutOf(source).only?.columns, grid.columns) * span(cutOf(source).only?.rows, grid.rows);
  const skipped = taken - source.frames.length;
  const beside = grid.columns * grid.rows - taken;
  const { spread } = grid;
  const { right, bottom } = grid.leftOver;
  const rest = [right && t("{right} px at right", { right }), bottom && t("{bottom} px at bottom", { bottom })].filter(Boolean).join(", ");
  const good = leavesBorderOnly(grid);
  const parts = [
    kept === 1 ? t("1 frame") : t("{kept} frames", { kept }),
    skipped > 0 ? t("{skipped} empty left out", { skipped }) : empty > 0 ? t("{empty} empty", { empty }) : t("none empty"),
    ...(beside > 0 ? [t("{beside} cells not taken", { beside })] : []),
    ...(dropped > 0 ? [t("{dropped} dropped", { dropped })] : []),
    ...(spread.x > 0 ? [t("{px} px spread between columns", { px: spread.x })] : []),
    ...(spread.y > 0 ? [t("{px} px spread between rows", { px: spread.y })] : []),
    rest === "" ? t("nothing left over") : good ? t("nothing left over but a border: {rest}", { rest }) : t("left over: {rest}", { rest }),
  ];
  return { text: parts.join(", "), good };
}

/** How many of `count` columns or rows are taken. */
function span(range: { readonly first: number; readonly last: number } | undefined, count: number): number {
  return range ? Math.max(0, Math.min(range.last, count - 1) - range.first + 1) : count;
}

/** Whether one grid covers the sheet: cut by cells, or not cut yet. */
export function isGrid({ cut }: Source): boolean {
  return cut === null || cut.by === "cell" || cut.by === "count";
}

/** What came of a cut that is no grid: `14 frames in 2 rows, 1 dropped`. */
export function framesInWords({ frames, cut }: Source): { text: string; good: boolean } {
  const kept = frames.filter((frame) => !frame.dropped).length;
  const rows = new Set(frames.map((frame) => frame.row)).size;
  const dropped = frames.length - kept;
  const text = [
    rows > 1 ? t("{kept} frames in {rows} rows", { kept, rows }) : kept === 1 ? t("1 frame") : t("{kept} frames", { kept }),
    ...(cut?.by === "metadata" ? [t("as {file} says", { file: cut.file })] : []),
    ...(dropped > 0 ? [t("{dropped} dropped", { dropped })] : []),
  ].join(", ");
  return { text, good: kept > 0 };
}
