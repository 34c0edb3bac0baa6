/** Computes the lanes of Compare: up to four clips, each at its own speed, as it is now or was before its last edit. Pure. */

import type { ClipName, Micros } from "@caravan/core/model";
import type { Timeline } from "@caravan/core/playback";
import { create } from "zustand";

export const MOST_LANES = 4;

export interface Lane {
  readonly clip: ClipName;
  readonly speed: number;
  /** Its state before its last change. */
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
 * The time of a lane's clip when the player is at `elapsed`. By phase, each lane is at the same fraction of its loop as `lead`, and in the
 * same loop; speeds are ignored then, since phase cancels them.
 */
export function laneTime(elapsed: Micros, lane: Pick<Lane, "speed">, timeline: Timeline, inStep: InStep, lead: Timeline): Micros {
  if (inStep === "time") return elapsed * lane.speed;
  const { round, share } = phaseAt(lead, elapsed);
  return round === 0 ? share * timeline.firstPass : timeline.firstPass + (round - 1 + share) * timeline.laterPass;
}

/** The loop of a time, from 0, and the fraction of it, 0 ≤ share < 1. */
export function phaseAt({ firstPass, laterPass }: Pick<Timeline, "firstPass" | "laterPass">, t: Micros): { round: number; share: number } {
  if (t < firstPass) return { round: 0, share: t / firstPass };
  const since = t - firstPass;
  const round = Math.floor(since / laterPass);
  return { round: 1 + round, share: since / laterPass - round };
}
