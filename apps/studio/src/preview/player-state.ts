/** Holds the player's settings and clock, with the functions that control both. */

import type { Facing, Micros } from "@caravan/core/model";
import { timeAt, timelineOf } from "@caravan/core/playback";
import { create } from "zustand";
import { makeClock, pause, seek } from "./clock";
import type { GhostLook } from "./ghosts";
import type { Playing } from "./playing";
import type { HeldStill } from "./stage-scene";
import { timelineOfClip } from "./timelines";

/** The backdrop behind the figure: a check, one colour, or the caravan's country. */
export type Ground = "check" | "flat" | "land";

export interface PlayerSettings {
  /** Null fits the stage. */
  readonly zoom: number | null;
  readonly ground: Ground;
  /** The flat ground's colour, picked from art; null for the theme's own. */
  readonly colour: string | null;
  /** Whether the origin and the ground line through it are shown. */
  readonly origin: boolean;
  /** Whether boxes, points and outlines are shown at Marks, and at the other stops. */
  readonly marks: boolean;
  readonly marksElsewhere: boolean;
  /** How far the figure was dragged out of the middle, in CSS pixels. */
  readonly pan: { readonly x: number; readonly y: number };
  readonly held: HeldStill;
  /** The number of steps before and after the current one shown as ghosts, and their style. */
  readonly ghostsBefore: number;
  readonly ghostsAfter: number;
  readonly ghostLook: GhostLook;
  /** Where an action looks. */
  readonly facing: Facing;
  /** Plays only the chosen steps of a clip, round and round. */
  readonly onlyChosen: boolean;
}

/** The figure's position until someone drags it. */
export const IN_THE_MIDDLE = { x: 0, y: 0 };

/** Someone who prefers less motion starts the player when they want it. */
const movesAtOnce = (): boolean => typeof matchMedia === "undefined" || !matchMedia("(prefers-reduced-motion: reduce)").matches;

export const usePlayer = create<PlayerSettings>(() => ({
  zoom: null,
  ground: "check",
  colour: null,
  origin: true,
  marks: true,
  marksElsewhere: false,
  pan: IN_THE_MIDDLE,
  held: "origin",
  ghostsBefore: 0,
  ghostsAfter: 0,
  ghostLook: "tint",
  facing: "s",
  onlyChosen: false,
}));

export const SPEEDS = [0.05, 0.1, 0.25, 0.5, 0.75, 1, 1.5, 2, 4, 8] as const;

/** The player's time, followed by everything that shows the same moment: a separate store, because it changes at every refresh. */
export const usePlayerClock = makeClock(movesAtOnce());

/** Moves to the next step with an event, wrapping at the end of the pass, and pauses. False if there is none. */
export function seekNextEvent(playing: Playing): boolean {
  if (!playing.steps.some(({ events }) => events?.length)) return false;
  const timeline = timelineOfPlaying(playing);
  const now = timeAt(usePlayerClock.getState());
  const within = Math.max(timeline.firstPass, timeline.laterPass) * 2;
  const until = Math.min(now + within, timeline.end);
  for (const from of [now, -1])
    for (const { at, step } of timeline.entries(from, from < 0 ? timeline.firstPass : until))
      if (playing.steps[step]?.events?.length) {
        pause(usePlayerClock);
        seek(usePlayerClock, at);
        return true;
      }
  return false;
}

/** The step after the one on the stage; null if the clip then ends. */
export function stepAfter(playing: Playing, elapsed: Micros): number | null {
  const timeline = timelineOfPlaying(playing);
  const now = Math.round(elapsed);
  if (now >= timeline.end) return null;
  const { until } = timeline.spanAt(now);
  return until >= timeline.end ? null : timeline.shownAt(until).step;
}

const timelines = new WeakMap<Playing, ReturnType<typeof timelineOf>>();

/** The timeline of what is playing, made once for each. */
export function timelineOfPlaying(playing: Playing): ReturnType<typeof timelineOf> {
  let timeline = timelines.get(playing);
  if (!timeline) {
    // A whole clip, played by its own rules, has a timeline already.
    const whole = playing.clip === playing.rules ? playing.clip : undefined;
    timeline = (whole && timelineOfClip(whole)) ?? timelineOf({ ...playing.rules, steps: playing.steps });
    timelines.set(playing, timeline);
  }
  return timeline;
}
