/**
 * Defines the order in which a clip's steps show: the one implementation of looping in docs/formats/playback.md.
 *
 * A clip runs through `first` once, then through `later` again and again; each run is one pass. A finite ping-pong then comes `home`: it
 * enters that step once more for its duration. Holds: every index is a step of the clip.
 */
import type { Clip } from "../model";

export type ClipRules = Pick<Clip, "playback" | "times" | "loopFrom" | "doubleEnds">;

export interface StepOrder {
  /** Steps of pass 0. */
  readonly first: readonly number[];
  /** Steps of every later pass. */
  readonly later: readonly number[];
  /** How many passes; Infinity forever. */
  readonly passes: number;
  /** The step entered once more after the last loop, if any. */
  readonly home: number | null;
}

/** The order for a clip of `count` steps, at least one. `loopFrom` beyond the last step counts as the last. */
export function stepOrder(rules: ClipRules, count: number): StepOrder {
  const from = Math.min(rules.loopFrom, count - 1);
  const passes = rules.times === 0 ? Number.POSITIVE_INFINITY : rules.times;
  switch (rules.playback) {
    case "once":
      return { first: upTo(0, count), later: upTo(0, count), passes: 1, home: null };
    case "loop":
      return { first: upTo(0, count), later: upTo(from, count), passes, home: null };
    case "pingpong": {
      // Doubled ends show again on the way back; otherwise the way back omits the turning step and the final one.
      const back = upTo(rules.doubleEnds ? from : from + 1, rules.doubleEnds ? count : count - 1).reverse();
      const home = rules.doubleEnds || count - from === 1 || passes === Number.POSITIVE_INFINITY ? null : from;
      return { first: [...upTo(0, count), ...back], later: [...upTo(from, count), ...back], passes, home };
    }
  }
}

/** from, from + 1, …, end − 1; nothing if there is none. */
function upTo(from: number, end: number): number[] {
  return Array.from({ length: Math.max(0, end - from) }, (_, k) => from + k);
}
