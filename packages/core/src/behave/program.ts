/**
 * Compiles a behaviour for running: names become list indices, ms become whole microseconds, and the clips that a rule plays are looked up
 * by facing.
 *
 * Has no dependencies, so that the player package can bundle it.
 */
import type { AccountRow, Condition, Facing, Input, Micros, Rule } from "../model";
import type { Timeline } from "../playback";

/** What a rule plays in one facing. */
export interface Cast {
  readonly clip: string;
  readonly mirror: boolean;
  readonly timeline: Timeline;
}

/** The parts of a behaviour that the interpreter needs. */
export interface Rules {
  readonly inputs: readonly Input[];
  readonly rules: readonly Rule[];
}

export interface Program extends Rules {
  /** What a name plays in a facing; null if there is nothing. Returns the same object for the same arguments. */
  readonly cast: (play: string, facing: Facing) => Cast | null;
}

/** Something given to the inputs. */
export type Given =
  | { readonly press: string }
  | { readonly release: string }
  | { readonly set: Readonly<Record<string, boolean | number>> }
  | { readonly face: Facing };

/** A start of a rule, or that nothing shows any more (`rule` null). */
export interface Row {
  readonly at: Micros;
  readonly rule: string | null;
  readonly play: string | null;
  readonly why: AccountRow["why"];
}

export const microsOf = (ms: number): Micros => Math.round(ms * 1000);

/** Whether a rule has a condition on a press or a release, which it uses up: such a rule never simply continues. */
export function isMoment({ when }: Pick<Rule, "when">): boolean {
  return when.some((each) => "is" in each && (each.is === "pressed" || each.is === "released"));
}

/** The names of the buttons whose presses a rule asks for. */
export function pressesOf({ when }: Pick<Rule, "when">): string[] {
  return when.flatMap((each: Condition) => ("is" in each && each.is === "pressed" ? [each.input] : []));
}
