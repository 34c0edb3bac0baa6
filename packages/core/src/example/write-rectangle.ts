/**
 * Writes a frame's rectangle in the convention of a reading: the inverse of reading metadata.
 *
 * All values in pixels of the page; `y` runs down in the input, and as the reading says in the output.
 */
import type { Reading, Size } from "../model";
import { type FrameFacts, uprightSize } from "./facts";

type Told = Pick<FrameFacts, "rect" | "turned" | "page">;

/** The size that the file says, which is the stored one or the upright one. */
export function sizeTold(frame: Told, { turnedAs }: Pick<Reading, "turnedAs">): Size {
  return turnedAs === "stored" ? frame.rect : uprightSize(frame);
}

/** The place that the file says: a corner, the same with the other sign, or the middle. */
export function cornerTold(frame: Told, reading: Reading): { x: number; y: number } {
  const { w, h } = sizeTold(frame, reading);
  const top = topTold(frame, reading);
  const { x } = frame.rect;
  const height = heightOfPage(frame);
  if (reading.centred) return { x: x + w / 2, y: reading.yAs ? height - top - h / 2 : top + h / 2 };
  if (reading.negated) return { x: x === 0 ? 0 : -x, y: top === 0 ? 0 : -top };
  if (reading.yAs === "up") return { x, y: height - top - h };
  return { x, y: reading.yAs === "top-up" ? height - top : top };
}

/** Both horizontal edges as the file counts them, the smaller number first. */
export function edgesTold(frame: Told, reading: Reading): readonly [number, number] {
  const { h } = sizeTold(frame, reading);
  const top = topTold(frame, reading);
  if (reading.yAs) return [heightOfPage(frame) - top - h, heightOfPage(frame) - top];
  return [top, top + h - (reading.inclusive ? 1 : 0)];
}

/** 0 if unknown: only readings that do not use it lack it. */
export function heightOfPage({ page }: Pick<FrameFacts, "page">): number {
  return page.size?.h ?? 0;
}

/** The upper edge of what the file describes: a turned frame described upright and counted up has this same line, not the lower one. */
function topTold(frame: Told, reading: Reading): number {
  const { rect } = frame;
  return reading.yAs === "up" ? rect.y + rect.h - sizeTold(frame, reading).h : rect.y;
}
