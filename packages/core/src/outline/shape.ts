/** Combines and changes masks: union, intersection, median, grow, shrink, straight bottom. */
import type { SteadyWay } from "../model";
import type { Mask, PlacedMask } from "./mask";

/** Combines masks aligned at place 0, 0: the area covered by any, by at least half, or by all. Cost: O(pixels of all). */
export function steadyMask(masks: readonly PlacedMask[], by: SteadyWay): PlacedMask {
  const left = Math.max(0, ...masks.map(({ at }) => at.x));
  const top = Math.max(0, ...masks.map(({ at }) => at.y));
  const width = left + Math.max(1, ...masks.map(({ mask, at }) => mask.width - at.x));
  const height = top + Math.max(1, ...masks.map(({ mask, at }) => mask.height - at.y));
  const count = new Uint16Array(width * height);
  for (const { mask, at } of masks)
    for (let y = 0; y < mask.height; y++)
      for (let x = 0; x < mask.width; x++)
        if (mask.bytes[y * mask.width + x] === 1) {
          const place = (y + top - at.y) * width + x + left - at.x;
          count[place] = (count[place] as number) + 1;
        }
  const least = by === "union" ? 1 : by === "shared" ? masks.length : masks.length / 2;
  return { mask: { width, height, bytes: Uint8Array.from(count, (each) => (each > 0 && each >= least ? 1 : 0)) }, at: { x: left, y: top } };
}

/**
 * Grows a mask by this many pixels in all directions, as a square, so that corners stay corners; shrinks it if negative. Cost: O(pixels).
 */
export function grownMask({ mask, at }: PlacedMask, px: number): PlacedMask {
  if (px === 0) return { mask, at };
  if (px < 0) return { mask: inverted(spread(inverted(mask), -px, 1)), at };
  return { mask: spread(withRoom(mask, px), px, 0), at: { x: at.x + px, y: at.y + px } };
}

/** With `px` clear pixels more on each side. */
function withRoom({ width, height, bytes }: Mask, px: number): Mask {
  const wide = width + 2 * px;
  const out = new Uint8Array(wide * (height + 2 * px));
  for (let y = 0; y < height; y++) out.set(bytes.subarray(y * width, (y + 1) * width), (y + px) * wide + px);
  return { width: wide, height: height + 2 * px, bytes: out };
}

function inverted({ width, height, bytes }: Mask): Mask {
  return { width, height, bytes: bytes.map((each) => 1 - each) };
}

/** Every pixel within this distance of a covered one, across and down; `beyond` is the value outside the mask. */
function spread({ width, height, bytes }: Mask, px: number, beyond: 0 | 1): Mask {
  const across = new Uint8Array(bytes.length);
  for (let y = 0; y < height; y++) spreadAlong(bytes, across, y * width, 1, width, px, beyond);
  const out = new Uint8Array(bytes.length);
  for (let x = 0; x < width; x++) spreadAlong(across, out, x, width, height, px, beyond);
  return { width, height, bytes: out };
}

function spreadAlong(from: Uint8Array, to: Uint8Array, start: number, stride: number, count: number, px: number, beyond: 0 | 1): void {
  const isCovered = (k: number) => (k < 0 || k >= count ? beyond : (from[start + k * stride] as number)) === 1;
  let covered = 0;
  for (let k = -px; k < px; k++) if (isCovered(k)) covered++;
  for (let k = 0; k < count; k++) {
    if (isCovered(k + px)) covered++;
    if (covered > 0) to[start + k * stride] = 1;
    if (isCovered(k - px)) covered--;
  }
}

/** Share of the covered height, from below, whose width the bottom gets. */
const FOOT = 0.12;
/** A figure that is further from the ground than this share of its height is in the air. */
const AIR = 0.25;

export interface Flattened extends PlacedMask {
  /** Down from the mask's top edge; null for an empty mask. */
  readonly bottom: number | null;
}

/**
 * Gives a mask a straight bottom as wide as its feet: on the ground at 0, or at its lowest pixel while it is in the air. Anything below is
 * cut off. Cost: O(pixels).
 */
export function flattenedMask({ mask, at }: PlacedMask): Flattened {
  const { width, bytes } = mask;
  const rowOf = (place: number) => Math.floor(place / width);
  const first = bytes.indexOf(1);
  if (first < 0) return { mask, at, bottom: null };
  const [top, lowest] = [rowOf(first), rowOf(bytes.lastIndexOf(1)) + 1];
  const tall = lowest - top;
  const bottom = Math.abs(lowest - at.y) > tall * AIR || at.y <= top ? lowest : at.y;
  const foot = Math.max(top, lowest - Math.max(1, Math.round(tall * FOOT)));
  let [left, right] = [width, 0];
  for (let y = foot; y < lowest; y++)
    for (let x = 0; x < width; x++) if (bytes[y * width + x] === 1) [left, right] = [Math.min(left, x), Math.max(right, x + 1)];
  const height = Math.max(mask.height, bottom);
  const out = new Uint8Array(width * height);
  out.set(bytes.subarray(0, Math.min(bytes.length, bottom * width)));
  for (let y = Math.min(foot, bottom - 1); y < bottom; y++) out.fill(1, y * width + left, y * width + right);
  return { mask: { width, height, bytes: out }, at, bottom };
}
