/** Draws frames as a game does (see docs/wiring). Coordinates are relative to the origin, in frame pixels, y down. */
import type { Atlas, AtlasFrame } from "@caravan/player";
import type { Delivery } from "./delivery";

/** A frame, mirrored or not, rotated in degrees about its origin, which is at (x, y). */
export interface Placed {
  readonly frame: string;
  readonly mirror: boolean;
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

export function frameNamed({ frames }: Atlas, name: string): AtlasFrame | undefined {
  return Object.hasOwn(frames, name) ? frames[name] : undefined;
}

export function drawFrame(context: CanvasRenderingContext2D, { atlas, pages }: Delivery, { frame, mirror, x, y, angle }: Placed): void {
  const told = frameNamed(atlas, frame);
  if (!told) return;
  const { page, rect, turned, mirrored = false, inset, origin } = told;
  const upright = turned ? { w: rect.h, h: rect.w } : rect;
  context.save();
  context.translate(x, y);
  if (angle !== 0) context.rotate((angle * Math.PI) / 180);
  if (mirror) context.scale(-1, 1);
  context.translate(inset.x - origin.x, inset.y - origin.y);
  if (mirrored) {
    context.translate(upright.w, 0);
    context.scale(-1, 1);
  }
  if (turned) {
    context.translate(0, upright.h);
    context.rotate(-Math.PI / 2);
  }
  context.imageSmoothingEnabled = atlas.pages[page]?.filter === "linear";
  for (const { picture, operation } of pages[page] ?? []) {
    context.globalCompositeOperation = operation;
    context.drawImage(picture, rect.x, rect.y, rect.w, rect.h, 0, 0, rect.w, rect.h);
  }
  context.restore();
}

/** Lines around boxes and along outlines, crosses on points. `line` is how wide one is, in pixels of the frame. */
export function drawMarks(context: CanvasRenderingContext2D, told: AtlasFrame, mirror: boolean, line: number): void {
  const { origin, boxes = {}, outlines = {}, points = {} } = told;
  context.save();
  if (mirror) context.scale(-1, 1);
  context.translate(-origin.x, -origin.y);
  const twice = (path: () => void) => {
    for (const [colour, width] of [
      ["#221f1a", line * 3],
      ["#fffdf8", line],
    ] as const) {
      context.strokeStyle = colour;
      context.lineWidth = width;
      path();
    }
  };
  for (const { x, y, w, h } of Object.values(boxes).flat()) twice(() => context.strokeRect(x, y, w, h));
  for (const polygon of Object.values(outlines).flat())
    twice(() => {
      context.beginPath();
      for (const { x, y } of polygon) context.lineTo(x, y);
      context.closePath();
      context.stroke();
    });
  for (const { x, y } of Object.values(points))
    twice(() => {
      context.beginPath();
      context.moveTo(x - line * 5, y);
      context.lineTo(x + line * 5, y);
      context.moveTo(x, y - line * 5);
      context.lineTo(x, y + line * 5);
      context.stroke();
    });
  context.restore();
}

/** How far from the origin anything of these frames reaches, mirrored or not. */
export interface Reach {
  readonly side: number;
  readonly above: number;
  readonly below: number;
}

export function reachOf(atlas: Atlas, frames: Iterable<string>): Reach {
  let [side, above, below] = [1, 1, 1];
  for (const name of frames) {
    const told = frameNamed(atlas, name);
    if (!told) continue;
    const { origin, size } = told;
    side = Math.max(side, origin.x, size.w - origin.x);
    above = Math.max(above, origin.y);
    below = Math.max(below, size.h - origin.y);
  }
  return { side, above, below };
}
