/** What happens at an instant: keepings end, rules are gone through from the top, and some of them start. */
import type { Condition, Micros, Rule } from "../model";
import { isMoment, microsOf, type Program, pressesOf, type Row } from "./program";
import type { Current, State } from "./state";

/** Told while a behaviour runs: what starts, and the part of a clip's own time that has been played: `after` < time ≤ `until`. */
export interface Hearing {
  readonly row?: (row: Row) => void;
  readonly played?: (current: Current, after: Micros, until: Micros) => void;
}

/** The clip's own time. */
export const ownTime = ({ at }: Pick<State, "at">, { from }: Pick<Current, "from">): Micros => at - from;

/** Until when it is kept, as things stand; null if it is not. A clip that never ends keeps nothing. */
function endOfKeeping({ keptUntil, from, cast }: Current): Micros | null {
  if (keptUntil !== Number.POSITIVE_INFINITY) return keptUntil;
  const end = from + cast.timeline.end;
  return end === Number.POSITIVE_INFINITY ? null : end;
}

export function isKept(state: State): boolean {
  const end = state.current && endOfKeeping(state.current);
  return typeof end === "number" && state.at < end;
}

/** The next time after the state's own at which something can happen by itself; Infinity if nothing can. */
export function nextInstant(program: Program, { at, current }: State): Micros {
  if (!current) return Number.POSITIVE_INFINITY;
  const name = program.rules[current.rule]?.name as string;
  let next = Number.POSITIVE_INFINITY;
  const consider = (time: Micros | null) => {
    if (time !== null && time > at && time < next) next = time;
  };
  consider(endOfKeeping(current));
  consider(current.from + current.cast.timeline.end);
  for (const rule of program.rules)
    if (!rule.off)
      for (const each of rule.when)
        if ("showing" in each && each.forMs !== undefined && each.showing.includes(name)) consider(current.since + microsOf(each.forMs));
  return next;
}

/** The first of a rule's conditions that does not hold, null if all do. */
export function firstUnmet(program: Program, state: State, rule: Rule): Condition | null {
  return rule.when.find((each) => !holds(program, state, each)) ?? null;
}

function holds(program: Program, state: State, condition: Condition): boolean {
  const { at, current, values } = state;
  if ("showing" in condition) {
    const name = current && program.rules[current.rule]?.name;
    if (!current || typeof name !== "string" || !condition.showing.includes(name)) return false;
    return (
      at - current.since >= microsOf(condition.forMs ?? 0) && (!condition.ended || ownTime(state, current) >= current.cast.timeline.end)
    );
  }
  const { input } = condition;
  if (!("is" in condition)) {
    const value = values.get(input);
    const { above = Number.NEGATIVE_INFINITY, below = Number.POSITIVE_INFINITY } = condition;
    return typeof value === "number" && value > above && value < below;
  }
  const button = program.inputs.find((each) => each.name === input);
  switch (condition.is) {
    case "pressed": {
      const pressed = state.pressed.get(input);
      return pressed !== undefined && button?.kind === "button" && at - pressed <= microsOf(button.bufferMs ?? 0);
    }
    case "released":
      return state.released.get(input) === at;
    case "down":
    case "up":
      return button?.kind === "button" && state.down.has(input) === (condition.is === "down");
    default:
      return values.get(input) === condition.is;
  }
}

/** The state after the instant at its time. `why` is what brought the instant about. */
export function settled(program: Program, before: State, why: Row["why"], hear: Hearing): State {
  const started = new Set<number>();
  let state = before;
  const start = (place: number, because: Row["why"]): boolean => {
    const next = started.has(place) ? null : begun(program, state, place);
    if (!next) return false;
    started.add(place);
    leave(state, hear);
    state = next;
    const rule = program.rules[place] as Rule;
    hear.row?.({ at: state.at, rule: rule.name, play: rule.play, why: because });
    return true;
  };
  const { current } = state;
  if (current && current.keptUntil !== null && !isKept(state)) {
    state = { ...state, current: { ...current, keptUntil: null } };
    const next = program.rules[current.rule]?.then;
    if (next !== undefined)
      start(
        program.rules.findIndex(({ name, off }) => name === next && !off),
        "then",
      );
  }
  // Ends, since no rule starts twice.
  for (;;) {
    const found = look(program, state, (place) => start(place, why));
    if (found === "started") continue;
    if (found === "nothing" && (state.current || (state.at === 0 && why === "start"))) {
      leave(state, hear);
      state = { ...state, current: null };
      hear.row?.({ at: state.at, rule: null, play: null, why });
    }
    return state;
  }
}

/** Goes through the rules once. */
function look(program: Program, state: State, start: (place: number) => boolean): "started" | "goes on" | "nothing" {
  const { current } = state;
  const kept = isKept(state);
  const cutBy = current && kept ? (program.rules[current.rule]?.cutBy ?? []) : null;
  for (const [place, rule] of program.rules.entries()) {
    if (rule.off || firstUnmet(program, state, rule)) continue;
    if (place !== current?.rule) {
      if ((!cutBy || cutBy.includes(rule.name)) && start(place)) return "started";
    } else if (isMoment(rule)) {
      if ((rule.again || !kept) && start(place)) return "started";
    } else if (!kept) return "goes on";
  }
  return kept ? "goes on" : "nothing";
}

/** The state in which the rule has just started; null where it has nothing to show. */
function begun(program: Program, state: State, place: number): State | null {
  const { at, current } = state;
  const rule = program.rules[place];
  const cast = rule && program.cast(rule.play, state.facing);
  if (!rule || !cast) return null;
  const from = rule.phase === "carry" && current ? current.from : at;
  const pressed = new Map(state.pressed);
  for (const name of pressesOf(rule)) pressed.delete(name);
  const values = new Map(state.values);
  for (const name of Object.keys(rule.set ?? {})) if (typeof values.get(name) === "boolean") values.set(name, rule.set?.[name] === true);
  const keep = rule.keep ?? "while";
  const keepsWhole = keep === "whole" && Number.isFinite(cast.timeline.end) && at < from + cast.timeline.end;
  const keptUntil = typeof keep === "number" && keep > 0 ? at + microsOf(keep) : keepsWhole ? Number.POSITIVE_INFINITY : null;
  return { ...state, pressed, values, current: { rule: place, since: at, from, cast, keptUntil, told: at - from - 1 } };
}

/** What showed until now makes way; at this very time it no longer shows. */
function leave(state: State, hear: Hearing): void {
  const { current } = state;
  if (current && current.told < ownTime(state, current) - 1) hear.played?.(current, current.told, ownTime(state, current) - 1);
}
