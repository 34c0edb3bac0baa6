/**
 * Runs a behaviour: a state, what is given to it, and time -> what shows. Exact to the microsecond; how often it is asked changes nothing.
 *
 * What is given belongs to the time reached so far, and all that is given at one time is one instant: so an instant is kept as it stood before
 * it was looked at, and is looked at again when more is given. Cost: O(rules × conditions) for each instant; none for time that only passes.
 */
import type { Micros } from "../model";
import { type Hearing, nextInstant, ownTime, settled } from "./look";
import type { Given, Program, Row } from "./program";
import { type State, stateAtStart, withGiven } from "./state";

export interface Run {
  /** As it stands, after everything that happens at its time. */
  readonly now: State;
  /** What started at this very time. It may change while more is given, and is final once time moves on. */
  readonly rows: readonly Row[];
  /** As it stood before anything was looked at at this time, with what was given since. */
  readonly before: State;
  /** What brought the instant about, null if there is none at this time so far. */
  readonly why: Row["why"] | null;
}

/** At time 0, which is an instant. */
export function runFromStart(program: Program): Run {
  return lookedAt(program, stateAtStart(program), "start", {});
}

/** After something was given at the time reached. */
export function runGiven(program: Program, run: Run, given: readonly Given[], hear: Hearing = {}): Run {
  if (given.length === 0) return run;
  const { now } = run;
  let { before } = run;
  // What was told of the clip that stood here is not told again.
  if (before.current) {
    const told = now.current?.since === before.current.since ? now.current.told : ownTime(before, before.current) - 1;
    before = { ...before, current: { ...before.current, told: Math.max(before.current.told, told) } };
  }
  for (const each of given) before = withGiven(program, before, each);
  const next = lookedAt(program, before, run.why === "start" ? "start" : "input", hear);
  const [was, is] = [now.current, next.now.current];
  // The same start looked at again has told what it told.
  if (was && is && was.rule === is.rule && was.since === is.since && was.from === is.from && was.told > is.told)
    return { ...next, now: { ...next.now, current: { ...is, told: was.told } } };
  return next;
}

/** At a later time; as it was at an earlier one. `hear` is told what starts before that time, and what is played of clips that end before it. */
export function runUntil(program: Program, run: Run, at: Micros, hear: Hearing = {}): Run {
  let current = run;
  while (current.now.at < at) {
    if (hear.row) for (const row of current.rows) hear.row(row);
    const { now } = current;
    const next = nextInstant(program, now);
    const before = { ...now, at: Math.min(next, at) };
    current = next > at ? { now: before, rows: [], before, why: null } : lookedAt(program, before, whyByItself(before), hear);
  }
  return current;
}

/** What of the clip that shows has been played since this was asked last; the steps entered in it are then told. */
export function runTold(run: Run, hear: Required<Pick<Hearing, "played">>): Run {
  const { current } = run.now;
  if (!current) return run;
  const own = ownTime(run.now, current);
  if (own <= current.told) return run;
  hear.played(current, current.told, own);
  return { ...run, now: { ...run.now, current: { ...current, told: own } } };
}

function lookedAt(program: Program, before: State, why: Row["why"], hear: Hearing): Run {
  const rows: Row[] = [];
  const now = settled(program, before, why, { ...hear, row: (row) => rows.push(row) });
  return { now, rows, before, why };
}

/** An instant that nothing was given at: something came to its end, or a time came that a condition waits for. */
function whyByItself({ at, current }: State): Row["why"] {
  if (!current) return "time";
  return at === current.from + current.cast.timeline.end || at === current.keptUntil ? "over" : "time";
}
