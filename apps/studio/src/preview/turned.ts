/** Draws mirrored images, or images rotated by quarter turns, so that pixels stay whole. */
import type { Rect } from "@caravan/core/model";

/** Draws at `x` or, mirrored, so that a drawing from x rightward fills the same place flipped. */
export function mirrored(context: CanvasRenderingContext2D, mirror: boolean, x: number, width: number, draw: (x: number) => void): void {
  if (!mirror) {
    draw(x);
    return;
  }
  context.save();
  context.translate(2 * x + width, 0);
  context.scale(-1, 1);
  draw(x);
  context.restore();
}

/** Draws into a rectangle, turned by quarter turns. `draw` gets the upper left corner to draw at, before turning. */
export function turned(
  context: CanvasRenderingContext2D,
  { x, y, w, h }: Rect,
  angle: number,
  draw: (left: number, top: number) => void,
): void {
  if (angle === 0) {
    draw(x, y);
    return;
  }
  context.save();
  context.translate(x + (angle === 270 ? 0 : w), y + (angle === 90 ? 0 : h));
  // Whole numbers, since a sine that is nearly 0 would blur the edges of pixels.
  const [cos, sin] = { 90: [0, 1], 180: [-1, 0], 270: [0, -1] }[angle] as [number, number];
  context.transform(cos, sin, 0 - sin, cos, 0, 0);
  draw(0, 0);
  context.restore();
}
