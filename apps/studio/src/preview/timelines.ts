/** Caches the timeline of each clip: several parts of the screen ask for the same one at every change. */

import type { Clip, Micros } from "@caravan/core/model";
import { type Timeline, timelineOf } from "@caravan/core/playback";

const known = new WeakMap<Clip, Timeline>();

/** Null for a clip without steps. */
export function timelineOfClip(clip: Clip): Timeline | null {
  if (clip.steps.length === 0) return null;
  let timeline = known.get(clip);
  if (!timeline) {
    timeline = timelineOf(clip);
    known.set(clip, timeline);
  }
  return timeline;
}

/** When a step is entered for the first time. */
export function startOfStep(clip: Clip, step: number): Micros {
  let start = 0;
  for (let k = 0; k < step; k++) start += clip.steps[k]?.duration ?? 0;
  return start;
}
