/** State of a running behaviour, and how inputs change it. States are immutable. */
import type { Facing, Micros } from "../model";
import type { Cast, Given, Program } from "./program";

/** The rule that shows now. */
export interface Current {
  /** Its place in the list. */
  readonly rule: number;
  /** When it started. */
  readonly since: Micros;
  /** When the clip's own time was 0: before `since` where it carried on. */
  readonly from: Micros;
  readonly cast: Cast;
  /** Since when this cast shows: later than `since` where the figure has turned. */
  readonly shown: Micros;
  /** Until when it is kept: Infinity for the end of the clip then showing, 0 if it is not. */
  readonly keptUntil: Micros;
}

export interface State {
  readonly at: Micros;
  /** Where it was asked to look last. */
  readonly facing: Facing;
  /** Of each input: whether the button is down, whether the switch is on, or the number. */
  readonly values: ReadonlyMap<string, boolean | number>;
  /** Presses that wait, by button, with their times. */
  readonly pressed: ReadonlyMap<string, Micros>;
  /** When buttons last went up. */
  readonly released: ReadonlyMap<string, Micros>;
  readonly current: Current | null;
}

/** Before anything was looked at, looking at the viewer. */
export function stateAtStart({ inputs }: Program): State {
  const values = new Map(
    inputs.map((each) => [each.name, each.kind === "button" ? false : (each.initial ?? (each.kind === "switch" ? false : 0))]),
  );
  return { at: 0, facing: "s", values, pressed: new Map(), released: new Map(), current: null };
}

/**
 * The state after an input. Unknown names and values of the wrong kind change nothing; whoever accepts tracks from outside checks them
 * first. Clips replaced by a turn are added to `left`.
 */
export function withGiven(program: Program, state: State, given: Given, left: Current[]): State {
  if ("face" in given) return turned(program, { ...state, facing: given.face }, left);
  if ("set" in given) return { ...state, values: withSet(state.values, given.set) };
  const isPress = "press" in given;
  const name = isPress ? given.press : given.release;
  if (state.values.get(name) !== !isPress) return state;
  const moments = isPress ? "pressed" : "released";
  return { ...state, values: new Map(state.values).set(name, isPress), [moments]: new Map(state[moments]).set(name, state.at) };
}

/** Values with those of the same kind set; the same ones where that changes nothing. */
export function withSet(values: State["values"], set: Readonly<Record<string, boolean | number>>): State["values"] {
  let next: Map<string, boolean | number> | null = null;
  for (const name of Object.keys(set)) {
    const [before, value] = [values.get(name), set[name] as boolean | number];
    if (before === value || typeof before !== typeof value) continue;
    next ??= new Map(values);
    next.set(name, value);
  }
  return next ?? values;
}

/** The clip of the requested facing, at the time reached; unchanged if the rule keeps its facing or cannot show that one. */
function turned(program: Program, state: State, left: Current[]): State {
  const { current } = state;
  const rule = current && program.rules[current.rule];
  const cast = rule && rule.turns !== false && program.cast(rule.play, state.facing);
  if (!current || !cast || cast === current.cast) return state;
  left.push(current);
  return { ...state, current: { ...current, cast, shown: state.at } };
}
