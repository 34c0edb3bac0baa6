/**
 * Computes a print of the drawing in a part of a picture, independent of its position: equal drawings have equal prints.
 *
 * The print is a hash over the pixels of the smallest rectangle around everything drawn; colours under alpha 0 are ignored. Two lanes of
 * FNV-1a (Fowler, Noll, Vo, 1991), each over 32-bit words with its own prime: 64 bits together, so that among ten thousand drawings none
 * collide by chance.
 */
import type { Rect } from "../model";
import type { Pixels } from "./pixels";
import { isDrawnWord } from "./words";

export interface Drawing {
  readonly print: string;
  /** Top-left corner of the drawing, on the picture. */
  readonly x: number;
  readonly y: number;
}

/** For each rectangle, which must lie within the picture; null for an empty one. Cost: O(pixels of the rectangles). */
export function drawingsIn(pixels: Pixels, rects: readonly Rect[]): (Drawing | null)[] {
  const words = new Uint32Array(pixels.bytes.buffer, pixels.bytes.byteOffset, pixels.width * pixels.height);
  return rects.map((rect) => drawingIn(words, pixels.width, rect));
}

function drawingIn(words: Uint32Array, width: number, { x, y, w, h }: Rect): Drawing | null {
  let [left, top, right, bottom] = [w, -1, -1, -1];
  for (let row = 0; row < h; row++) {
    const start = (y + row) * width + x;
    for (let column = 0; column < w; column++) {
      if (!isDrawnWord(words[start + column] as number)) continue;
      if (top < 0) top = row;
      bottom = row;
      if (column < left) left = column;
      if (column > right) right = column;
    }
  }
  if (top < 0) return null;
  let one = 0x811c9dc5;
  let two = 0x01000193;
  for (let row = top; row <= bottom; row++) {
    const start = (y + row) * width + x;
    for (let column = left; column <= right; column++) {
      const word = words[start + column] as number;
      const seen = isDrawnWord(word) ? word : 0;
      one = Math.imul(one ^ seen, 0x01000193);
      one ^= one >>> 15;
      two = Math.imul(two ^ seen, 0x85ebca6b);
      two ^= two >>> 13;
    }
  }
  const print = `${right - left + 1}x${bottom - top + 1}:${(one >>> 0).toString(36)}.${(two >>> 0).toString(36)}`;
  return { print, x: x + left, y: y + top };
}
