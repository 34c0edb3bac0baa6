/** Findings about behaviours: rules that never show, that alternate endlessly, that hold forever or too briefly. */

import { isMoment } from "../behave";
import { addRule, moveRule, removeInput, removeRule, setClipRules, setRule } from "../edit";
import { type Behaviour, type Clip, type Condition, clipsOfAction, FACINGS_OF, facingsPresent, type Project, type Rule } from "../model";
import { timelineOf } from "../playback";
import { accountOf, canHold, plays, programOf } from "../rehearse";
import { t } from "../words";
import type { Finding } from "./finding";

/** Shorter than this is hardly visible, in ms. */
const SEEN = 100;

/** Cost: O(rules × (conditions + clips)), and at most 256 instants. */
export function behaviourFindings(project: Project): Finding[] {
  return (project.behaviours ?? []).flatMap((behaviour) => {
    const on = behaviour.rules.filter(({ off }) => !off);
    const names = new Set(on.map(({ name }) => name));
    return [
      ...on.flatMap((rule) => ruleFindings(project, behaviour, rule, names)),
      ...nothingShows(behaviour),
      ...covered(behaviour),
      ...chasing(project, behaviour),
      ...unasked(project, behaviour),
      ...missingFacings(project, behaviour),
    ];
  });
}

type Rest = Pick<Finding, "code" | "severity" | "message" | "mend" | "otherMends">;

function finding({ name: behaviour }: Behaviour, rule: string | null, rest: Rest): Finding {
  return {
    where: rule === null ? t('behaviour "{behaviour}"', { behaviour }) : t('rule "{rule}" of "{behaviour}"', { rule, behaviour }),
    place: { stop: "rehearse", behaviour, ...(rule === null ? {} : { rule }) },
    ...rest,
  };
}

function clipsPlayed(project: Project, play: string): Clip[] {
  const action = project.actions.find(({ name }) => (name as string) === play);
  const clips = action ? clipsOfAction(project, action) : project.clips.filter(({ name }) => (name as string) === play);
  return clips.filter(({ steps }) => steps.length > 0);
}

const endOf = (clip: Clip) => timelineOf(clip).end;

/** `names` are those of the rules that are on. */
function ruleFindings(project: Project, behaviour: Behaviour, rule: Rule, names: ReadonlySet<string>): Finding[] {
  const { name, play, when, keep = "while" } = rule;
  const remove = { label: t("Remove the rule"), apply: (current: Project) => removeRule(current, behaviour.name, name) };
  if (!plays(project, play))
    return [
      finding(behaviour, name, {
        code: "rule-shows-nothing",
        severity: "warning",
        message: t('There is no action or clip "{play}" with steps, so this rule never shows. Choose what it plays.', { play }),
        mend: remove,
      }),
    ];
  const impossible = when.filter((each) => !canHold(each, behaviour, names));
  if (impossible.length > 0)
    return [
      finding(behaviour, name, {
        code: "rule-names-nothing",
        severity: "warning",
        message: t("It asks for {impossible}, which the behaviour does not have, so it never shows.", {
          impossible: impossible.map(askedFor).join(` ${t("and")} `),
        }),
        mend: {
          label: t("Remove the condition"),
          apply: (current) => setRule(current, behaviour.name, name, { when: when.filter((each) => !impossible.includes(each)) }),
        },
        otherMends: [remove],
      }),
    ];
  const against = contradicting(when);
  if (against)
    return [
      finding(behaviour, name, {
        code: "rule-never-holds",
        severity: "warning",
        message: t("Its conditions on {against} can never all hold, so it never shows.", { against }),
        mend: remove,
      }),
    ];
  const clips = clipsPlayed(project, play);
  const endless = clips.filter((clip) => !Number.isFinite(endOf(clip)));
  const found: Finding[] = [];
  if (keep === "whole" && endless.length > 0)
    found.push(
      finding(behaviour, name, {
        code: "kept-for-ever",
        severity: "warning",
        message: t("It is kept for its whole length, but {name} never ends, so it is not kept.", { name: endless[0]?.name ?? "" }),
        mend: {
          label: endless.length === 1 ? t("Play {name} once", { name: endless[0]?.name ?? "" }) : t("Play its clips once"),
          apply: (current) => endless.reduce((next, clip) => setClipRules(next, clip.name, { playback: "once" }), current),
        },
        otherMends: [{ label: t("Keep it 400 ms"), apply: (current) => setRule(current, behaviour.name, name, { keep: 400 }) }],
      }),
    );
  if (isMoment(rule) && (keep === "while" || keep === 0))
    found.push(
      finding(behaviour, name, {
        code: "not-kept",
        severity: "warning",
        message: t("A press lasts an instant, and this rule is not kept after it, so it cannot be seen."),
        mend: { label: t("Keep its whole length"), apply: (current) => setRule(current, behaviour.name, name, { keep: "whole" }) },
      }),
    );
  const shortest = Math.min(...clips.map(endOf)) / 1000;
  const lasts = typeof keep === "number" ? keep : keep === "whole" ? shortest : Number.POSITIVE_INFINITY;
  if (lasts > 0 && lasts < SEEN)
    found.push(
      finding(behaviour, name, {
        code: "hardly-seen",
        severity: "note",
        message: t("It shows for {lasts} ms, which is too short to see.", { lasts }),
        mend: { label: t("Keep it 200 ms"), apply: (current) => setRule(current, behaviour.name, name, { keep: 200 }) },
      }),
    );
  if (keep === "while" && !isMoment(rule) && endless.length === 0 && !asksForEnd(behaviour, name))
    found.push(
      finding(behaviour, name, {
        code: "stands-after-end",
        severity: "note",
        message: t("{play} plays once and then stands still for as long as the rule holds.", { play }),
        mend: { label: t("Keep its whole length"), apply: (current) => setRule(current, behaviour.name, name, { keep: "whole" }) },
      }),
    );
  return found;
}

