/** Lays frames of any size in equal cells, with every origin at the same place in its cell. */
import { CaravanError, type Rect, type Size, type Spacing } from "../model";
import { clearPixels, type Pixels, paste } from "../raster";
import { t } from "../words";
import type { FrameToDeliver } from "./contents";

export interface Cells {
  readonly size: Size;
  /** The position of a frame's top-left corner in its cell; whole pixels, so that no picture is smoothed. */
  offset(frame: FrameToDeliver): Spacing;
}

/** The smallest cell that fits all frames, at least one. */
export function cellsFor(frames: readonly FrameToDeliver[]): Cells {
  let [left, up, right, down] = [0, 0, 0, 0];
  const before = ({ origin }: FrameToDeliver) => ({ x: Math.floor(origin.x), y: Math.floor(origin.y) });
  let first = true;
  for (const frame of frames) {
    const { x, y } = before(frame);
    left = first ? x : Math.max(left, x);
    up = first ? y : Math.max(up, y);
    right = first ? frame.rect.w - x : Math.max(right, frame.rect.w - x);
    down = first ? frame.rect.h - y : Math.max(down, frame.rect.h - y);
    first = false;
  }
  return {
    size: { w: left + right, h: up + down },
    offset: (frame) => ({ x: left - before(frame).x, y: up - before(frame).y }),
  };
}

/** The frame in its cell, on one of its layers, the lowest being 0. */
export function inCell(frame: FrameToDeliver, cells: Cells, layer = 0): Pixels {
  const out = clearPixels(cells.size.w, cells.size.h);
  const { x, y } = cells.offset(frame);
  const part = layer === 0 ? frame : frame.layers?.[layer - 1];
  if (part) paste(out, part.pixels, part.rect, x, y);
  return out;
}

/** The number of columns and rows of a sheet, and the position of each cell. */
export interface Arrangement {
  readonly size: Size;
  rectOf(index: number): Rect;
}

export function arranged(count: number, columns: number, cell: Size, marginPx: number, gapPx: number, where: string): Arrangement {
  const across = Math.min(columns, count);
  const rows = Math.ceil(count / columns);
  const size = {
    w: 2 * marginPx + across * cell.w + (across - 1) * gapPx,
    h: 2 * marginPx + rows * cell.h + (rows - 1) * gapPx,
  };
  if (size.w > LARGEST || size.h > LARGEST)
    throw new CaravanError(
      "picture-too-large",
      where,
      t("It would be {w} × {h} px; the limit is {largest} a side.", { w: size.w, h: size.h, largest: LARGEST }),
      t("Use other columns, a smaller scale, or deliver fewer clips."),
    );
  return {
    size,
    rectOf: (index) => ({
      x: marginPx + (index % columns) * (cell.w + gapPx),
      y: marginPx + Math.floor(index / columns) * (cell.h + gapPx),
      w: cell.w,
      h: cell.h,
    }),
  };
}

const LARGEST = 16_384; // px: what pictures of this kind are opened with everywhere

/**
 * A wide, readable number of columns: about twice as wide as high, and among those near it the one that leaves the fewest cells empty.
 */
export function proposedColumns(count: number, cell: Size): number {
  const ideal = Math.sqrt((2 * count * cell.h) / cell.w);
  let best = 1;
  let least = Number.POSITIVE_INFINITY;
  for (
    let columns = Math.max(1, Math.min(count, Math.floor(ideal * 0.75)));
    columns <= Math.min(count, Math.ceil(ideal * 1.5));
    columns++
  ) {
    const all = Math.ceil(count / columns) * columns;
    // A tenth of the sheet left empty is as bad as being a fifth too wide or too high.
    const cost = (2 * (all - count)) / all + Math.abs(Math.log(columns / ideal));
    if (cost < least) {
      least = cost;
      best = columns;
    }
  }
  return Math.min(count, best);
}

/** Draws cells of one size into a picture, each by its index. */
export function drawCells(arrangement: Arrangement, cells: ReadonlyMap<number, Pixels>): Pixels {
  const out = clearPixels(arrangement.size.w, arrangement.size.h);
  for (const [k, cell] of cells) {
    const { x, y } = arrangement.rectOf(k);
    paste(out, cell, { x: 0, y: 0, w: cell.width, h: cell.height }, x, y);
  }
  return out;
}
