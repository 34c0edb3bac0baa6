/** Where the boxes, points and outlines of a frame are in the world, for a character that stands on (x, y): docs/wiring has a picture. */
import type { AtlasFrame } from "@caravan/player";

export interface Standing {
  readonly x: number;
  readonly y: number;
  /** Whether the frame is drawn mirrored, about the origin. */
  readonly mirror: boolean;
}

type Box = NonNullable<AtlasFrame["boxes"]>[string][number];
type Outline = NonNullable<AtlasFrame["outlines"]>[string][number];

export function boxInWorld({ origin }: AtlasFrame, { x, y, w, h }: Box, at: Standing): Box {
  const left = Math.round(origin.x) - x;
  return { x: at.mirror ? at.x + left - w : at.x - left, y: at.y - Math.round(origin.y) + y, w, h };
}

export function pointInWorld({ origin }: AtlasFrame, { x, y }: { x: number; y: number }, at: Standing): { x: number; y: number } {
  const far = x - Math.round(origin.x);
  return { x: Math.floor(at.mirror ? at.x - far : at.x + far), y: Math.floor(at.y - Math.round(origin.y) + y) };
}

export function outlineInWorld({ origin }: AtlasFrame, corners: Outline, at: Standing): { x: number; y: number }[] {
  const [left, top] = [Math.round(origin.x), Math.round(origin.y)];
  return corners.map(({ x, y }) => ({ x: at.mirror ? at.x + left - x : at.x - left + x, y: at.y - top + y }));
}

/** Draws boxes, outlines and crosses for points, to show that they are where the figure is. */
export function drawMarks(context: CanvasRenderingContext2D, frame: AtlasFrame, at: Standing): void {
  context.fillStyle = "#2b1a12";
  for (const boxes of Object.values(frame.boxes ?? {}))
    for (const box of boxes) {
      const { x, y, w, h } = boxInWorld(frame, box, at);
      for (const [left, top, wide, high] of [
        [x, y, w, 1],
        [x, y + h - 1, w, 1],
        [x, y, 1, h],
        [x + w - 1, y, 1, h],
      ] as const)
        context.fillRect(left, top, wide, high);
    }
  context.strokeStyle = "#2b1a12";
  for (const polygons of Object.values(frame.outlines ?? {}))
    for (const polygon of polygons) {
      context.beginPath();
      for (const { x, y } of outlineInWorld(frame, polygon, at)) context.lineTo(x, y);
      context.closePath();
      context.stroke();
    }
  context.fillStyle = "#f7f2e8";
  for (const point of Object.values(frame.points ?? {})) {
    const { x, y } = pointInWorld(frame, point, at);
    context.fillRect(x - 1, y, 3, 1);
    context.fillRect(x, y - 1, 1, 3);
  }
}
