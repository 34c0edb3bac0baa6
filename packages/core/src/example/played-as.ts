import type { AtlasClip } from "../atlas";
import { type StepOrder, stepOrder } from "../playback";
import type { Traits } from "./shape";

/** Describes how a file will express a clip. */
export type PlayedAs = Pick<AtlasClip, "steps" | "playback" | "times"> & {
  /** What had to be done since the file has no words for how it plays; null if it has. */
  readonly instead: "the way back is written out" | "all rounds are written out" | "it goes on forever" | "its lead-in comes again" | null;
};

/** Steps; a clip that would become longer than this when written out is left to loop forever. */
const LONGEST_WHOLE = 2000;

/**
 * A clip as far as a file can express its playback. Anything else is written out step by step: all loops of a clip that ends, if the file
 * can say that it plays once; otherwise one loop, the way back included.
 */
export function playedAs(clip: AtlasClip, { playbacks, counts }: Pick<Traits, "playbacks" | "counts">): PlayedAs {
  const { steps, playback, times, loopFrom, doubleEnds = false } = clip;
  const word = playback === "pingpong" ? playbacks.includes("pingpong") && !doubleEnds : true;
  if (playback === "once" || (word && loopFrom === 0 && (times === 0 || counts))) return { steps, playback, times, instead: null };
  const order = stepOrder({ playback, times, loopFrom, doubleEnds }, steps.length);
  const written = (numbers: readonly number[]) => numbers.map((k) => steps[k] as AtlasClip["steps"][number]);
  const all = playbacks.includes("once") ? allRounds(order) : null;
  if (all) return { steps: written(all), playback: "once", times: 0, instead: "all rounds are written out" };
  const instead =
    loopFrom > 0 && times !== 1 ? "its lead-in comes again" : times > 0 && !counts ? "it goes on forever" : "the way back is written out";
  return { steps: written(order.first), playback: "loop", times: counts ? times : 0, instead };
}

/** Every step that is ever entered, in order; null if there is no end, or it is too far. */
function allRounds({ first, later, passes, home }: StepOrder): number[] | null {
  if (first.length + (passes - 1) * later.length > LONGEST_WHOLE) return null;
  const rounds = Array.from({ length: passes }, (_, pass) => (pass === 0 ? first : later));
  return [...rounds.flat(), ...(home === null ? [] : [home])];
}
