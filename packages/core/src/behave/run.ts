/**
 * Runs a behaviour: takes state, inputs and time, and returns what shows. Exact to the microsecond; the result does not depend on how often
 * it is called.
 *
 * Inputs belong to the time reached so far, and all inputs at one time are one instant. So the state before the instant is kept, and the
 * instant is evaluated again when another input arrives. Cost: O(rules × conditions) per instant; none while time only passes.
 */
import type { Micros } from "../model";
import type { Entry } from "../playback";
import { nextInstant, settled } from "./look";
import type { Given, Program, Row } from "./program";
import { type Current, type State, stateAtStart, withGiven } from "./state";

export interface Run {
  /** The state after everything that happens at its time. */
  readonly now: State;
  /** What started at this very time, and what made way then. They may change while more is given, and are final once time moves on. */
  readonly rows: readonly Row[];
  readonly left: readonly Current[];
  /** The state before the instant at this time; its inputs; and its cause, null while it is not an instant. */
  readonly before: State;
  readonly given: readonly Given[];
  readonly why: Row["why"] | null;
}

/** At time 0, which is an instant. */
export function runFromStart(program: Program): Run {
  return lookedAt(program, stateAtStart(program), [], "start");
}

/** After something was given at the time reached. */
export function runGiven(program: Program, run: Run, given: readonly Given[]): Run {
  if (given.length === 0) return run;
  return lookedAt(program, run.before, [...run.given, ...given], run.why === "start" ? "start" : "input");
}

/** Advances to a later time; returns the same state for an earlier one. `onPast` receives each instant that is now final. */
export function runUntil(program: Program, run: Run, at: Micros, onPast?: (run: Run) => void): Run {
  let current = run;
  while (current.now.at < at) {
    onPast?.(current);
    const next = nextInstant(program, current.now);
    const now = { ...current.now, at: Math.min(next, at) };
    current = next > at ? { now, rows: [], left: [], before: now, given: [], why: null } : lookedAt(program, now, [], whyByItself(now));
  }
  return current;
}

/** The steps that a clip has entered until a time, without those already reported: `told` is the state at the previous call. */
export function entriesUntil({ rule, since, shown, from, cast }: Current, until: Micros, told: State | null): Iterable<Entry> {
  if (told && until < told.at) return [];
  const isSame = told?.current?.since === since && told.current.rule === rule;
  const after = isSame ? Math.max(told.at, shown - 1) : shown - 1;
  return cast.timeline.entries(after - from, until - from);
}

function lookedAt(program: Program, before: State, given: readonly Given[], why: Row["why"]): Run {
  const rows: Row[] = [];
  const left: Current[] = [];
  let state = before;
  for (const each of given) state = withGiven(program, state, each, left);
  return { now: settled(program, state, why, rows, left), rows, left, before, given, why };
}

/** An instant that nothing was given at: something came to its end, or a time came that a condition waits for. */
function whyByItself({ at, current }: State): Row["why"] {
  return current && (at === current.from + current.cast.timeline.end || at === current.keptUntil) ? "over" : "time";
}
