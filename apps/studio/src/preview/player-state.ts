/** How the player is set, and where it stands in time. */
import { timelineOf } from "@caravan/core/clip";
import type { Micros } from "@caravan/core/model";
import { create } from "zustand";
import type { Playing } from "./playing";

export interface PlayerSettings {
  readonly running: boolean;
  readonly speed: number;
  /** Null fits the stage. */
  readonly zoom: number | null;
  readonly ground: "check" | "flat";
  readonly origin: boolean;
}

export const usePlayer = create<PlayerSettings>(() => ({ running: true, speed: 1, zoom: null, ground: "check", origin: true }));

export const SPEEDS = [0.1, 0.25, 0.5, 1, 2, 4] as const;

/** Microseconds since the start of what is playing, unrounded; a store of its own, since it changes at every refresh. */
export interface Playhead {
  readonly elapsed: number;
}

export const usePlayhead = create<Playhead>(() => ({ elapsed: 0 }));

export function seek(elapsed: Micros): void {
  usePlayhead.setState({ elapsed: Math.max(0, elapsed) });
}

export function togglePlaying(playing: Playing | null): void {
  const { running } = usePlayer.getState();
  if (running && playing && isOver(playing)) {
    seek(0);
    return;
  }
  usePlayer.setState({ running: !running });
}

/** Whether a clip has come to its end. */
export function isOver(playing: Playing): boolean {
  return usePlayhead.getState().elapsed >= timelineOfPlaying(playing).end;
}

/** Pauses and goes to the start of the next or the previous step; before the first comes the last of the pass. */
export function stepBy(playing: Playing | null, direction: 1 | -1): void {
  if (!playing) return;
  usePlayer.setState({ running: false });
  const timeline = timelineOfPlaying(playing);
  const now = Math.round(usePlayhead.getState().elapsed);
  const last = Number.isFinite(timeline.end) ? timeline.end : Number.POSITIVE_INFINITY;
  const span = timeline.spanAt(Math.min(now, last === Number.POSITIVE_INFINITY ? now : last - 1));
  if (direction === 1) seek(span.until >= last ? 0 : span.until);
  else if (now > 0 && span.at > 0) seek(timeline.spanAt(span.at - 1).at);
  else seek(timeline.spanAt(timeline.firstPass - 1).at);
}

const timelines = new WeakMap<Playing, ReturnType<typeof timelineOf>>();

/** The timeline of what is playing, made once for each. */
export function timelineOfPlaying(playing: Playing): ReturnType<typeof timelineOf> {
  let timeline = timelines.get(playing);
  if (!timeline) {
    timeline = timelineOf({ ...playing.rules, steps: playing.steps });
    timelines.set(playing, timeline);
  }
  return timeline;
}
