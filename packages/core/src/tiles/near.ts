/** Finds near-duplicate tiles that could be one. */
import type { Flip } from "../model";
import type { Pixels } from "../raster";

export interface NearPair {
  /** Places in the list of tiles; `one` is before `other`. */
  readonly one: number;
  readonly other: number;
  /** How `other` has to be flipped to be most like `one`. */
  readonly flip?: Flip;
  /** Pixels in which they then differ; 0 for tiles that are each other's flip. */
  readonly differ: number;
}

const FLIPS: readonly (Flip | undefined)[] = [undefined, "across", "down", "both"];

/**
 * Pairs of tiles of one size that differ in at most this many pixels, the most similar first; all transparent pixels are equal. Cost:
 * O(tiles² × pixels of a tile) at worst; most pairs are rejected after a few pixels.
 */
export function nearTiles(tiles: readonly Pixels[], most: number): NearPair[] {
  const words = tiles.map(({ bytes }) => {
    const aligned = bytes.byteOffset % 4 === 0 ? bytes : bytes.slice();
    return new Uint32Array(aligned.buffer, aligned.byteOffset, aligned.byteLength >> 2).map((word) => (word >>> 24 === 0 ? 0 : word));
  });
  const turned = words.map((each, k) => FLIPS.map((flip) => flipped(each, tiles[k] as Pixels, flip)));
  const pairs: NearPair[] = [];
  for (let one = 0; one < tiles.length; one++)
    for (let other = one + 1; other < tiles.length; other++) {
      const [a, b] = [tiles[one] as Pixels, tiles[other] as Pixels];
      if (a.width !== b.width || a.height !== b.height) continue;
      let [least, best] = [most + 1, 0];
      for (let k = 0; k < FLIPS.length && least > 0; k++) {
        const differ = differing(words[one] as Uint32Array, (turned[other] as Uint32Array[])[k] as Uint32Array, least);
        if (differ < least) [least, best] = [differ, k];
      }
      const flip = FLIPS[best];
      if (least <= most) pairs.push({ one, other, differ: least, ...(flip ? { flip } : {}) });
    }
  return pairs.sort((a, b) => a.differ - b.differ || a.one - b.one || a.other - b.other);
}

/** Pixels in which two tiles differ; given up at `enough`. */
function differing(one: Uint32Array, other: Uint32Array, enough: number): number {
  let count = 0;
  for (let k = 0; k < one.length && count < enough; k++) if (one[k] !== other[k]) count++;
  return count;
}

function flipped(words: Uint32Array, { width: w, height: h }: Pixels, flip: Flip | undefined): Uint32Array {
  if (!flip) return words;
  const across = flip !== "down";
  const down = flip !== "across";
  return words.map((_, k) => {
    const [x, y] = [k % w, Math.floor(k / w)];
    return words[(down ? h - 1 - y : y) * w + (across ? w - 1 - x : x)] as number;
  });
}
