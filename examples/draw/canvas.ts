import { clearPixels, type Pixels, paste } from "@caravan/core/raster";
import { rgb } from "./palette";

/** Draws one opaque pixel; outside the picture nothing happens. */
export function dot(pixels: Pixels, x: number, y: number, hex: string): void {
  if (x < 0 || y < 0 || x >= pixels.width || y >= pixels.height) return;
  pixels.bytes.set([...rgb(hex), 255], (y * pixels.width + x) * 4);
}

/** Lays equal pictures out in rows. */
export function sheetOf(frames: readonly Pixels[], columns: number): Pixels {
  const { width, height } = frames[0] as Pixels;
  const sheet = clearPixels(width * columns, height * Math.ceil(frames.length / columns));
  frames.forEach((frame, k) => {
    paste(sheet, frame, { x: 0, y: 0, w: width, h: height }, (k % columns) * width, Math.floor(k / columns) * height);
  });
  return sheet;
}

/** A seeded stream of numbers from 0 up to 1: mulberry32, by T. Ettinger, public domain. */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
