/** The frame that keys act on, moved over the sheet by columns and rows. Pure, and tested. */

import { type Frame, type FrameRef, frameName, frameRef, type Source } from "@caravan/core/model";
import { nameAnd, t } from "../../ui/words";

/**
 * The frame reached from `cursor` by moving (dx, dy) cells: the nearest one in that direction in the same row or column, or in neighbouring
 * rows if that is empty. Without a cursor the first frame. Null if there is none.
 */
export function movedCursor(source: Source, cursor: FrameRef | null, dx: number, dy: number): FrameRef | null {
  const from = source.frames.find((frame) => frameRef(source, frame) === cursor);
  if (!from) return source.frames[0] ? frameRef(source, source.frames[0]) : null;
  if (dx !== 0) {
    // Along the row and into the next one, in reading order.
    const next = source.frames[source.frames.indexOf(from) + dx];
    return frameRef(source, next ?? from);
  }
  const ahead = source.frames.filter((frame) => Math.sign(frame.row - from.row) === Math.sign(dy));
  const far = (frame: Frame) => Math.abs(frame.row - from.row) * 10_000 + Math.abs(frame.column - from.column);
  const best = ahead.reduce<Frame | null>((nearest, frame) => (nearest === null || far(frame) < far(nearest) ? frame : nearest), null);
  return frameRef(source, best ?? from);
}

/** The cursor in words, for those who cannot see the sheet. */
export function describeCursor(source: Source, cursor: FrameRef | null, picked: readonly FrameRef[]): string {
  const frame = source.frames.find((each) => frameRef(source, each) === cursor);
  if (!frame) return "";
  const number = picked.indexOf(frameRef(source, frame));
  return nameAnd(
    frameName(source, frame),
    t("column {column}, row {row}", { column: frame.column, row: frame.row }),
    frame.dropped ? t("dropped") : number >= 0 && t("picked {number}", { number: number + 1 }),
  );
}
