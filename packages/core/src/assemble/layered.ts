/**
 * Blends pictures of equal size, the first lowest.
 *
 * The formulas are from "Compositing and Blending Level 1" (W3C) on straight alpha: `normal` is source-over; `multiply` is the separable
 * blend mode of that name, composited source-over; `add` is plus-lighter, the sum of premultiplied colours and of alphas. A canvas with the
 * operations of these names draws the same picture, except for rounding.
 */
import { type Blend, unreachable } from "../model";
import { clearPixels, lay, type Pixels } from "../raster";

export interface BlendedPicture {
  readonly pixels: Pixels;
  readonly blend: Blend;
}

/** At least one picture; what the first one blends with is clear, so its own blend says nothing. Cost: O(pixels × pictures). */
export function layered(pictures: readonly BlendedPicture[]): Pixels {
  const [lowest, ...over] = pictures as [BlendedPicture, ...BlendedPicture[]];
  const canvas = clearPixels(lowest.pixels.width, lowest.pixels.height);
  canvas.bytes.set(lowest.pixels.bytes);
  for (const { pixels, blend } of over) blendOnto(canvas, pixels, blend);
  return canvas;
}

function blendOnto(canvas: Pixels, pixels: Pixels, blend: Blend): void {
  switch (blend) {
    case "normal":
      lay(canvas, pixels, 0, 0, true);
      break;
    case "add":
      added(canvas.bytes, pixels.bytes);
      break;
    case "multiply":
      multiplied(canvas.bytes, pixels.bytes);
      break;
    default:
      unreachable(blend);
  }
}

function added(onto: Uint8Array, from: Uint8Array): void {
  for (let at = 0; at < onto.length; at += 4) {
    const a = from[at + 3] as number;
    if (a === 0) continue;
    const b = onto[at + 3] as number;
    const alpha = Math.min(255, a + b);
    for (let k = at; k < at + 3; k++) onto[k] = Math.min(255, Math.round(((from[k] as number) * a + (onto[k] as number) * b) / alpha));
    onto[at + 3] = alpha;
  }
}

function multiplied(onto: Uint8Array, from: Uint8Array): void {
  for (let at = 0; at < onto.length; at += 4) {
    const a = from[at + 3] as number;
    if (a === 0) continue;
    const b = onto[at + 3] as number;
    // Alpha times 255, so that rounding happens only at the end.
    const rest = b * (255 - a);
    const alpha = a * 255 + rest;
    for (let k = at; k < at + 3; k++) {
      const [own, below] = [from[k] as number, onto[k] as number];
      const mixed = own * (255 - b) + (own * below * b) / 255;
      onto[k] = Math.round((a * mixed + rest * below) / alpha);
    }
    onto[at + 3] = Math.round(alpha / 255);
  }
}
