/** Reads and changes which step of a clip is being worked on. */

import type { Clip } from "@caravan/core/model";
import { timeAt } from "@caravan/core/playback";
import { useView } from "../project/view";
import { seek } from "./clock";
import { usePlayerClock } from "./player-state";
import { startOfStep, timelineOfClip } from "./timelines";

/** Chooses a step alone and shows it in the player. */
export function chooseStep(clip: Clip, step: number): void {
  useView.setState({ steps: [step] });
  seek(usePlayerClock, startOfStep(clip, step));
}

/** The selected step, or else the step at which the player is paused. */
export function useShownStep(clip: Clip): number {
  const chosen = useView((view) => view.steps[0]);
  const running = usePlayerClock((state) => state.running);
  const timeline = timelineOfClip(clip);
  const at = usePlayerClock((state) => (running || !timeline ? 0 : timeline.shownAt(timeAt(state)).step));
  return Math.min(chosen ?? at, Math.max(0, clip.steps.length - 1));
}
