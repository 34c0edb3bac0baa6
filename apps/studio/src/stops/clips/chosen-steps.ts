/** Tracks which steps of the clip are selected, and how keys and clicks change that. Pure, and tested. */
import type { Clip } from "@caravan/core/model";

/** Chosen indexes that the clip still has, ascending. */
export function chosenSteps(clip: Clip, steps: readonly number[]): number[] {
  return steps.filter((step) => step < clip.steps.length).toSorted((a, b) => a - b);
}

/** After an arrow key: moves or extends the selection to its neighbour. Starts at the near end. */
export function extendedSteps(count: number, steps: readonly number[], by: 1 | -1, extend: boolean): number[] {
  if (count === 0) return [];
  const edge = by === 1 ? steps.at(-1) : steps[0];
  if (edge === undefined) return [by === 1 ? 0 : count - 1];
  const next = Math.max(0, Math.min(count - 1, edge + by));
  if (!extend) return [next];
  return [...new Set([...steps, next])].sort((a, b) => a - b);
}

/** After a click: that step alone; with Shift all from the first chosen to it; with Ctrl in or out. */
export function clickedSteps(steps: readonly number[], step: number, shift: boolean, toggle: boolean): number[] {
  if (toggle) return steps.includes(step) ? steps.filter((each) => each !== step) : [...steps, step].sort((a, b) => a - b);
  const anchor = steps[0];
  if (!shift || anchor === undefined) return [step];
  const from = Math.min(anchor, step);
  return Array.from({ length: Math.abs(anchor - step) + 1 }, (_, k) => from + k);
}
