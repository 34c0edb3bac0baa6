/** Finds frames that show the same picture, and frames that mirror each other. */
import type { FrameRef } from "../model";
import { firstAlike, mirrored, type Pixels } from "../raster";

/** A frame as a game sees it: upright, untrimmed. */
export interface SeenFrame {
  readonly ref: FrameRef;
  readonly pixels: Pixels;
}

export interface Repeats {
  /** Frames that look the same, the first of the tray first; only groups of two and more. */
  readonly same: readonly (readonly FrameRef[])[];
  /** Pairs in which one mirrors the other. Only the first of each group of equal frames takes part. */
  readonly mirrored: readonly (readonly [FrameRef, FrameRef])[];
}

export const NO_REPEATS: Repeats = { same: [], mirrored: [] };

/** Frames must not be empty: all empty ones look the same, which says nothing. Cost: O(pixels of all frames). */
export function findRepeats(frames: readonly SeenFrame[]): Repeats {
  const part = (pixels: Pixels) => ({ pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } });
  const first = firstAlike([...frames.map(({ pixels }) => part(pixels)), ...frames.map(({ pixels }) => part(mirrored(pixels)))]);
  const groups = new Map<number, FrameRef[]>();
  const pairs: [FrameRef, FrameRef][] = [];
  for (const [k, { ref }] of frames.entries()) {
    const leader = first[k] as number;
    const group = groups.get(leader);
    if (group) {
      group.push(ref);
      continue;
    }
    groups.set(leader, [ref]);
    // Its mirror picture has been seen among the frames before it, and is not itself.
    const twin = first[frames.length + k] as number;
    if (twin < k) pairs.push([(frames[twin] as SeenFrame).ref, ref]);
  }
  return { same: [...groups.values()].filter((group) => group.length > 1), mirrored: pairs };
}
