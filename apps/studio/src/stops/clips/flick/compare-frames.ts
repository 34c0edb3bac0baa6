/** Overlays two frames as the player shows them, and marks where they differ. */
import { type Difference, differenceOf } from "@caravan/core/raster";
import { drawStill, paintStill, shownLayers } from "../../../preview/draw-frame";
import type { PlayedFrame } from "../../../preview/playing";
import { anchorOf, type HeldStill, reachOf } from "../../../preview/stage-scene";
import { pictureNow } from "../../../project/pictures";

export interface Compared extends Difference {
  readonly width: number;
  readonly height: number;
  /** The distance of the lowest drawn pixel from the ground line: positive is below. Null for an empty frame. */
  readonly feet: readonly [number | null, number | null];
}

/** Null until the pictures are loaded. Both frames stand on one point, their origins or the middles of their bottoms. */
export function compareFrames(a: PlayedFrame, b: PlayedFrame, held: HeldStill): Compared | null {
  const reach = reachOf([{ frames: [a, b], mirror: false }], held);
  const width = Math.ceil(reach.left + reach.right);
  const height = Math.ceil(reach.up + reach.down);
  const drawn = (draw: Draw) =>
    [a, b].map((frame) => drawOn(frame, draw, Math.round(reach.left), Math.round(reach.up), width, height, held));
  const [first, second] = drawn(asShown);
  // Light on the ground is no foot.
  const [own, other] = drawn(figureOnly);
  if (!first || !second || !own || !other) return null;
  const ground = Math.round(reach.up);
  return { ...differenceOf(first, second), width, height, feet: [feetOf(own, ground), feetOf(other, ground)] };
}

/** Draws a frame; false while a picture is not there. */
type Draw = (context: OffscreenCanvasRenderingContext2D, frame: PlayedFrame, x: number, y: number) => boolean;

const asShown: Draw = (context, frame, x, y) => {
  if (shownLayers(frame).some(({ look }) => !pictureNow(look))) return false;
  paintStill(context, frame, x, y, 1);
  return true;
};

const figureOnly: Draw = (context, frame, x, y) => {
  const picture = pictureNow(frame.look);
  if (picture) drawStill(context, picture, frame, x, y, 1);
  return picture !== undefined;
};

function drawOn(frame: PlayedFrame, draw: Draw, x: number, y: number, width: number, height: number, held: HeldStill) {
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  if (!context) return null;
  const anchor = anchorOf(frame, held);
  context.imageSmoothingEnabled = false;
  if (!draw(context, frame, Math.round(x - anchor.x), Math.round(y - anchor.y))) return null;
  return { width, height, bytes: new Uint8Array(context.getImageData(0, 0, width, height).data.buffer) };
}

function feetOf({ width, height, bytes }: { width: number; height: number; bytes: Uint8Array }, ground: number): number | null {
  for (let y = height - 1; y >= 0; y--) for (let x = 0; x < width; x++) if (bytes[(y * width + x) * 4 + 3] !== 0) return y + 1 - ground;
  return null;
}