function askedFor(condition: Condition): string {
  return "showing" in condition ? t("the rule {showing}", { showing: condition.showing.join(` ${t("or")} `) }) : condition.input;
}

/** Whether some rule waits for this one's clip to have ended. */
function asksForEnd({ rules }: Behaviour, name: string): boolean {
  return rules.some(({ when }) => when.some((each) => "showing" in each && each.ended === true && each.showing.includes(name)));
}

/** The input on which two conditions, or one alone, contradict; null if none do. */
function contradicting(when: readonly Condition[]): string | null {
  const states = new Map<string, Set<string>>();
  const least = new Map<string, number>();
  const most = new Map<string, number>();
  for (const each of when) {
    if ("showing" in each) continue;
    const { input } = each;
    if ("is" in each) {
      const known = states.get(input) ?? new Set();
      states.set(input, known.add(String(each.is)));
      // A press that waits may be of a button that is up again.
      for (const [a, b] of [
        ["true", "false"],
        ["down", "up"],
        ["down", "released"],
      ] as const)
        if (known.has(a) && known.has(b)) return input;
      continue;
    }
    least.set(input, Math.max(each.above ?? Number.NEGATIVE_INFINITY, least.get(input) ?? Number.NEGATIVE_INFINITY));
    most.set(input, Math.min(each.below ?? Number.POSITIVE_INFINITY, most.get(input) ?? Number.POSITIVE_INFINITY));
    if ((least.get(input) as number) >= (most.get(input) as number)) return input;
  }
  return null;
}

function nothingShows(behaviour: Behaviour): Finding[] {
  const on = behaviour.rules.filter(({ off }) => !off);
  if (on.some(({ when }) => when.length === 0)) return [];
  const last = on.at(-1);
  return [
    finding(behaviour, null, {
      code: "nothing-shows",
      severity: "warning",
      message: t("No rule shows without conditions, so there may be times when nothing shows."),
      ...(last
        ? {
            mend: {
              label: t("Otherwise play {play}", { play: last.play }),
              apply: (current) =>
                addRule(current, behaviour.name, { name: "otherwise", when: [], play: last.play }, behaviour.rules.length),
            },
          }
        : {}),
    }),
  ];
}

/** Rules below one that always holds: they start only if it lets them cut it, or if they follow something. */
function covered(behaviour: Behaviour): Finding[] {
  const on = behaviour.rules.filter(({ off }) => !off);
  const at = on.findIndex(({ when }) => when.length === 0);
  const always = on[at];
  if (!always) return [];
  const startable = new Set([...(always.cutBy ?? []), ...on.map(({ then }) => then)]);
  return on.slice(at + 1).flatMap((rule): Finding[] => {
    if (startable.has(rule.name)) return [];
    return [
      finding(behaviour, rule.name, {
        code: "rule-covered",
        severity: "warning",
        message: t("It is below {name}, which always holds, so it never shows.", { name: always.name }),
        mend: {
          label: t("Move it above {name}", { name: always.name }),
          apply: (current) => moveRule(current, behaviour.name, rule.name, behaviour.rules.indexOf(always)),
        },
      }),
    ];
  });
}

