/**
 * Copies a mark from one frame to others, at the same offset from each frame's origin, which is fixed to the character. Boxes move by whole
 * pixels. Pure.
 */
import { type Box, type FramePoint, type MarkPoint, type Outline, originOf, type PlacedFrame } from "../model";

export function carriedBox(box: Box, from: PlacedFrame, to: PlacedFrame): Box {
  const by = between(from, to);
  return { ...box, x: box.x + Math.round(by.x), y: box.y + Math.round(by.y) };
}

export function carriedPoint(point: MarkPoint, from: PlacedFrame, to: PlacedFrame): MarkPoint {
  const by = between(from, to);
  return { ...point, x: point.x + by.x, y: point.y + by.y };
}

export function carriedOutline(outline: Outline, from: PlacedFrame, to: PlacedFrame): Outline {
  const by = between(from, to);
  return outline.map(({ x, y }) => ({ x: x + Math.round(by.x), y: y + Math.round(by.y) }));
}

/** A box with its edges moved: `x` and `y` shift it, `w` and `h` make it larger. It keeps at least one pixel. */
export function changedBox(box: Box, by: Partial<Box>): Box {
  return {
    x: box.x + (by.x ?? 0),
    y: box.y + (by.y ?? 0),
    w: Math.max(1, box.w + (by.w ?? 0)),
    h: Math.max(1, box.h + (by.h ?? 0)),
  };
}

function between(from: PlacedFrame, to: PlacedFrame): FramePoint {
  const [a, b] = [originOf(from.source, from.frame), originOf(to.source, to.frame)];
  return { x: b.x - a.x, y: b.y - a.y };
}
