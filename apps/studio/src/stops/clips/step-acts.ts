/** Actions on selected steps, shared by keys and buttons. Copied steps can be pasted into other clips for as long as the page is open. */

import { duplicateSteps, pasteSteps, splitClip } from "@caravan/core/edit";
import type { Clip, Step } from "@caravan/core/model";
import { timeAt } from "@caravan/core/playback";
import { create } from "zustand";
import { usePlayerClock } from "../../preview/player-state";
import { timelineOfClip } from "../../preview/timelines";
import { act } from "../../project/act";
import { useView } from "../../project/view";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";

export const useCopiedSteps = create<{ readonly steps: readonly Step[] }>(() => ({ steps: [] }));

/** The step at the player's time. */
function stepNow(clip: Clip): number {
  return timelineOfClip(clip)?.shownAt(timeAt(usePlayerClock.getState())).step ?? 0;
}

export function copySteps(clip: Clip, chosen: readonly number[]): void {
  const steps = chosen.flatMap((k) => clip.steps[k] ?? []);
  if (steps.length > 0) useCopiedSteps.setState({ steps });
}

export function pasteCopied(clip: Clip, chosen: readonly number[]): void {
  const { steps } = useCopiedSteps.getState();
  if (steps.length === 0) {
    say({ tone: "plain", text: t("Copy steps first, from this clip or another.") });
    return;
  }
  const at = (chosen.at(-1) ?? clip.steps.length - 1) + 1;
  if (act(pasteSteps, clip.name, at, steps)) useView.setState({ steps: steps.map((_, k) => at + k) });
}

export function duplicateChosen(clip: Clip, chosen: readonly number[]): void {
  if (chosen.length === 0 || !act(duplicateSteps, clip.name, chosen)) return;
  const at = Math.max(...chosen) + 1;
  useView.setState({ steps: chosen.map((_, k) => at + k) });
}

/**
 * Splits before the selected step. Runs of several selected steps become separate clips: split before each run, and after it if steps
 * follow. Without a selection the clip is split before the step at the player's time.
 */
export function splitAt(clip: Clip, chosen: readonly number[]): void {
  const own = new Set(chosen);
  const runs = clip.steps.flatMap((_, k) => (k > 0 && own.has(k) !== own.has(k - 1) ? [k] : []));
  const places = chosen.length > 1 || clip.steps.length === 0 ? runs : [chosen[0] ?? stepNow(clip)];
  if (act(splitClip, clip.name, places)) useView.setState({ steps: [] });
}
