/**
 * Measures how a drawing drifts around its origin through a clip: where its feet and middle are in each step, and where they jump. Units:
 * pixels, x right, y down; halves.
 */
import type { Drawn } from "../art";
import type { FramePoint } from "../model";
import { drawnOrigin, halves } from "./origin";

/** The position of a frame's drawing: in the frame's untrimmed pixels, or relative to its origin. */
export interface Standing {
  /**
   * The centre of what touches the ground, and its lowest edge. Relative to the origin, y 0 is on the ground line, positive is below it.
   */
  readonly feet: FramePoint;
  /** The centre of everything drawn. */
  readonly middle: FramePoint;
}

/** In untrimmed pixels; null for an empty frame. Cost: O(words of 32 pixels of the frame). */
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

/** Less than this is invisible in motion. */
const SEEN = 2; // px

/**
 * Steps that differ from both neighbours in the same direction and deviate from the movement on either side: not the top of a stride or a
 * hop, but one frame that is off. With `loops`, the first step follows the last. Steps without a value never count.
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

/** The distance of a value from everything between its neighbour and that neighbour's extrapolated movement. */
function beyond(value: number, neighbour: number, further: number | null): number {
  const going = further === null ? neighbour : 2 * neighbour - further;
  const [least, most] = [Math.min(neighbour, going), Math.max(neighbour, going)];
  return Math.max(least - value, value - most, 0);
}
