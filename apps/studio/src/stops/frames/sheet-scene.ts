/**
 * Computes what is drawn over a sheet: cells, which are empty, dropped or picked, and the key cursor. Pure, and tested; `paint` only puts
 * it on a canvas. Rectangles in sheet pixels; contains only what is visible.
 */
import { cellRect, type Grid, leavesBorderOnly, pitchOf } from "@caravan/core/cut";
import { type FrameRef, frameRef, overlaps, type Rect, type Source, sheetOf } from "@caravan/core/model";

export interface SheetScene {
  readonly sheet: Rect;
  /** Cells that are frames. */
  readonly frames: readonly Rect[];
  readonly empty: readonly Rect[];
  readonly dropped: readonly Rect[];
  /** With their number in picking order, from 1. */
  readonly picked: readonly { readonly rect: Rect; readonly number: number }[];
  /** Parts of the sheet beyond the last cells. */
  readonly leftOver: readonly Rect[];
  readonly row: Rect | null;
  readonly cursor: Rect | null;
  /** Regions with a grid each; none if one grid covers the sheet. */
  readonly regions: readonly { readonly rect: Rect; readonly number: number; readonly chosen: boolean }[];
}

export interface SheetSceneInput {
  readonly source: Source;
  /** Null where frames are cut another way than along one grid. */
  readonly grid: Grid | null;
  readonly picked: readonly FrameRef[];
  readonly cursor: FrameRef | null;
  readonly hoverRow: number | null;
  /** The part of the sheet that is in sight. */
  readonly inSight: Rect;
  /** Which region is worked on. */
  readonly region: number;
}

/** Cost: O(cells in sight + frames). */
export function sheetScene({ source, grid, picked, cursor, hoverRow, inSight, region }: SheetSceneInput): SheetScene {
  if (!grid) return freeScene(source, picked, cursor, hoverRow, inSight, region);
  const byCell = new Map(source.frames.map((frame) => [frame.row * grid.columns + frame.column, frame]));
  const numbers = new Map(picked.map((ref, k) => [ref, k + 1]));
  const scene = { frames: [] as Rect[], empty: [] as Rect[], dropped: [] as Rect[], picked: [] as { rect: Rect; number: number }[] };
  let cursorRect: Rect | null = null;
  const pitch = pitchOf(grid);
  const columns = spanInSight(inSight.x, inSight.w, grid.margin.x, pitch.x, grid.columns);
  const rows = spanInSight(inSight.y, inSight.h, grid.margin.y, pitch.y, grid.rows);
  for (let row = rows.from; row < rows.end; row++)
    for (let column = columns.from; column < columns.end; column++) {
      const rect = cellRect(grid, column, row);
      const frame = byCell.get(row * grid.columns + column);
      if (!frame) {
        if (source.cut) scene.empty.push(rect);
        continue;
      }
      const ref = frameRef(source, frame);
      if (frame.dropped) scene.dropped.push(rect);
      else if (frame.empty) scene.empty.push(rect);
      else scene.frames.push(rect);
      const number = numbers.get(ref);
      if (number !== undefined) scene.picked.push({ rect, number });
      if (ref === cursor) cursorRect = rect;
    }
  const leftOver = leftOverOf(source, grid).filter((rect) => overlaps(rect, inSight));
  const row = hoverRow !== null && hoverRow < grid.rows ? rowRect(grid, hoverRow) : null;
  return { sheet: wholeOf(source), ...scene, leftOver, row, cursor: cursorRect, regions: [] };
}

/** Free frames: outlines, metadata, by hand, several grids. */
function freeScene(
  source: Source,
  picked: readonly FrameRef[],
  cursor: FrameRef | null,
  hoverRow: number | null,
  inSight: Rect,
  region: number,
): SheetScene {
  const numbers = new Map(picked.map((ref, k) => [ref, k + 1]));
  const scene = { frames: [] as Rect[], empty: [] as Rect[], dropped: [] as Rect[], picked: [] as { rect: Rect; number: number }[] };
  let cursorRect: Rect | null = null;
  for (const frame of source.frames) {
    const { rect } = frame;
    if (!overlaps(rect, inSight)) continue;
    const ref = frameRef(source, frame);
    (frame.dropped ? scene.dropped : frame.empty ? scene.empty : scene.frames).push(rect);
    const number = numbers.get(ref);
    if (number !== undefined) scene.picked.push({ rect, number });
    if (ref === cursor) cursorRect = rect;
  }
  const row = hoverRow === null ? null : rowOfFrames(source, hoverRow);
  const areas = source.cut?.by === "regions" ? source.cut.regions : [];
  const chosen = Math.min(region, areas.length - 1);
  const regions = areas.map(({ area }, k) => ({ rect: area, number: k + 1, chosen: k === chosen }));
  return { sheet: wholeOf(source), ...scene, leftOver: [], row, cursor: cursorRect, regions };
}

/** What the frames of a row cover together. */
export function rowOfFrames(source: Source, row: number): Rect | null {
  const rects = source.frames.filter((frame) => frame.row === row).map((frame) => frame.rect);
  if (rects.length === 0) return null;
  const x = Math.min(...rects.map((rect) => rect.x));
  const y = Math.min(...rects.map((rect) => rect.y));
  const right = Math.max(...rects.map((rect) => rect.x + rect.w));
  const bottom = Math.max(...rects.map((rect) => rect.y + rect.h));
  return { x, y, w: right - x, h: bottom - y };
}

function wholeOf(source: Source): Rect {
  const { width, height } = sheetOf(source);
  return { x: 0, y: 0, w: width, h: height };
}

function spanInSight(start: number, length: number, margin: number, pitch: number, count: number): { from: number; end: number } {
  return {
    // Spread cells may begin up to half a pixel from their share.
    from: Math.max(0, Math.floor((start - margin - 0.5) / pitch)),
    end: Math.min(count, Math.ceil((start + length - margin + 0.5) / pitch)),
  };
}

/** The whole of a row of cells, gaps included. */
export function rowRect(grid: Grid, row: number): Rect {
  const first = cellRect(grid, 0, row);
  const last = cellRect(grid, grid.columns - 1, row);
  return { x: first.x, y: first.y, w: last.x + last.w - first.x, h: first.h };
}

/** What may be missing from the cut, hatched; a border as wide as the margin is not. */
function leftOverOf(source: Source, grid: Grid): Rect[] {
  if (leavesBorderOnly(grid)) return [];
  const { leftOver } = grid;
  const { width, height } = sheetOf(source);
  const right = leftOver.right > 0 ? [{ x: width - leftOver.right, y: 0, w: leftOver.right, h: height }] : [];
  const bottom = leftOver.bottom > 0 ? [{ x: 0, y: height - leftOver.bottom, w: width - leftOver.right, h: leftOver.bottom }] : [];
  return [...right, ...bottom].filter((rect) => rect.w > 0 && rect.h > 0);
}
