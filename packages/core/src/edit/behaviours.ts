/** Edits behaviours: their inputs, and their rules in order. */
import {
  Behaviour,
  type BehaviourName,
  behaviourNamed,
  CaravanError,
  checkedName,
  freeName,
  type Input,
  type InputKind,
  type Project,
  type Rule,
} from "../model";
import { withNamesBecome } from "../references";
import { inLanguage, t } from "../words";
import { edit } from "./edit";

/** Adds a behaviour under its name, or one like it that is free. Throws `bad-name`. */
export const addBehaviour = edit(
  (_project, behaviour: Behaviour) => t("make the behaviour {name}", { name: behaviour.name }),
  (project, behaviour): Project => {
    const { behaviours = [] } = project;
    const name = freeName(checkedName(behaviour.name, t("behaviour name")), taken(behaviours)) as BehaviourName;
    return { ...project, behaviours: [...behaviours, fit({ ...behaviour, name })] };
  },
);

/** Throws `bad-name` or `name-taken`. */
export const renameBehaviour = edit(
  (_project, from: BehaviourName, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, from, to) => {
    const { name: before } = behaviourNamed(project, from);
    const name = newName(to, before, project.behaviours ?? [], "behaviour") as BehaviourName;
    return withNamesBecome(project, { behaviour: (each) => (each === from ? name : each) });
  },
);

/** Removes a behaviour; its stages and drives stay, and can be given another one. */
export const removeBehaviour = edit(
  (_project, name: BehaviourName) => t("remove the behaviour {name}", { name }),
  (project, name): Project => {
    const behaviour = behaviourNamed(project, name);
    return { ...project, behaviours: (project.behaviours ?? []).filter((each) => each !== behaviour) };
  },
);

/** Adds an input of a kind. Throws `bad-name` or `name-taken`. */
export const addInput = edit(
  (_project, _behaviour: BehaviourName, kind: InputKind, name: string) => t("add the {kind} {name}", { kind, name: name.trim() }),
  (project, behaviour, kind, wanted) =>
    changed(project, behaviour, (each) => ({
      ...each,
      inputs: [...each.inputs, { name: newName(wanted, null, each.inputs, "input"), kind }],
    })),
);

/** Throws `bad-name` or `name-taken`. */
export const renameInput = edit(
  (_project, _behaviour: BehaviourName, from: string, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, behaviour, from, to) => {
    const name = newName(to, from, behaviourNamed(project, behaviour).inputs, "input");
    return withNamesBecome(project, { input: (each, of) => (of === behaviour && each === from ? name : each) });
  },
);

/** Sets how an input begins, or how long a press waits. Throws `bad-number`. */
export const setInput = edit(
  (_project, _behaviour: BehaviourName, input: Input) => t("change the {kind} {name}", { kind: input.kind, name: input.name }),
  (project, behaviour, input) =>
    changed(project, behaviour, (each) => ({ ...each, inputs: each.inputs.map((one) => (one.name === input.name ? input : one)) })),
);

/** Removes an input. Conditions that ask for it stay, and say so. */
export const removeInput = edit(
  (_project, _behaviour: BehaviourName, name: string) => t("remove the input {name}", { name }),
  (project, behaviour, name) =>
    changed(project, behaviour, (each) => ({ ...each, inputs: each.inputs.filter((one) => one.name !== name) })),
);

/** Puts a rule in at a place from the top, under its name or one like it that is free. Throws `bad-name`. */
export const addRule = edit(
  (_project, _behaviour: BehaviourName, rule: Rule, _at: number) => t("add the rule {name}", { name: rule.name }),
  (project, behaviour, rule, at) =>
    changed(project, behaviour, (each) => {
      const name = freeName(checkedName(rule.name, t("rule name")), taken(each.rules));
      return { ...each, rules: [...each.rules.slice(0, at), { ...rule, name }, ...each.rules.slice(at)] };
    }),
);

/** Throws `bad-name` or `name-taken`. */
export const renameRule = edit(
  (_project, _behaviour: BehaviourName, from: string, to: string) => t("rename the rule {from} to {to}", { from, to: to.trim() }),
  (project, behaviour, from, to) => {
    const name = newName(to, from, behaviourNamed(project, behaviour).rules, "rule");
    return withNamesBecome(project, { rule: (each, of) => (of === behaviour && each === from ? name : each) });
  },
);

/** Changes parts of a rule; undefined restores the default. */
export type RuleChange = { readonly [Field in keyof Omit<Rule, "name">]?: Rule[Field] | undefined };

