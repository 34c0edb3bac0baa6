import type { Atlas } from "./atlas";

/** What to draw now. */
export interface Now<A extends Atlas = Atlas> {
  /** The frame's name in the atlas; null when nothing is to be drawn. */
  frame: (keyof A["frames"] & string) | null;
  /** Whether to mirror it left to right about its origin. */
  mirror: boolean;
  /** The clip that plays, also where an action was asked for; null before anything was. */
  clip: (keyof A["clips"] & string) | null;
  step: number;
  pass: number;
  /** The length of the current pass in ms. */
  duration: number;
  /** The fraction of it that has passed, from 0 to 1; 1 once the clip has ended. */
  progress: number;
  /** Names of the events passed since the last call, in order. */
  events: string[];
  /** What each of these events carries, at its place; undefined for one that carries nothing. */
  values: unknown[];
  ended: boolean;
  visible: boolean;
}

/** What there is to draw before anything is played. */
export const NOTHING: Now = {
  frame: null,
  mirror: false,
  clip: null,
  step: 0,
  pass: 0,
  duration: 0,
  progress: 0,
  events: [],
  values: [],
  ended: false,
  visible: false,
};
