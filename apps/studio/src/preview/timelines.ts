/** The timeline of a clip, made once for each: several parts of a screen ask for the same one at every change. */
import { type Timeline, timelineOf } from "@caravan/core/clip";
import type { Clip } from "@caravan/core/model";

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