/** Changes parts of a rule. One that begins to ask for a press or release is kept for its whole length, unless it says otherwise. Throws `bad-number`. */
export const setRule = edit(
  (_project, _behaviour: BehaviourName, name: string, change: RuleChange) =>
    t("{change} {name}", { change: inLanguage(wordsFor(change)), name }),
  (project, behaviour, name, change) =>
    changed(project, behaviour, (each) => ({
      ...each,
      rules: each.rules.map((rule) => (rule.name === name ? withChange(rule, change) : rule)),
    })),
);

/** Removes a rule. Rules that may be cut or followed by it forget it; conditions on its showing stay, and are reported. */
export const removeRule = edit(
  (_project, _behaviour: BehaviourName, name: string) => t("remove the rule {name}", { name }),
  (project, behaviour, name) =>
    changed(project, behaviour, (each) => ({
      ...each,
      rules: each.rules
        .filter((rule) => rule.name !== name)
        .map((rule) => {
          const cutBy = rule.cutBy?.filter((other) => other !== name);
          return withChange(rule, {
            ...(rule.cutBy ? { cutBy: cutBy?.length ? cutBy : undefined } : {}),
            ...(rule.then === name ? { then: undefined } : {}),
          });
        }),
    })),
);

/** Moves a rule to a position from the top. */
export const moveRule = edit(
  (_project, _behaviour: BehaviourName, name: string, to: number) => t("move the rule {name} to place {to}", { name, to: to + 1 }),
  (project, behaviour, name, to) =>
    changed(project, behaviour, (each) => {
      const rule = each.rules.find((one) => one.name === name);
      const others = each.rules.filter((one) => one !== rule);
      return rule ? { ...each, rules: [...others.slice(0, to), rule, ...others.slice(to)] } : each;
    }),
);

/** A copy of a rule right after it. */
export const duplicateRule = edit(
  (_project, _behaviour: BehaviourName, name: string) => t("duplicate the rule {name}", { name }),
  (project, behaviour, name) =>
    changed(project, behaviour, (each) => ({
      ...each,
      rules: each.rules.flatMap((rule) => (rule.name === name ? [rule, { ...rule, name: freeName(name, taken(each.rules)) }] : [rule])),
    })),
);

const FIELD_WORDS: Readonly<Record<keyof RuleChange, string>> = {
  when: "change when to show",
  play: "change what to play for",
  keep: "change how long to keep",
  cutBy: "change what may cut",
  again: "change whether to start again",
  then: "change what follows",
  set: "change what is set by",
  phase: "change how to begin",
  turns: "change turning of",
  off: "switch",
};

function wordsFor(change: RuleChange): string {
  if ("off" in change) return change.off ? t("switch off") : t("switch on");
  const [first] = Object.keys(change) as (keyof RuleChange)[];
  return first ? FIELD_WORDS[first] : "change";
}

function withChange(rule: Rule, change: RuleChange): Rule {
  const next: Record<string, unknown> = { ...rule };
  for (const [field, value] of Object.entries(change))
    if (value === undefined) delete next[field];
    else next[field] = value;
  const made = next as Rule;
  const asksMoment = made.when.some((each) => "is" in each && (each.is === "pressed" || each.is === "released"));
  return asksMoment && !("keep" in change) && (made.keep ?? "while") === "while" ? { ...made, keep: "whole" } : made;
}

/** The project with the behaviour changed, or unchanged if that changes nothing. */
function changed(project: Project, name: BehaviourName, change: (behaviour: Behaviour) => Behaviour): Project {
  const before = behaviourNamed(project, name);
  const after = change(before);
  if (JSON.stringify(after) === JSON.stringify(before)) return project;
  const behaviour = fit(after);
  return { ...project, behaviours: (project.behaviours ?? []).map((each) => (each === before ? behaviour : each)) };
}

/** Throws `bad-number` with the first value that does not fit. */
function fit(behaviour: Behaviour): Behaviour {
  const parsed = Behaviour.safeParse(behaviour);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new CaravanError(
    "bad-number",
    t('behaviour "{name}", {path}', { name: behaviour.name, path: issue?.path.join(" ") ?? "" }),
    t("This does not fit: {message}.", { message: issue?.message ?? "" }),
    t("The earlier value was kept."),
  );
}

function taken(all: readonly { readonly name: string }[]): ReadonlySet<string> {
  return new Set(all.map(({ name }) => name));
}

/** Throws `bad-name` or `name-taken`; keeping the name is allowed. */
function newName(wanted: string, before: string | null, all: readonly { readonly name: string }[], kind: string): string {
  const name = checkedName(wanted, t("{kind} name", { kind }));
  if (name !== before && all.some((each) => each.name === name))
    throw new CaravanError(
      "name-taken",
      `"${name}"`,
      kind === "input" ? t("There is already an {kind} of this name.", { kind }) : t("There is already a {kind} of this name.", { kind }),
      t("Type another name."),
    );
  return name;
}
