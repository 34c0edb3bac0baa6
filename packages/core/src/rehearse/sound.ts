/** Removes from a behaviour what can never happen, so that readers stricter than the interpreter understand it the same way. */
import type { Rules } from "../behave";
import { type Behaviour, type Condition, entriesOf, orderedRecord, type Project, type Rule } from "../model";
import { plays, type Shows } from "./program";

/**
 * The behaviour without rules that are off, play something missing, or use missing inputs or rules; and without these rules' names
 * elsewhere. The account of any track stays the same.
 */
export function soundBehaviour(shows: Shows, behaviour: Behaviour): Behaviour {
  let rules = behaviour.rules.filter(({ off, play }) => !off && plays(shows, play));
  for (;;) {
    const names = new Set(rules.map(({ name }) => name));
    const possible = rules.filter(({ when }) => when.every((each) => canHold(each, behaviour, names)));
    if (possible.length === rules.length) return { ...behaviour, rules: rules.map((rule) => naming(rule, behaviour, names)) };
    rules = possible;
  }
}

/** Whether a condition can hold at all, as far as names go. */
export function canHold(condition: Condition, { inputs }: Pick<Rules, "inputs">, rules: ReadonlySet<string>): boolean {
  if ("showing" in condition) return condition.showing.some((name) => rules.has(name));
  const kind = inputs.find(({ name }) => name === condition.input)?.kind;
  if (!("is" in condition)) return kind === "number";
  return kind === (typeof condition.is === "boolean" ? "switch" : "button");
}

/** The rule with only those names of rules and switches that are there. */
function naming(rule: Rule, { inputs }: Pick<Rules, "inputs">, rules: ReadonlySet<string>): Rule {
  const { cutBy, then: next, set, ...rest } = rule;
  const cutters = cutBy?.filter((name) => rules.has(name)) ?? [];
  const switches = entriesOf(set ?? {}).filter(([name]) => inputs.some((each) => each.kind === "switch" && each.name === name));
  return {
    ...rest,
    when: rule.when.map((each) => ("showing" in each ? { ...each, showing: each.showing.filter((name) => rules.has(name)) } : each)),
    ...(cutters.length > 0 ? { cutBy: cutters } : {}),
    ...(next !== undefined && rules.has(next) ? { then: next } : {}),
    ...(switches.length > 0 ? { set: orderedRecord(switches) } : {}),
  };
}

/** The behaviours that can be delivered with the clips and actions of `delivered`: everything they play is among these. */
export function deliverableBehaviours(project: Project, delivered: Shows): Behaviour[] {
  return (project.behaviours ?? []).flatMap((behaviour) => {
    const sound = soundBehaviour(project, behaviour);
    return sound.rules.length > 0 && sound.rules.every(({ play }) => plays(delivered, play)) ? [sound] : [];
  });
}
