"use client";

import { insertSteps, moveSteps, removeSteps, reverseSomeSteps, reverseSteps, setClipRules } from "@caravan/core/edit";
import type { Clip, FrameRef } from "@caravan/core/model";
import { seek } from "../../preview/clock";
import { usePlayerClock } from "../../preview/player-state";
import { startOfStep } from "../../preview/timelines";
import { act } from "../../project/act";
import { currentProject, edit, useProject } from "../../project/open-project";
import { type Bench, chooseClip, clearPicks, goToMarks, pickedFrames, useView } from "../../project/view";
import { goToField } from "../../ui/fields-by-key";
import { useKeys } from "../../ui/keys";
import { say } from "../../ui/notices";
import { pasteUnlessArt } from "../../ui/paste";
import { t } from "../../ui/words";
import { chosenSteps, extendedSteps } from "./chosen-steps";
import { duplicateNow, moveNow, removeNow } from "./clip-acts";
import { copySteps, duplicateChosen, pasteCopied, splitAt } from "./step-acts";

/** Keys for the selected clip and its steps. */
export function ClipKeys({ clip }: { clip: Clip }) {
  const clips = useProject((project) => project.clips);
  const { name } = clip;
  const index = clips.findIndex((each) => each.name === name);
  const steps = () => chosenSteps(clip, useView.getState().steps);
  const choose = (by: 1 | -1, extend: boolean) => {
    const next = extendedSteps(clip.steps.length, steps(), by, extend);
    useView.setState({ steps: next });
    const at = by === 1 ? next.at(-1) : next[0];
    if (at !== undefined) seek(usePlayerClock, startOfStep(clip, at));
  };
  const neighbour = (by: number) => {
    const next = clips[index + by];
    if (next) chooseClip(next.name);
  };
  const move = (by: number) => {
    const chosen = steps();
    const first = chosen[0];
    if (first === undefined) return;
    const to = Math.max(0, Math.min(clip.steps.length - chosen.length, first + by));
    if (act(moveSteps, name, chosen, to)) useView.setState({ steps: chosen.map((_, k) => to + k) });
  };
  useKeys(t("The clip"), [
    {
      keys: "ArrowRight Shift+ArrowRight",
      repeats: true,
      label: t("Next step; with Shift select more"),
      run: (event) => choose(1, event.shiftKey),
    },
    { keys: "ArrowLeft Shift+ArrowLeft", repeats: true, label: t("Previous step"), run: (event) => choose(-1, event.shiftKey) },
    { keys: "Alt+ArrowRight", repeats: true, label: t("Move the selected steps later"), run: () => move(1) },
    { keys: "Alt+ArrowLeft", repeats: true, label: t("Move the selected steps earlier"), run: () => move(-1) },
    { keys: "Delete Backspace", label: t("Drop the selected steps from the clip"), run: () => dropChosen(clip) },
    { keys: "Enter", label: t("Add the picked frames after the selected step"), run: () => addPicked(clip) },
    { keys: "Mod+a", label: t("Select all steps"), run: () => useView.setState({ steps: clip.steps.map((_, k) => k) }) },
    { keys: "Mod+c", label: t("Copy the selected steps"), run: () => copySteps(clip, steps()) },
    { keys: "Mod+v", label: t("Paste steps after the selected one"), run: () => pasteUnlessArt(() => pasteCopied(clip, steps())) },
    { keys: "Mod+d", label: t("Duplicate the selected steps"), run: () => duplicateChosen(clip, steps()) },
    { keys: "Shift+v", label: t("Reverse the selected steps"), run: () => act(reverseSomeSteps, name, steps()) },
    { keys: "s", label: t("Split the clip at the selected steps, or at the playhead"), run: () => splitAt(clip, steps()) },
    { keys: "Escape", label: t("Deselect all steps"), run: () => useView.setState({ steps: [] }) },
    { keys: "v", label: t("Reverse the clip"), run: () => act(reverseSteps, name) },
    { keys: "f", label: t("Type the speed in fps"), run: () => goToField("fps") },
    { keys: "t", label: t("Type the duration of the selected steps"), run: () => goToField("stepTimes") },
    { keys: "a", label: t("Add frames by their numbers"), run: () => goToField("moreFrames") },
    { keys: "Shift+a", label: t("Make a clip of frames by their numbers"), run: () => goToField("clipOfFrames") },
    { keys: "n F2", label: t("Rename the clip"), run: () => goToField("clipName") },
    { keys: "o", label: t("Play once"), run: () => act(setClipRules, name, { playback: "once" }) },
    { keys: "l", label: t("Play in a loop"), run: () => act(setClipRules, name, { playback: "loop" }) },
    { keys: "b", label: t("Play as a ping-pong"), run: () => act(setClipRules, name, { playback: "pingpong" }) },
  ]);
  const bench = (to: Bench) => () => useView.setState({ bench: to });
  useKeys(t("Benches"), [
    { keys: "r", label: t("Ribbons"), run: bench("ribbons") },
    { keys: "g", label: t("Its origins and marks, at Marks"), run: () => goToMarks(name) },
    { keys: "k", label: t("Flick between two steps"), run: bench("flick") },
    { keys: "c", label: t("Compare clips"), run: bench("compare") },
    { keys: "h", label: t("Rhythm of clips"), run: bench("rhythm") },
  ]);
  useKeys(t("The list of clips"), [
    { keys: "ArrowDown", repeats: true, label: t("Next clip"), run: () => neighbour(1) },
    { keys: "ArrowUp", repeats: true, label: t("Previous clip"), run: () => neighbour(-1) },
    { keys: "Alt+ArrowDown", repeats: true, label: t("Move the clip down"), run: () => moveNow(name, 1) },
    { keys: "Alt+ArrowUp", repeats: true, label: t("Move the clip up"), run: () => moveNow(name, -1) },
    { keys: "d", label: t("Duplicate the clip"), run: () => duplicateNow(name) },
    { keys: "Shift+Delete", label: t("Remove the clip"), run: () => removeNow(name) },
  ]);
  return null;
}

/** Adds the frames picked in the tray after the selected step, or at the end. */
export function addPicked(clip: Clip): void {
  const refs = pickedFrames(currentProject(), useView.getState());
  if (refs.length === 0) {
    say({ tone: "plain", text: t("Pick frames in the tray first, then Enter adds them.") });
    return;
  }
  const problem = addRefs(clip, refs);
  if (problem) say({ tone: "trouble", text: problem });
  else clearPicks();
}

/** Adds frames after the selected step, or at the end, and selects them. Returns an error message. */
export function addRefs(clip: Clip, refs: readonly FrameRef[]): string | undefined {
  const at = (chosenSteps(clip, useView.getState().steps).at(-1) ?? clip.steps.length - 1) + 1;
  const error = edit(insertSteps, clip.name, at, refs);
  if (!error) useView.setState({ steps: refs.map((_, k) => at + k) });
  return error?.message;
}

/** Drops the selected steps; the step that takes their place is selected. */
export function dropChosen(clip: Clip): void {
  const steps = chosenSteps(clip, useView.getState().steps);
  if (steps.length === 0 || !act(removeSteps, clip.name, steps)) return;
  const left = clip.steps.length - steps.length;
  useView.setState({ steps: left === 0 ? [] : [Math.min(steps[0] as number, left - 1)] });
}
