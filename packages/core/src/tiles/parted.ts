/** Splits drawn frames into tiles, so that they can be rebuilt from the distinct ones. */
import type { Flip, Px, Size } from "../model";
import { crop, type Pixels } from "../raster";
import { type NamedPixels, tilesOf } from "./tiles";

/** A distinct tile, by where it was first met. Those at the right and lower edge of a frame may be smaller. */
export interface Part {
  /** Of the frames, in the order given. */
  readonly frame: number;
  readonly x: Px;
  readonly y: Px;
  readonly w: Px;
  readonly h: Px;
}

/** The position of a part on a frame. */
export interface Laid {
  readonly part: number;
  readonly x: Px;
  readonly y: Px;
  readonly flip?: Flip;
}

export interface Parted {
  readonly parts: readonly Part[];
  /** The parts of each frame, without empty ones. */
  readonly frames: readonly (readonly Laid[])[];
}

/**
 * Flipped tiles are one, within tiles of one size: a smaller one at an edge is flipped about its own middle. Cost: O(pixels).
 */
export function partedIntoTiles(frames: readonly Pixels[], { w, h }: Size): Parted {
  const places = frames.flatMap(({ width, height }, frame) => {
    const found: Part[] = [];
    for (let y = 0; y < height; y += h)
      for (let x = 0; x < width; x += w) found.push({ frame, x, y, w: Math.min(w, width - x), h: Math.min(h, height - y) });
    return found;
  });
  const bySize = new Map<string, Part[]>();
  for (const each of places) {
    const key = `${each.w} ${each.h}`;
    const group = bySize.get(key);
    if (group) group.push(each);
    else bySize.set(key, [each]);
  }
  const parts: Part[] = [];
  const laid = frames.map((): Laid[] => []);
  for (const group of bySize.values()) {
    const [{ w, h } = { w: 1, h: 1 }] = group;
    const cut = group.map(
      (each): NamedPixels => ({ name: "", pixels: crop(frames[each.frame] as Pixels, { x: each.x, y: each.y, w: each.w, h: each.h }) }),
    );
    const known = new Map<number, number>();
    for (const { frame: place, tile, flip } of tilesOf(cut, { w, h }).placed) {
      const at = group[place] as Part;
      let part = known.get(tile);
      if (part === undefined) {
        part = parts.length;
        parts.push(at);
        known.set(tile, part);
      }
      laid[at.frame]?.push(flip ? { part, x: at.x, y: at.y, flip } : { part, x: at.x, y: at.y });
    }
  }
  return { parts, frames: laid };
}
