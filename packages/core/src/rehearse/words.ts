/** Writes rules in plain words, for tables, findings and screen readers. */
import { type AccountRow, type Condition, entriesOf, type Input, type Rule } from "../model";
import { inLanguage, t } from "../words";

/** A list in words: "a", "a or b", "a, b or c". */
function listed(names: readonly string[], last: "and" | "or"): string {
  if (names.length < 2) return names[0] ?? "";
  const said = { names: names.slice(0, -1).join(", "), other: names.at(-1) ?? "" };
  return last === "and" ? t("{names} and {other}", said) : t("{names} or {other}", said);
}

/** A time in words: seconds from one up, otherwise ms. */
export function timeInWords(ms: number): string {
  return ms >= 1000 ? `${ms / 1000} s` : t("{ms} ms", { ms });
}

export function conditionInWords(condition: Condition): string {
  if ("showing" in condition) {
    const { showing, forMs, ended } = condition;
    const parts = [t("{showing} shows", { showing: listed(showing, "or") })];
    if (forMs !== undefined) parts.push(t("has shown for {time}", { time: timeInWords(forMs) }));
    if (ended) parts.push(t("has ended"));
    return listed(parts, "and");
  }
  const { input } = condition;
  if ("is" in condition) {
    if (typeof condition.is === "boolean") return condition.is ? t("{input} is on", { input }) : t("{input} is off", { input });
    return t("{input} is {state}", { input, state: inLanguage(condition.is) });
  }
  const { above, below } = condition;
  const parts = [
    ...(above === undefined ? [] : [t("above {above}", { above })]),
    ...(below === undefined ? [] : [t("below {below}", { below })]),
  ];
  return t("{input} is {parts}", { input, parts: listed(parts, "and") });
}

/** When a rule shows: "always" without conditions. */
export function whenInWords({ when }: Pick<Rule, "when">): string {
  return when.length === 0 ? t("always") : listed(when.map(conditionInWords), "and");
}

export function keepInWords({ keep = "while" }: Pick<Rule, "keep">): string {
  if (keep === "while") return t("while it holds");
  return keep === "whole" ? t("its whole length") : timeInWords(keep);
}

/** Further effects: what may cut it, what follows, what it sets. */
export function restInWords({ cutBy, again, then: next, set, phase, turns }: Rule): string {
  const parts = [
    ...(cutBy?.length ? [t("{cutBy} may cut it", { cutBy: listed(cutBy, "or") })] : []),
    ...(again ? [t("may start again")] : []),
    ...(phase === "carry" ? [t("continues in step")] : []),
    ...(turns === false ? [t("keeps its facing")] : []),
    ...entriesOf(set ?? {}).map(([name, value]) => `${name} ${value ? "on" : "off"}`),
    ...(next === undefined ? [] : [t("then {next}", { next })]),
  ];
  return parts.join("; ");
}

/** One rule as a sentence. */
export function ruleInWords(rule: Rule): string {
  const rest = restInWords(rule);
  const when = rule.when.length === 0 ? "Otherwise" : t("When {when},", { when: whenInWords(rule) });
  return rest
    ? t("{when} play {play} for {keep}; {rest}.", { when, play: rule.play, keep: keepInWords(rule), rest })
    : t("{when} play {play} for {keep}.", { when, play: rule.play, keep: keepInWords(rule) });
}

/** An input and how it begins. */
export function inputInWords(input: Input): string {
  switch (input.kind) {
    case "button":
      return input.bufferMs ? t("button, a press waits {time}", { time: timeInWords(input.bufferMs) }) : t("button");
    case "switch":
      return input.initial ? t("switch, on at first") : t("switch, off at first");
    case "number":
      return t("number, {initial} at first", { initial: input.initial ?? 0 });
  }
}

const WHY: Readonly<Record<AccountRow["why"], string>> = {
  input: "an input",
  over: "what was kept or played has ended",
  then: "it follows",
  time: "its time has elapsed",
  start: "at the start",
};

/** A row of an account: what starts, and why. */
export function rowInWords({ rule, play, why }: Pick<AccountRow, "rule" | "play" | "why">): string {
  const said = { why: inLanguage(WHY[why]) };
  return rule === null ? t("nothing shows, {why}", said) : t("{rule} plays {play}, {why}", { ...said, rule, play: play ?? "" });
}
