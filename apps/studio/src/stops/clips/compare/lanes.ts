/** Computes the lanes of Compare: up to four clips, each at its own speed, as it is now or was before its last edit. Pure. */

import type { ClipName, Micros } from "@caravan/core/model";
import type { Timeline } from "@caravan/core/playback";
import { create } from "zustand";

export const MOST_LANES = 4;

export interface Lane {
  readonly clip: ClipName;
  readonly speed: number;
  /** As it was before it was last changed. */
  readonly earlier: boolean;
}

/** In step by time, or by how far each is in its round. */
export type InStep = "time" | "phase";

export interface Comparison {
  readonly lanes: readonly Lane[];
  readonly inStep: InStep;
  readonly overlaid: boolean;
}

export const useComparison = create<Comparison>(() => ({ lanes: [], inStep: "time", overlaid: false }));

/** The lanes to begin with: the chosen clip, and the one after it in the list. */
export function firstLanes(names: readonly ClipName[], chosen: ClipName): Lane[] {
  const next = names[(names.indexOf(chosen) + 1) % names.length];
  return [chosen, ...(next && next !== chosen ? [next] : [])].map((clip) => ({ clip, speed: 1, earlier: false }));
}

/**
 * How far a lane's clip is when the player stands at `elapsed`. By phase, each lane is as far in its round as `lead` is in its own, and
 * in as late a round; speeds are left out then, since they are what phase does away with.
 */
export function laneTime(elapsed: Micros, lane: Pick<Lane, "speed">, timeline: Timeline, inStep: InStep, lead: Timeline): Micros {
  if (inStep === "time") return elapsed * lane.speed;
  const { round, share } = phaseAt(lead, elapsed);
  return round === 0 ? share * timeline.firstPass : timeline.firstPass + (round - 1 + share) * timeline.laterPass;
}

/** In which round a time lies, from 0, and how much of that round is over, 0 ≤ share < 1. */
export function phaseAt({ firstPass, laterPass }: Pick<Timeline, "firstPass" | "laterPass">, t: Micros): { round: number; share: number } {
  if (t < firstPass) return { round: 0, share: t / firstPass };
  const since = t - firstPass;
  const round = Math.floor(since / laterPass);
  return { round: 1 + round, share: since / laterPass - round };
}
