/** Explains why a rule shows or does not: the first condition that fails, in words. */
import { firstUnmet, isKept, type Program, type State } from "@caravan/core/behave";
import type { Condition, Rule } from "@caravan/core/model";
import { timeInWords } from "@caravan/core/rehearse";

export interface Standing {
  readonly shows: boolean;
  readonly text: string;
}

export function standingOf(program: Program, state: State, rule: Rule): Standing {
  const { current } = state;
  if (rule.off) return { shows: false, text: "switched off" };
  const shown = current && program.rules[current.rule];
  if (shown === rule && current) {
    const kept = isKept(state) ? ", kept" : "";
    return { shows: true, text: `shows since ${(current.since / 1_000_000).toFixed(2)} s${kept}` };
  }
  if (!program.cast(rule.play, state.facing)) return { shows: false, text: `there is nothing to play called ${rule.play}` };
  const unmet = firstUnmet(program, state, rule);
  if (unmet) return { shows: false, text: `not now: ${notHolding(unmet, program, state)}` };
  if (isKept(state) && shown && !shown.cutBy?.includes(rule.name)) return { shows: false, text: `${shown.name} is kept` };
  return { shows: false, text: "a rule above holds" };
}

function notHolding(condition: Condition, program: Program, state: State): string {
  if ("showing" in condition) {
    const { current } = state;
    const name = current && program.rules[current.rule]?.name;
    if (!name || !condition.showing.includes(name)) return `${condition.showing.join(" or ")} does not show`;
    return condition.forMs !== undefined && state.at - current.since < condition.forMs * 1000
      ? `not yet ${timeInWords(condition.forMs)}`
      : "its clip has not ended";
  }
  const { input } = condition;
  const value = state.values.get(input);
  if (value === undefined) return `there is no input ${input}`;
  if (!("is" in condition)) return `${input} is ${value}`;
  if (typeof condition.is === "boolean") return `${input} is ${value ? "on" : "off"}`;
  return condition.is === "pressed" || condition.is === "released"
    ? `${input} is not ${condition.is}`
    : `${input} is ${value ? "down" : "up"}`;
}
