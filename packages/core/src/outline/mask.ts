/** Masks: one byte per pixel, row by row; outlines are traced around them. */
import type { Px, Rect } from "../model";
import type { Pixels } from "../raster";

export interface Mask {
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
}

/** The pixels of a part of a picture with at least this alpha, 1 to 255. Cost: O(pixels). */
export function maskOf({ width, bytes }: Pixels, { x, y, w, h }: Rect, alpha: number): Mask {
  const out = new Uint8Array(w * h);
  for (let row = 0; row < h; row++)
    for (let k = 0; k < w; k++) if ((bytes[((y + row) * width + x + k) * 4 + 3] as number) >= alpha) out[row * w + k] = 1;
  return { width: w, height: h, bytes: out };
}

/** A mask and the position of place 0, 0 on it, from its top-left corner. */
export interface PlacedMask {
  readonly mask: Mask;
  readonly at: { readonly x: Px; readonly y: Px };
}

/** Pixels that hang together, by sides and corners, within the smallest rectangle around them and one clear pixel more on each side. */
export interface Island {
  /** The position of the mask's top-left corner. */
  readonly x: Px;
  readonly y: Px;
  readonly mask: Mask;
}

/** The islands of at least `leastPx` pixels, from the top, with their holes filled. Cost: O(pixels). */
export function islandsOf({ width, height, bytes }: Mask, leastPx: number): Island[] {
  const seen = new Uint8Array(width * height);
  const waiting = new Int32Array(width * height);
  const found: Island[] = [];
  for (let start = 0; start < bytes.length; start++) {
    if (bytes[start] === 0 || seen[start] === 1) continue;
    let count = 0;
    waiting[count++] = start;
    seen[start] = 1;
    let [left, right, top, bottom] = [width, 0, height, 0];
    for (let at = 0; at < count; at++) {
      const place = waiting[at] as number;
      const y = (place / width) | 0;
      const x = place - y * width;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      if (y > bottom) bottom = y;
      const [firstX, lastX, lastY] = [x > 0 ? x - 1 : 0, x < width - 1 ? x + 1 : x, y < height - 1 ? y + 1 : y];
      for (let v = y > 0 ? y - 1 : 0; v <= lastY; v++)
        for (let u = firstX; u <= lastX; u++) {
          const next = v * width + u;
          if (bytes[next] === 0 || seen[next] === 1) continue;
          seen[next] = 1;
          waiting[count++] = next;
        }
    }
    if (count < leastPx) continue;
    const own = { width: right - left + 3, height: bottom - top + 3 };
    const mask = { ...own, bytes: new Uint8Array(own.width * own.height) };
    for (let k = 0; k < count; k++) {
      const place = waiting[k] as number;
      mask.bytes[(Math.floor(place / width) - top + 1) * own.width + (place % width) - left + 1] = 1;
    }
    fillHoles(mask);
    found.push({ x: left - 1, y: top - 1, mask });
  }
  return found;
}

/** Fills everything not connected by sides to the rim, which must be clear. */
function fillHoles({ width, height, bytes }: Mask): void {
  const outside = new Uint8Array(bytes.length);
  const waiting = new Int32Array(bytes.length);
  let count = 1;
  outside[0] = 1;
  const reach = (place: number) => {
    if (bytes[place] === 1 || outside[place] === 1) return;
    outside[place] = 1;
    waiting[count++] = place;
  };
  for (let at = 0; at < count; at++) {
    const place = waiting[at] as number;
    const x = place % width;
    if (x > 0) reach(place - 1);
    if (x < width - 1) reach(place + 1);
    if (place >= width) reach(place - width);
    if (place < width * (height - 1)) reach(place + width);
  }
  for (let k = 0; k < bytes.length; k++) if (outside[k] === 0) bytes[k] = 1;
}
