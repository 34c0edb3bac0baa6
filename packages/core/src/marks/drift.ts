/**
 * Measures how a drawing drifts around its origin through a clip: where its feet and middle are in each step, and where they jump. Units:
 * pixels, x right, y down; halves.
 */
import type { Drawn } from "../art";
import type { FramePoint } from "../model";
import { drawnOrigin, halves } from "./origin";

/** Where a frame's drawing is: in the frame's untrimmed pixels, or from its origin. */
export interface Standing {
  /** The middle of what touches the ground, and its lowest edge. From the origin, y 0 stands on the ground line, more is under it. */
  readonly feet: FramePoint;
  /** The middle of all that is drawn. */
  readonly middle: FramePoint;
}

/** In untrimmed pixels, null where nothing is drawn. Cost: O(words of 32 pixels of the frame). */
export function standingOf(drawn: Drawn): Standing | null {
  const feet = drawnOrigin(drawn, "feet");
  const middle = drawnOrigin(drawn, "mass");
  return feet && middle ? { feet, middle } : null;
}

export function standingFrom({ feet, middle }: Standing, origin: FramePoint): Standing {
  return { feet: minus(feet, origin), middle: minus(middle, origin) };
}

function minus(a: FramePoint, b: FramePoint): FramePoint {
  return { x: a.x - b.x, y: a.y - b.y };
}

export interface Jump {
  readonly step: number;
  /** How far it is from where its neighbours are. */
  readonly by: number;
}

/** Less than this nobody sees in motion. */
const SEEN = 2; // px

/**
 * The steps that lie apart from both neighbours, on one side, and beyond where the movement on either side was going: not the top of a
 * stride or a hop, but one frame that is off. With `loops`, the last step's neighbour is the first. Steps without a value are none.
 */
export function jumpsOf(values: readonly (number | null)[], loops: boolean): Jump[] {
  const count = values.length;
  if (count < 3) return [];
  const at = (k: number) => (loops ? values[(k + count) % count] : values[k]) ?? null;
  return values.flatMap((value, step): Jump[] => {
    const [before, after] = [at(step - 1), at(step + 1)];
    if (value === null || before === null || after === null || (value - before) * (value - after) <= 0) return [];
    const apart = Math.min(beyond(value, before, at(step - 2)), beyond(value, after, at(step + 2)));
    return apart >= SEEN ? [{ step, by: halves(value - (before + after) / 2) }] : [];
  });
}

/** How far a value lies from all places between its neighbour and where that was going from the one before it. */
function beyond(value: number, neighbour: number, further: number | null): number {
  const going = further === null ? neighbour : 2 * neighbour - further;
  const [least, most] = [Math.min(neighbour, going), Math.max(neighbour, going)];
  return Math.max(least - value, value - most, 0);
}