/** The greatest number of input states to try. */
const MOST_TRIED = 256;

/** Rules that start one another until none may: tried with every state of switches, buttons and numbers. */
function chasing(project: Project, behaviour: Behaviour): Finding[] {
  const program = programOf(project, behaviour);
  for (const values of statesOf(behaviour)) {
    const track = [{ at: 0, set: values.set }, ...values.down.map((press) => ({ at: 0, press }))];
    const { rows } = accountOf(program, track, { until: 0 });
    const last = rows.at(-1);
    const started = rows.filter(({ rule }) => rule !== null).map(({ rule }) => rule as string);
    if (last?.rule === null && started.length > 1)
      return [
        finding(behaviour, started.at(-1) ?? null, {
          code: "rules-chase",
          severity: "warning",
          message: t("{started} restart each other at the same instant, so nothing shows.", { started: started.join(", ") }),
        }),
      ];
  }
  return [];
}

function statesOf({ inputs, rules }: Behaviour): { set: Record<string, boolean | number>; down: string[] }[] {
  let states: { set: Record<string, boolean | number>; down: string[] }[] = [{ set: {}, down: [] }];
  for (const { name, kind } of inputs) {
    if (states.length > MOST_TRIED / 2) break;
    if (kind === "button") states = states.flatMap((each) => [each, { ...each, down: [...each.down, name] }]);
    else if (kind === "switch")
      states = states.flatMap((each) => [false, true].map((on) => ({ ...each, set: { ...each.set, [name]: on } })));
    else {
      const edges = rules.flatMap(({ when }) =>
        when.flatMap((each) => ("input" in each && each.input === name && !("is" in each) ? [each.above, each.below] : [])),
      );
      const known = [...new Set(edges.filter((each) => each !== undefined))].sort((a, b) => a - b).slice(0, 3);
      const between =
        known.length === 0
          ? [0]
          : [
              (known[0] as number) - 1,
              ...known.map((each, k) => (k + 1 < known.length ? (each + (known[k + 1] as number)) / 2 : each + 1)),
            ];
      states = states.flatMap((each) => between.map((value) => ({ ...each, set: { ...each.set, [name]: value } })));
    }
  }
  return states.slice(0, MOST_TRIED);
}

function unasked(project: Project, behaviour: Behaviour): Finding[] {
  const asked = new Set(behaviour.rules.flatMap(({ when }) => when.flatMap((each) => ("showing" in each ? [] : [each.input]))));
  return behaviour.inputs.flatMap(({ name }) =>
    asked.has(name)
      ? []
      : [
          finding(behaviour, null, {
            code: "input-unasked",
            severity: "note",
            message: t("No rule uses {name}.", { name }),
            ...(project.drives?.some((drive) => drive.behaviour === behaviour.name)
              ? {}
              : { mend: { label: t("Remove the input"), apply: (current: Project) => removeInput(current, behaviour.name, name) } }),
          }),
        ],
  );
}

/** On a stage seen from above a figure can face every way; from the side, both. */
function missingFacings(project: Project, behaviour: Behaviour): Finding[] {
  const views = new Set((project.stages ?? []).filter((stage) => stage.behaviour === behaviour.name).map(({ view }) => view));
  const needed = views.has("above") ? FACINGS_OF[4] : views.has("side") ? FACINGS_OF[2] : [];
  return behaviour.rules.flatMap((rule): Finding[] => {
    const action = rule.off ? undefined : project.actions.find(({ name }) => (name as string) === rule.play);
    // One that only looks at the viewer is not meant to turn.
    if (!action || action.ways === 1) return [];
    const present = facingsPresent(action);
    const lacking = needed.filter((each) => !present.includes(each));
    if (lacking.length === 0) return [];
    return [
      finding(behaviour, rule.name, {
        code: "facing-needed",
        severity: "note",
        message: t("The stage can turn it to {lacking}, and {play} has no such facing.", { lacking: lacking.join(", "), play: rule.play }),
      }),
    ];
  });
}
