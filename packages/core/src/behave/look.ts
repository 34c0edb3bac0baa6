/** Evaluates one instant: holds end, rules are checked from the top, and some of them start. */
import type { Condition, Micros, Rule } from "../model";
import { isMoment, microsOf, type Program, pressesOf, type Row } from "./program";
import { type Current, type State, withSet } from "./state";

const ENDLESS = Number.POSITIVE_INFINITY;

/** The clip's own time. */
export const ownTime = ({ at }: Pick<State, "at">, { from }: Pick<Current, "from">): Micros => at - from;

/** Until when it is kept in the current state; 0 if it is not. A clip that never ends keeps nothing. */
function endOfKeeping({ keptUntil, from, cast }: Current): Micros {
  if (keptUntil !== ENDLESS) return keptUntil;
  const end = from + cast.timeline.end;
  return end === ENDLESS ? 0 : end;
}

export function isKept({ at, current }: State): boolean {
  return current !== null && at < endOfKeeping(current);
}

/** The next time at which something can happen without input; Infinity if nothing can. */
export function nextInstant(program: Program, { at, current }: State): Micros {
  if (!current) return ENDLESS;
  const name = program.rules[current.rule]?.name as string;
  let next = ENDLESS;
  const consider = (time: Micros) => {
    if (time > at && time < next) next = time;
  };
  consider(endOfKeeping(current));
  consider(current.from + current.cast.timeline.end);
  for (const { showing, forMs = 0 } of waitsOf(program)) if (showing.includes(name)) consider(current.since + microsOf(forMs));
  return next;
}

type Wait = Extract<Condition, { readonly showing: unknown }>;
const waits = new WeakMap<Program, readonly Wait[]>();

/** The conditions that wait for a time, looked for once for each program: every instant asks for them. */
function waitsOf(program: Program): readonly Wait[] {
  let found = waits.get(program);
  if (!found) {
    found = program.rules.flatMap(({ off, when }) => (off ? [] : when.filter((each): each is Wait => "showing" in each && !!each.forMs)));
    waits.set(program, found);
  }
  return found;
}

/** The first of a rule's conditions that does not hold, null if all do. */
export function firstUnmet(program: Program, state: State, rule: Rule): Condition | null {
  return rule.when.find((each) => !holds(program, state, each)) ?? null;
}

function holds(program: Program, { at, current, values, pressed, released }: State, condition: Condition): boolean {
  if ("showing" in condition) {
    const name = current && program.rules[current.rule]?.name;
    return (
      !!name &&
      condition.showing.includes(name) &&
      at - current.since >= microsOf(condition.forMs ?? 0) &&
      (!condition.ended || at - current.from >= current.cast.timeline.end)
    );
  }
  const value = values.get(condition.input);
  if (!("is" in condition)) {
    const { above = -ENDLESS, below = ENDLESS } = condition;
    return typeof value === "number" && value > above && value < below;
  }
  const { input, is } = condition;
  if (is === "released") return released.get(input) === at;
  if (is !== "pressed") return value === (is === "down" || is === true);
  const button = program.inputs.find((each) => each.name === input) as { readonly bufferMs?: number } | undefined;
  const waiting = pressed.get(input);
  return waiting !== undefined && at - waiting <= microsOf(button?.bufferMs ?? 0);
}

/**
 * The state after the instant at its time, with the rows of what starts; `why` is the cause of the instant. Replaced clips are added to
 * `left`.
 */
export function settled(program: Program, before: State, why: Row["why"], rows: Row[], left: Current[]): State {
  const started = new Set<number>();
  let state = before;
  const show = (current: Current | null, rule: Rule | null, because: Row["why"]) => {
    if (state.current) left.push(state.current);
    state = { ...state, current };
    rows.push({ at: state.at, rule: rule?.name ?? null, play: rule?.play ?? null, why: because });
  };
  const start = (place: number, because: Row["why"]): boolean => {
    const rule = program.rules[place];
    const current = rule && !started.has(place) && begun(program, state, rule, place);
    if (!current) return false;
    started.add(place);
    show(current, rule, because);
    const pressed = new Map(state.pressed);
    for (const name of pressesOf(rule)) pressed.delete(name);
    state = { ...state, pressed, values: withSet(state.values, rule.set ?? {}) };
    return true;
  };
  const { current } = state;
  if (current?.keptUntil && !isKept(state)) {
    state = { ...state, current: { ...current, keptUntil: 0 } };
    const next = program.rules[current.rule]?.then;
    start(
      program.rules.findIndex(({ name, off }) => name === next && !off),
      "then",
    );
  }
  // Ends, since no rule starts twice.
  for (;;) {
    const found = look(program, state, (place) => start(place, why));
    if (found === "started") continue;
    if (found === "nothing" && (state.current || why === "start")) show(null, null, why);
    return state;
  }
}

/** Evaluates the rules once. */
function look(program: Program, state: State, start: (place: number) => boolean): "started" | "goes on" | "nothing" {
  const { current } = state;
  const kept = isKept(state);
  const cutBy = current && kept ? (program.rules[current.rule]?.cutBy ?? []) : null;
  let place = -1;
  for (const rule of program.rules) {
    place++;
    if (rule.off || firstUnmet(program, state, rule)) continue;
    if (place !== current?.rule) {
      if ((!cutBy || cutBy.includes(rule.name)) && start(place)) return "started";
    } else if (isMoment(rule)) {
      if ((rule.again || !kept) && start(place)) return "started";
    } else if (!kept) return "goes on";
  }
  return kept ? "goes on" : "nothing";
}

/** The rule as it has just started; null where it has nothing to show. */
function begun(program: Program, { at, facing, current }: State, { play, phase, keep }: Rule, place: number): Current | null {
  const cast = program.cast(play, facing);
  if (!cast) return null;
  const from = phase === "carry" && current ? current.from : at;
  const end = from + cast.timeline.end;
  const keepsWhole = keep === "whole" && end !== ENDLESS && at < end;
  return {
    rule: place,
    since: at,
    from,
    cast,
    shown: at,
    keptUntil: keepsWhole ? ENDLESS : typeof keep === "number" && keep > 0 ? at + microsOf(keep) : 0,
  };
}
