/**
 * Assembles frames from pieces: drawn on top of each other on a transparent canvas, the first lowest, cropped to the canvas.
 *
 * Source-over on straight alpha (Porter and Duff, "Compositing digital images", 1984). Where either pixel is opaque or transparent, the
 * result equals one of the two exactly.
 */
import type { Flip, Px, Size } from "../model";
import { clearPixels, type Pixels } from "../raster";

export interface LaidPiece {
  readonly pixels: Pixels;
  /** The top-left corner, after flipping; it may be outside. */
  readonly x: Px;
  readonly y: Px;
  readonly flip?: Flip | undefined;
}

/** Cost: O(pixels of the canvas + pixels of its pieces). */
export function assembled({ w, h }: Size, pieces: readonly LaidPiece[]): Pixels {
  const canvas = clearPixels(w, h);
  const onto = new Uint32Array(canvas.bytes.buffer);
  for (const piece of pieces) layOver(onto, canvas, piece);
  return canvas;
}

function layOver(onto: Uint32Array, { width, height }: Pixels, { pixels, x, y, flip }: LaidPiece): void {
  const from = wordsOf(pixels);
  const across = flip === "across" || flip === "both";
  const down = flip === "down" || flip === "both";
  const [left, right] = [Math.max(0, x), Math.min(width, x + pixels.width)];
  const [top, bottom] = [Math.max(0, y), Math.min(height, y + pixels.height)];
  for (let row = top; row < bottom; row++) {
    const line = (down ? pixels.height - 1 - (row - y) : row - y) * pixels.width;
    for (let column = left; column < right; column++) {
      const over = from[line + (across ? pixels.width - 1 - (column - x) : column - x)] as number;
      const alpha = over >>> 24;
      if (alpha === 0) continue;
      const at = row * width + column;
      onto[at] = alpha === 255 ? over : blended(over, onto[at] as number);
    }
  }
}

/** One pixel over another, as words of little-endian RGBA; every machine that runs this is little-endian. */
function blended(over: number, under: number): number {
  const [a, b] = [over >>> 24, under >>> 24];
  if (b === 0) return over;
  // Alpha times 255, so that rounding happens only at the end.
  const rest = b * (255 - a);
  const alpha = a * 255 + rest;
  const channel = (shift: number) => Math.round((((over >>> shift) & 255) * a * 255 + ((under >>> shift) & 255) * rest) / alpha);
  return ((Math.round(alpha / 255) << 24) | (channel(16) << 16) | (channel(8) << 8) | channel(0)) >>> 0;
}

function wordsOf({ bytes }: Pixels): Uint32Array {
  const aligned = bytes.byteOffset % 4 === 0 ? bytes : bytes.slice();
  return new Uint32Array(aligned.buffer, aligned.byteOffset, aligned.byteLength >> 2);
}

/** Stripes wider than a pixel, so that a missing piece is visible at any size. */
const STRIPE = 3; // px

/** Replaces a missing piece: a box with diagonal stripes and a border. */
export function hatched({ w, h }: Size): Pixels {
  const box = clearPixels(w, h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const edge = x === 0 || y === 0 || x === w - 1 || y === h - 1;
      if (edge || Math.floor((x + y) / STRIPE) % 2 === 0) box.bytes.set(edge ? [150, 40, 30, 255] : [214, 96, 72, 255], (y * w + x) * 4);
    }
  return box;
}
