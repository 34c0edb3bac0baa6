/**
 * How far a clip has been played: the one state that the studio's clock and the player package keep, and that whatever else plays keeps too.
 * A timeline says what stands there; the playhead alone says where. So an edit, or a turn to another facing, changes the timeline under a
 * playhead that goes on.
 */
import type { Micros } from "../model";
import type { Entry, Timeline } from "./timeline";

export interface Playhead {
  /** Time since the clip began, in microseconds. Not rounded, so that what is left over of a refresh is never lost. */
  readonly elapsed: number;
  /** How much of the clip's time passes in a second: 1 as it is, 0.5 at half the speed. */
  readonly speed: number;
  /** Steps entered up to and at this time have been told; −1 before the first one is. */
  readonly told: Micros;
}

/** At the start of a clip, nothing told. */
export const AT_START: Playhead = { elapsed: 0, speed: 1, told: -1 };

/** After `micros` of real time more; negative ones count as none. */
export function advanced(playhead: Playhead, micros: number): Playhead {
  return { ...playhead, elapsed: playhead.elapsed + Math.max(0, micros) * playhead.speed };
}

/** Put to a time. What was leapt over is not told; a step that is entered at that very time is. */
export function movedTo(playhead: Playhead, at: number): Playhead {
  const elapsed = Math.max(0, at);
  return { ...playhead, elapsed, told: Math.round(elapsed) - 1 };
}

/** The clip's time in whole microseconds, as timelines are asked. */
export function timeAt({ elapsed }: Pick<Playhead, "elapsed">): Micros {
  return Math.round(elapsed);
}

/** Whether the clip has come to its end. */
export function isOver(timeline: Timeline, playhead: Pick<Playhead, "elapsed">): boolean {
  return timeAt(playhead) >= timeline.end;
}

/** The steps entered since they were last told, in order; `told` is the playhead once they are. */
export function passed(timeline: Timeline, playhead: Playhead): { readonly entries: Iterable<Entry>; readonly told: Playhead } {
  const now = timeAt(playhead);
  return { entries: timeline.entries(playhead.told, now), told: { ...playhead, told: now } };
}
