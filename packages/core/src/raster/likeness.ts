import type { Rect } from "../model";
import { crop, looksSame, type Pixels } from "./pixels";

/** A part of a picture, without copying it. */
export interface Part {
  readonly pixels: Pixels;
  readonly rect: Rect;
}

/**
 * A number that is equal for parts that look the same; colours under alpha 0 do not count.
 *
 * FNV-1a over 32-bit words (Fowler, Noll & Vo, RFC draft-eastlake-fnv), mixed with the size. Unlike parts may share it,
 * so `firstAlike` compares pixels before it calls two parts alike.
 */
function likenessHash({ pixels, rect }: Part): number {
  const { bytes, width } = pixels;
  let hash = Math.imul(0x811c9dc5 ^ rect.w, 0x01000193) ^ rect.h;
  for (let y = rect.y; y < rect.y + rect.h; y++)
    for (let k = (y * width + rect.x) * 4, end = k + rect.w * 4; k < end; k += 4) {
      const alpha = bytes[k + 3] as number;
      const word =
        alpha === 0 ? 0 : (alpha << 24) | ((bytes[k] as number) << 16) | ((bytes[k + 1] as number) << 8) | (bytes[k + 2] as number);
      hash = Math.imul(hash ^ word, 0x01000193);
    }
  return hash >>> 0;
}

/**
 * For each part the index of the first part that looks the same, itself if there is none before it.
 * Cost: O(pixels) unless hashes collide.
 */
export function firstAlike(parts: readonly Part[]): number[] {
  const byHash = new Map<number, number[]>();
  return parts.map((part, index) => {
    const hash = likenessHash(part);
    const group = byHash.get(hash) ?? [];
    byHash.set(hash, group);
    const twin = group.find((other) => alike(parts[other] as Part, part));
    if (twin !== undefined) return twin;
    group.push(index);
    return index;
  });
}

function alike(a: Part, b: Part): boolean {
  return a.rect.w === b.rect.w && a.rect.h === b.rect.h && looksSame(crop(a.pixels, a.rect), crop(b.pixels, b.rect));
}
