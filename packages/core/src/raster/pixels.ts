import type { Rect } from "../model";

/** RGBA pixels, 8 bits per channel, straight alpha; row by row from the top, `width × height × 4` bytes. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
}

/** A picture of wholly clear black. */
export function clearPixels(width: number, height: number): Pixels {
  return { width, height, bytes: new Uint8Array(width * height * 4) };
}

/** A copy of the part `rect`, which must lie within the picture. Cost: O(pixels copied). */
export function crop(pixels: Pixels, rect: Rect): Pixels {
  const out = clearPixels(rect.w, rect.h);
  paste(out, pixels, rect, 0, 0);
  return out;
}

/** Copies `rect` of `from` with its top-left corner to (x, y) of `onto`. Both must contain it entirely. */
export function paste(onto: Pixels, from: Pixels, rect: Rect, x: number, y: number): void {
  const rowBytes = rect.w * 4;
  for (let row = 0; row < rect.h; row++) {
    const start = ((rect.y + row) * from.width + rect.x) * 4;
    onto.bytes.set(from.bytes.subarray(start, start + rowBytes), ((y + row) * onto.width + x) * 4);
  }
}

/** The picture turned by 90° clockwise: what was its left edge is its top edge. */
export function turnClockwise(pixels: Pixels): Pixels {
  const { width, height } = pixels;
  const out = clearPixels(height, width);
  const from = pixelWords(pixels.bytes);
  const to = pixelWords(out.bytes);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) to[x * height + (height - 1 - y)] = from[y * width + x] as number;
  return out;
}

/** The picture turned by 90° counter-clockwise: undoes `turnClockwise`. */
export function turnCounterClockwise(pixels: Pixels): Pixels {
  const { width, height } = pixels;
  const out = clearPixels(height, width);
  const from = pixelWords(pixels.bytes);
  const to = pixelWords(out.bytes);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) to[(width - 1 - x) * height + y] = from[y * width + x] as number;
  return out;
}

/** The picture mirrored left to right. */
export function mirrored(pixels: Pixels): Pixels {
  const { width, height } = pixels;
  const out = clearPixels(width, height);
  const from = pixelWords(pixels.bytes);
  const to = pixelWords(out.bytes);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) to[y * width + (width - 1 - x)] = from[y * width + x] as number;
  return out;
}

/** Repeats the outermost pixels of `rect` outward `times` over, corners too. The picture must have room for it. */
export function extrude(onto: Pixels, rect: Rect, times: number): void {
  if (times === 0) return;
  const pixels = pixelWords(onto.bytes);
  const { width } = onto;
  for (let y = rect.y; y < rect.y + rect.h; y++) {
    const row = y * width;
    pixels.fill(pixels[row + rect.x] as number, row + rect.x - times, row + rect.x);
    pixels.fill(pixels[row + rect.x + rect.w - 1] as number, row + rect.x + rect.w, row + rect.x + rect.w + times);
  }
  const from = rect.x - times;
  const to = rect.x + rect.w + times;
  for (let k = 1; k <= times; k++) {
    pixels.copyWithin((rect.y - k) * width + from, rect.y * width + from, rect.y * width + to);
    const last = (rect.y + rect.h - 1) * width;
    pixels.copyWithin(last + k * width + from, last + from, last + to);
  }
}

/** True when both have the same size and every byte is the same, colours under alpha 0 included. */
export function samePixels(a: Pixels, b: Pixels): boolean {
  if (a.width !== b.width || a.height !== b.height) return false;
  const wordsA = pixelWords(a.bytes);
  const wordsB = pixelWords(b.bytes);
  for (let k = 0; k < wordsA.length; k++) if (wordsA[k] !== wordsB[k]) return false;
  return true;
}

/** True when they look the same: same size, same bytes wherever alpha is above 0. */
export function looksSame(a: Pixels, b: Pixels): boolean {
  if (a.width !== b.width || a.height !== b.height) return false;
  for (let k = 0; k < a.bytes.length; k += 4) {
    if (a.bytes[k + 3] !== b.bytes[k + 3]) return false;
    if (a.bytes[k + 3] === 0) continue;
    if (a.bytes[k] !== b.bytes[k] || a.bytes[k + 1] !== b.bytes[k + 1] || a.bytes[k + 2] !== b.bytes[k + 2]) return false;
  }
  return true;
}

/** One 32-bit word per pixel, sharing the bytes if they are aligned, otherwise over a copy. */
export function pixelWords(bytes: Uint8Array): Uint32Array {
  const aligned = bytes.byteOffset % 4 === 0 ? bytes : bytes.slice();
  return new Uint32Array(aligned.buffer, aligned.byteOffset, aligned.byteLength >> 2);
}
