/** Fits frames with given rectangles to a picture that became smaller: an artist cropped its canvas. */
import { commonArea, drawnSize, encloses, type Frame, type Size } from "../model";

/**
 * The frame with what is still on a picture of that size; the rest of it becomes padding, so that its size, origin and marks stay. Null if
 * that is less than half of it.
 */
export function onPicture(frame: Frame, { w, h }: Size): Frame | null {
  const { rect, turned, inset = { x: 0, y: 0 } } = frame;
  const picture = { x: 0, y: 0, w, h };
  if (encloses(picture, rect)) return frame;
  if (commonArea(picture, rect) * 2 < rect.w * rect.h) return null;
  const [left, top] = [Math.max(0, -rect.x), Math.max(0, -rect.y)];
  const [right, bottom] = [Math.max(0, rect.x + rect.w - w), Math.max(0, rect.y + rect.h - h)];
  // Turned frames have their own left and top elsewhere on the picture.
  const cut = turned === "counter" ? { x: bottom, y: left } : turned ? { x: top, y: right } : { x: left, y: top };
  return {
    ...frame,
    rect: { x: rect.x + left, y: rect.y + top, w: rect.w - left - right, h: rect.h - top - bottom },
    size: drawnSize(frame),
    inset: { x: inset.x + cut.x, y: inset.y + cut.y },
  };
}
