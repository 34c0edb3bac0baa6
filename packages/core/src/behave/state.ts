/** All that a running behaviour remembers, and how what is given to it changes that. States are never changed in place. */
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
  /** Until when it is kept, if nothing turns it: Infinity for the end of whatever clip it then shows; null if it is not kept. */
  readonly keptUntil: Micros | null;
  /** Steps entered up to this time of the clip's own were told to whoever asks for events; one less than it began at before any was. */
  readonly told: Micros;
}

export interface State {
  readonly at: Micros;
  /** Where it was asked to look last. */
  readonly facing: Facing;
  readonly down: ReadonlySet<string>;
  /** Presses that wait, by button, with their times. */
  readonly pressed: ReadonlyMap<string, Micros>;
  /** When buttons last went up. */
  readonly released: ReadonlyMap<string, Micros>;
  readonly values: ReadonlyMap<string, boolean | number>;
  readonly current: Current | null;
}

/** Before anything was looked at, looking at the viewer. */
export function stateAtStart({ inputs }: Program): State {
  const values = new Map<string, boolean | number>();
  for (const each of inputs)
    if (each.kind === "switch") values.set(each.name, each.initial ?? false);
    else if (each.kind === "number") values.set(each.name, each.initial ?? 0);
  return { at: 0, facing: "s", down: new Set(), pressed: new Map(), released: new Map(), values, current: null };
}

/**
 * The state after something was given. Names that the behaviour does not have, and values that do not fit them, change nothing; whoever takes
 * tracks from outside checks them first.
 */
export function withGiven(program: Program, state: State, given: Given): State {
  if ("face" in given) return turned(program, { ...state, facing: given.face });
  if ("set" in given) {
    const values = new Map(state.values);
    for (const name of Object.keys(given.set)) {
      const value = given.set[name] as boolean | number;
      const fits = typeof value === "number" ? Number.isFinite(value) : typeof value === "boolean";
      if (fits && typeof value === typeof values.get(name)) values.set(name, value);
    }
    return { ...state, values };
  }
  const isPress = "press" in given;
  const name = isPress ? given.press : given.release;
  const known = program.inputs.some((each) => each.kind === "button" && each.name === name);
  if (!known || state.down.has(name) === isPress) return state;
  const down = new Set(state.down);
  if (isPress) return { ...state, down: down.add(name), pressed: new Map(state.pressed).set(name, state.at) };
  down.delete(name);
  return { ...state, down, released: new Map(state.released).set(name, state.at) };
}

/** The clip of the facing asked for, at the time that it has reached; as it was where the rule keeps its facing or cannot show that one. */
function turned(program: Program, state: State): State {
  const { current } = state;
  const rule = current && program.rules[current.rule];
  const cast = rule && rule.turns !== false ? program.cast(rule.play, state.facing) : null;
  return current && cast && cast !== current.cast ? { ...state, current: { ...current, cast } } : state;
}
