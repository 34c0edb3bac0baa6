/** Explains why a rule shows or does not: the first condition that fails, in words. */

import { firstUnmet, isKept, type Program, type State } from "@caravan/core/behave";
import type { Condition, Rule } from "@caravan/core/model";
import { timeInWords } from "@caravan/core/rehearse";
import { t } from "../../ui/words";

export interface Standing {
  readonly shows: boolean;
  readonly text: string;
}

export function standingOf(program: Program, state: State, rule: Rule): Standing {
  const { current } = state;
  if (rule.off) return { shows: false, text: t("switched off") };
  const shown = current && program.rules[current.rule];
  if (shown === rule && current) {
    const since = (current.since / 1_000_000).toFixed(2);
    return { shows: true, text: isKept(state) ? t("shows since {since} s, kept", { since }) : t("shows since {since} s", { since }) };
  }
  if (!program.cast(rule.play, state.facing))
    return { shows: false, text: t("there is nothing to play called {play}", { play: rule.play }) };
  const unmet = firstUnmet(program, state, rule);
  if (unmet) return { shows: false, text: t("not now: {names}", { names: notHolding(unmet, program, state) }) };
  if (isKept(state) && shown && !shown.cutBy?.includes(rule.name)) return { shows: false, text: t("{name} is kept", { name: shown.name }) };
  return { shows: false, text: t("a rule above holds") };
}

function notHolding(condition: Condition, program: Program, state: State): string {
  if ("showing" in condition) {
    const { current } = state;
    const name = current && program.rules[current.rule]?.name;
    if (!name || !condition.showing.includes(name))
      return t("{showing} does not show", { showing: condition.showing.join(` ${t("or")} `) });
    return condition.forMs !== undefined && state.at - current.since < condition.forMs * 1000
      ? t("not yet {time}", { time: timeInWords(condition.forMs) })
      : t("its clip has not ended");
  }
  const { input } = condition;
  const value = state.values.get(input);
  if (value === undefined) return t("there is no input {input}", { input });
  if (!("is" in condition)) return t("{input} is {value}", { input, value: String(value) });
  if (typeof condition.is === "boolean") return value ? t("{input} is on", { input }) : t("{input} is off", { input });
  return condition.is === "pressed" || condition.is === "released"
    ? t("{input} is not {is}", { input, is: condition.is })
    : value
      ? t("{input} is down", { input })
      : t("{input} is up", { input });
}
