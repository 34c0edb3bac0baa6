/**
 * Keeps how far a clip has been played: the one state shared by the studio's clock, the player package and everything else that plays. A
 * timeline says what shows at a time; only the playhead says which time. So an edit, or a turn to another facing, replaces the timeline
 * under a playhead that continues.
 */
import type { Micros } from "../model";
import type { Entry, Timeline } from "./timeline";

export interface Playhead {
  /** Time since the clip began, in microseconds. Not rounded, so that fractions are never lost between refreshes. */
  readonly elapsed: number;
  /** How much clip time passes per second: 1 normally, 0.5 at half speed. */
  readonly speed: number;
  /** Steps entered up to and including this time have been reported; −1 before the first. */
  readonly told: Micros;
}

/** At the start of a clip, with nothing reported. */
export const AT_START: Playhead = { elapsed: 0, speed: 1, told: -1 };

/** After `micros` of real time more; negative ones count as none. */
export function advanced(playhead: Playhead, micros: number): Playhead {
  return { ...playhead, elapsed: playhead.elapsed + Math.max(0, micros) * playhead.speed };
}

/** Moved to a time. Steps skipped over are not reported; one entered exactly at that time is. */
export function movedTo(playhead: Playhead, at: number): Playhead {
  const elapsed = Math.max(0, at);
  return { ...playhead, elapsed, told: Math.round(elapsed) - 1 };
}

/** The clip's time in whole microseconds, for timelines. */
export function timeAt({ elapsed }: Pick<Playhead, "elapsed">): Micros {
  return Math.round(elapsed);
}

/** Whether the clip has ended. */
export function isOver(timeline: Timeline, playhead: Pick<Playhead, "elapsed">): boolean {
  return timeAt(playhead) >= timeline.end;
}

/** The steps entered since the last report, in order; `told` is the playhead after this one. */
export function passed(timeline: Timeline, playhead: Playhead): { readonly entries: Iterable<Entry>; readonly told: Playhead } {
  const now = timeAt(playhead);
  return { entries: timeline.entries(playhead.told, now), told: { ...playhead, told: now } };
}
