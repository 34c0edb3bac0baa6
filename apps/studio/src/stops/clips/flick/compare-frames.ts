/** Two frames laid on one another as the player shows them, and where they differ. */
import { type Difference, differenceOf } from "@caravan/core/raster";
import { drawStill } from "../../../preview/draw-frame";
import type { PlayedFrame } from "../../../preview/playing";
import { anchorOf, type HeldStill, reachOf } from "../../../preview/stage-scene";
import { pictureNow } from "../../../project/pictures";

export interface Compared extends Difference {
  readonly width: number;
  readonly height: number;
  /** How far the lowest drawn pixel is from the ground line: positive is under it. Null where nothing is drawn. */
  readonly feet: readonly [number | null, number | null];
}

/** Null while a picture is not there yet. Both frames stand on one point, their origins or the middles of their bottoms. */
export function compareFrames(a: PlayedFrame, b: PlayedFrame, held: HeldStill): Compared | null {
  const reach = reachOf([{ frames: [a, b], mirror: false }], held);
  const width = Math.ceil(reach.left + reach.right);
  const height = Math.ceil(reach.up + reach.down);
  const drawn = [a, b].map((frame) => drawOn(frame, Math.round(reach.left), Math.round(reach.up), width, height, held));
  const [first, second] = drawn;
  if (!first || !second) return null;
  const ground = Math.round(reach.up);
  return { ...differenceOf(first, second), width, height, feet: [feetOf(first, ground), feetOf(second, ground)] };
}

function drawOn(frame: PlayedFrame, x: number, y: number, width: number, height: number, held: HeldStill) {
  const picture = pictureNow(frame.look);
  if (!picture) return null;
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  if (!context) return null;
  const anchor = anchorOf(frame, held);
  context.imageSmoothingEnabled = false;
  drawStill(context, picture, frame, Math.round(x - anchor.x), Math.round(y - anchor.y), 1);
  return { width, height, bytes: new Uint8Array(context.getImageData(0, 0, width, height).data.buffer) };
}

function feetOf({ width, height, bytes }: { width: number; height: number; bytes: Uint8Array }, ground: number): number | null {
  for (let y = height - 1; y >= 0; y--) for (let x = 0; x < width; x++) if (bytes[(y * width + x) * 4 + 3] !== 0) return y + 1 - ground;
  return null;
}
