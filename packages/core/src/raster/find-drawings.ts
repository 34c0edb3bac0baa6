/**
 * Finds where drawings in rectangles of one picture occur in another: exactly, pixel by pixel, with nothing else in the rectangle.
 *
 * Each drawing's anchor is a short run of pixels in one row, chosen for its many colours. One pass over the other picture with a rolling
 * hash (Karp and Rabin, 1987) finds all anchors of one length; each hit is compared with the whole rectangle. Cost: O(pixels × anchor
 * lengths, at most 8) and the comparisons, each of which ends at the first different pixel.
 */
import type { Rect } from "../model";
import type { Pixels } from "./pixels";
import { wordsOf } from "./words";

/** Longest anchor, in pixels. */
const LONGEST = 8;
/** Places looked for at most for one drawing: where there are more, none of them says anything. */
const MOST = 16;
const BASE = 0x01000193;

interface Anchor {
  readonly rect: number;
  /** From the rectangle's corner to the anchor's first pixel. */
  readonly dx: number;
  readonly dy: number;
  readonly length: number;
  readonly hash: number;
}

/** For each rectangle, which must lie within `before`: positions in `after` with exactly the same drawing; none for an empty one. */
export function findDrawings(before: Pixels, rects: readonly Rect[], after: Pixels): Rect[][] {
  const from = wordsOf(before);
  const to = wordsOf(after);
  const found: Rect[][] = rects.map(() => []);
  const isAt = ({ x, y, w, h }: Rect, left: number, top: number): boolean => {
    for (let row = 0; row < h; row++) {
      const a = (y + row) * before.width + x;
      const b = (top + row) * after.width + left;
      for (let column = 0; column < w; column++) if (from[a + column] !== to[b + column]) return false;
    }
    return true;
  };
  const byLength = new Map<number, Map<number, Anchor[]>>();
  for (const [k, rect] of rects.entries()) {
    const anchor = anchorOf(from, before.width, rect, k);
    if (!anchor) continue;
    const byHash = byLength.get(anchor.length) ?? new Map<number, Anchor[]>();
    byLength.set(anchor.length, byHash);
    const alike = byHash.get(anchor.hash);
    if (alike) alike.push(anchor);
    else byHash.set(anchor.hash, [anchor]);
  }
  for (const [length, byHash] of byLength)
    eachRun(to, after, length, byHash, (x, y, { rect: k, dx, dy }) => {
      const rect = rects[k] as Rect;
      const places = found[k] as Rect[];
      const [left, top] = [x - dx, y - dy];
      if (places.length >= MOST || left < 0 || top < 0 || left + rect.w > after.width || top + rect.h > after.height) return;
      if (isAt(rect, left, top)) places.push({ ...rect, x: left, y: top });
    });
  return found;
}

/** The run of drawn and clear pixels with the most colours in a rectangle; null if nothing is drawn in it. */
function anchorOf(words: Uint32Array, width: number, { x, y, w, h }: Rect, rect: number): Anchor | null {
  const length = Math.min(LONGEST, w);
  let best: { dx: number; dy: number; colours: number } | null = null;
  for (let dy = 0; dy < h; dy++)
    for (let dx = 0; dx + length <= w; dx += Math.max(1, length >> 1)) {
      const start = (y + dy) * width + x + dx;
      const run = words.subarray(start, start + length);
      if (run.every((word) => word === 0)) continue;
      const colours = new Set(run).size;
      if (!best || colours > best.colours) best = { dx, dy, colours };
    }
  // A drawing only at the right edge may lie beyond the last whole run.
  if (!best) {
    const at = lastDrawn(words, width, { x, y, w, h }, length);
    if (!at) return null;
    best = { ...at, colours: 1 };
  }
  const { dx, dy } = best;
  let hash = 0;
  const start = (y + dy) * width + x + dx;
  for (let k = 0; k < length; k++) hash = (Math.imul(hash, BASE) + (words[start + k] as number)) | 0;
  return { rect, dx, dy, length, hash };
}

/** A run that ends at the rectangle's right edge and has something drawn in it. */
function lastDrawn(words: Uint32Array, width: number, { x, y, w, h }: Rect, length: number): { dx: number; dy: number } | null {
  for (let dy = 0; dy < h; dy++) {
    const start = (y + dy) * width + x + w - length;
    if (words.subarray(start, start + length).some((word) => word !== 0)) return { dx: w - length, dy };
  }
  return null;
}

/** Calls `hit` for every run of `length` pixels in a row whose hash is that of an anchor. */
function eachRun(
  words: Uint32Array,
  { width, height }: Pixels,
  length: number,
  byHash: ReadonlyMap<number, readonly Anchor[]>,
  hit: (x: number, y: number, anchor: Anchor) => void,
): void {
  if (width < length) return;
  let gone = 1;
  for (let k = 0; k < length; k++) gone = Math.imul(gone, BASE);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let hash = 0;
    for (let x = 0; x < width; x++) {
      hash = (Math.imul(hash, BASE) + (words[row + x] as number)) | 0;
      if (x >= length) hash = (hash - Math.imul(gone, words[row + x - length] as number)) | 0;
      if (x < length - 1) continue;
      const anchors = byHash.get(hash);
      if (anchors) for (const anchor of anchors) hit(x - length + 1, y, anchor);
    }
  }
}
