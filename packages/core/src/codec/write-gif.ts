/**
 * Writes animated GIF: complete pictures on a transparent canvas. A picture with up to 255 colours keeps them all; otherwise 255
 * well-chosen colours approximate the rest. Pixels are transparent or opaque, because GIF has nothing in between; durations are hundredths
 * of a second.
 */
/// <reference path="./gifenc.d.ts" />
import * as bundled from "gifenc";
import type { Pixels } from "../raster";
import type { AnimationFrame } from "./animation";

// Node hands CommonJS over whole, bundlers by names.
const { GIFEncoder, quantize, applyPalette } = "GIFEncoder" in bundled ? bundled : (bundled as { default: typeof bundled }).default;

/** From this alpha on a pixel is opaque in a GIF. */
const OPAQUE = 128;

/** Browsers show shorter frames far longer, each as it pleases. */
const SHORTEST = 20; // ms

/** The time that a GIF shows nearest to this one, in ms. */
function gifTime(ms: number): number {
  return Math.min(655_350, Math.max(SHORTEST, Math.round(ms / 10) * 10));
}

/** The durations of all pictures as a GIF holds them, rounded so that the sum stays as close to the true one as possible. Times in ms. */
export function gifTimes(times: readonly number[]): number[] {
  let truth = 0;
  let told = 0;
  return times.map((ms) => {
    truth += ms;
    const time = gifTime(truth - told);
    told += time;
    return time;
  });
}

export interface WrittenGif {
  readonly bytes: Uint8Array;
  /** Whether every pixel is preserved: few enough colours, and none half-transparent. */
  readonly exact: boolean;
}

/** Pictures of one size with their times in ms, as `gifTimes` gives them; `plays` 0 is forever. */
export function writeGif(frames: readonly AnimationFrame[], plays: number): WrittenGif {
  const encoder = GIFEncoder();
  let exact = true;
  for (const { pixels, ms } of frames) {
    const drawn = indexed(pixels);
    exact &&= drawn.exact;
    encoder.writeFrame(drawn.index, pixels.width, pixels.height, {
      palette: drawn.palette,
      delay: ms,
      transparent: true,
      transparentIndex: 0,
      repeat: plays === 0 ? 0 : plays === 1 ? -1 : plays - 1,
      dispose: 2,
    });
  }
  encoder.finish();
  return { bytes: encoder.bytes(), exact };
}

/** Index 0 is clear. */
function indexed({ bytes }: Pixels): { index: Uint8Array; palette: number[][]; exact: boolean } {
  const index = new Uint8Array(bytes.length / 4);
  const places = new Map<number, number>();
  const palette: number[][] = [[0, 0, 0]];
  let exact = true;
  for (let k = 0; k < index.length; k++) {
    const [r, g, b, alpha] = [bytes[k * 4], bytes[k * 4 + 1], bytes[k * 4 + 2], bytes[k * 4 + 3]] as [number, number, number, number];
    if (alpha !== 0 && alpha !== 255) exact = false;
    if (alpha < OPAQUE) continue;
    const colour = (r << 16) | (g << 8) | b;
    let place = places.get(colour);
    if (place === undefined) {
      place = palette.length;
      places.set(colour, place);
      palette.push([r, g, b]);
    }
    index[k] = place;
  }
  return palette.length <= 256 ? { index, palette, exact } : { ...nearest(bytes), exact: false };
}

function nearest(bytes: Uint8Array): { index: Uint8Array; palette: number[][] } {
  const opaque = bytes.slice();
  const shown: number[] = [];
  for (let k = 0; k < bytes.length / 4; k++) if ((bytes[k * 4 + 3] as number) >= OPAQUE) shown.push(k);
  const colours = new Uint8Array(shown.length * 4);
  shown.forEach((k, at) => {
    colours.set(opaque.subarray(k * 4, k * 4 + 3), at * 4);
    colours[at * 4 + 3] = 255;
  });
  const chosen = quantize(colours, 255);
  const of = applyPalette(colours, chosen);
  const index = new Uint8Array(bytes.length / 4);
  shown.forEach((k, at) => {
    index[k] = (of[at] as number) + 1;
  });
  return { index, palette: [[0, 0, 0], ...chosen] };
}
