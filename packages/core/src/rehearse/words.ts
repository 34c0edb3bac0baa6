/** Writes rules in plain words, for tables, findings and screen readers. */
import { type AccountRow, type Condition, entriesOf, type Input, type Rule } from "../model";

/** A list in words: "a", "a or b", "a, b or c". */
function listed(names: readonly string[], last: "and" | "or"): string {
  return names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} ${last} ${names.at(-1)}`;
}

/** A time in words: seconds from one up, otherwise ms. */
export function timeInWords(ms: number): string {
  return ms >= 1000 ? `${ms / 1000} s` : `${ms} ms`;
}

export function conditionInWords(condition: Condition): string {
  if ("showing" in condition) {
    const { showing, forMs, ended } = condition;
    const parts = [`${listed(showing, "or")} shows`];
    if (forMs !== undefined) parts.push(`has shown for ${timeInWords(forMs)}`);
    if (ended) parts.push("has ended");
    return listed(parts, "and");
  }
  const { input } = condition;
  if ("is" in condition) {
    if (typeof condition.is === "boolean") return `${input} is ${condition.is ? "on" : "off"}`;
    return `${input} is ${condition.is}`;
  }
  const { above, below } = condition;
  const parts = [...(above === undefined ? [] : [`above ${above}`]), ...(below === undefined ? [] : [`below ${below}`])];
  return `${input} is ${listed(parts, "and")}`;
}

/** When a rule shows: "always" without conditions. */
export function whenInWords({ when }: Pick<Rule, "when">): string {
  return when.length === 0 ? "always" : listed(when.map(conditionInWords), "and");
}

export function keepInWords({ keep = "while" }: Pick<Rule, "keep">): string {
  if (keep === "while") return "while it holds";
  return keep === "whole" ? "its whole length" : timeInWords(keep);
}

/** Further effects: what may cut it, what follows, what it sets. */
export function restInWords({ cutBy, again, then: next, set, phase, turns }: Rule): string {
  const parts = [
    ...(cutBy?.length ? [`${listed(cutBy, "or")} may cut it`] : []),
    ...(again ? ["may start again"] : []),
    ...(phase === "carry" ? ["continues in step"] : []),
    ...(turns === false ? ["keeps its facing"] : []),
    ...entriesOf(set ?? {}).map(([name, value]) => `${name} ${value ? "on" : "off"}`),
    ...(next === undefined ? [] : [`then ${next}`]),
  ];
  return parts.join("; ");
}

/** One rule as a sentence. */
export function ruleInWords(rule: Rule): string {
  const rest = restInWords(rule);
  const when = rule.when.length === 0 ? "Otherwise" : `When ${whenInWords(rule)},`;
  return `${when} play ${rule.play} for ${keepInWords(rule)}${rest ? `; ${rest}` : ""}.`;
}

/** An input and how it begins. */
export function inputInWords(input: Input): string {
  switch (input.kind) {
    case "button":
      return input.bufferMs ? `button, a press waits ${timeInWords(input.bufferMs)}` : "button";
    case "switch":
      return `switch, ${input.initial ? "on" : "off"} at first`;
    case "number":
      return `number, ${input.initial ?? 0} at first`;
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
  return `${rule === null ? "nothing shows" : `${rule} plays ${play}`}, ${WHY[why]}`;
}
