/** Walks every place in behaviours, parts, stages, drives and kinds of marks that refers to something by name. */
import type { Behaviour, Condition, Drive, MarkKind, MarkName, Part, Project, Rule, Stage, Track } from "../model";

/** Maps old names to new ones; unchanged names are returned as given. Inputs and rules belong to the behaviour given second. */
export interface NamesBecome {
  /** A name that is played: an action's, or else a clip's. */
  readonly play?: (name: string) => string;
  readonly mark?: (name: MarkName) => MarkName;
  readonly behaviour?: (name: Behaviour["name"]) => Behaviour["name"];
  readonly stage?: (name: Stage["name"]) => Stage["name"];
  readonly input?: (name: string, behaviour: string) => string;
  readonly rule?: (name: string, behaviour: string) => string;
}

const same = <Name extends string>(name: Name): Name => name;

/** The project with all these names updated; unchanged lists and objects stay the same. */
export function withNamesBecome(project: Project, become: NamesBecome): Project {
  const names = { play: same, mark: same, behaviour: same, stage: same, input: same, rule: same, ...become } as Required<NamesBecome>;
  const { behaviours, parts, stages, drives } = project;
  const marks = kept(project.marks, (each) => ofKind(each, names));
  const next = {
    ...(marks === project.marks ? {} : { marks }),
    ...(parts ? { parts: kept(parts, (each) => ofPart(each, names)) } : {}),
    ...(behaviours ? { behaviours: kept(behaviours, (each) => ofBehaviour(each, names)) } : {}),
    ...(stages ? { stages: kept(stages, (each) => ofStage(each, names)) } : {}),
    ...(drives ? { drives: kept(drives, (each) => ofDrive(each, names)) } : {}),
  };
  const isSame =
    marks === project.marks && next.parts === parts && next.behaviours === behaviours && next.stages === stages && next.drives === drives;
  return isSame ? project : { ...project, ...next };
}

/** What an outline is steadied over. */
function ofKind(kind: MarkKind, names: Required<NamesBecome>): MarkKind {
  if (kind.shape !== "outline" || !kind.trace?.steady) return kind;
  const steady = kind.trace.steady.map((each) => ({ ...each, of: names.play(each.of) }));
  return { ...kind, trace: { ...kind.trace, steady } };
}

function ofPart(part: Part, names: Required<NamesBecome>): Part {
  return {
    ...part,
    ...{ host: names.play(part.host), guest: names.play(part.guest), at: names.mark(part.at) },
    ...(part.by === undefined ? {} : { by: names.mark(part.by) }),
  };
}

function ofBehaviour(behaviour: Behaviour, names: Required<NamesBecome>): Behaviour {
  const input = (name: string) => names.input(name, behaviour.name);
  const rule = (name: string) => names.rule(name, behaviour.name);
  return {
    ...behaviour,
    name: names.behaviour(behaviour.name),
    inputs: behaviour.inputs.map((each) => ({ ...each, name: input(each.name) })),
    rules: behaviour.rules.map((each): Rule => {
      const { cutBy, then: next, set } = each;
      return {
        ...each,
        name: rule(each.name),
        play: names.play(each.play),
        when: each.when.map(
          (condition): Condition =>
            "showing" in condition
              ? { ...condition, showing: condition.showing.map(rule) }
              : { ...condition, input: input(condition.input) },
        ),
        ...(cutBy ? { cutBy: cutBy.map(rule) } : {}),
        ...(next === undefined ? {} : { then: rule(next) }),
        ...(set ? { set: Object.fromEntries(Object.entries(set).map(([name, value]) => [input(name), value])) } : {}),
      };
    }),
  };
}

function ofStage(stage: Stage, names: Required<NamesBecome>): Stage {
  const input = <Each extends { readonly input?: string | undefined }>(each: Each): Each =>
    each.input === undefined ? each : { ...each, input: names.input(each.input, stage.behaviour) };
  return {
    ...stage,
    name: names.stage(stage.name),
    behaviour: names.behaviour(stage.behaviour),
    body: stage.body === null ? null : names.mark(stage.body),
    feeds: Object.fromEntries(Object.entries(stage.feeds).map(([what, name]) => [what, names.input(name as string, stage.behaviour)])),
    keys: stage.keys.map((each) => ("input" in each ? { ...each, input: names.input(each.input, stage.behaviour) } : each)),
    zones: stage.zones.map(input),
    effects: stage.effects.map((each) => ({
      ...each,
      play: names.play(each.play),
      ...(each.point === undefined ? {} : { point: names.mark(each.point) }),
    })),
    extras: stage.extras.map((each) => ({ ...each, play: names.play(each.play) })),
    hits: stage.hits.map((each) => ({ ...input(each), ours: names.mark(each.ours), theirs: names.mark(each.theirs) })),
  };
}

function ofDrive(drive: Drive, names: Required<NamesBecome>): Drive {
  const input = (name: string) => names.input(name, drive.behaviour);
  return {
    ...drive,
    behaviour: names.behaviour(drive.behaviour),
    stage: names.stage(drive.stage),
    keys: drive.keys.map((each) => ("input" in each ? { ...each, input: input(each.input) } : each)),
    track: drive.track.map((entry): Track[number] => {
      if ("press" in entry) return { ...entry, press: input(entry.press) };
      if ("release" in entry) return { ...entry, release: input(entry.release) };
      if ("face" in entry) return entry;
      return { ...entry, set: Object.fromEntries(Object.entries(entry.set).map(([name, value]) => [input(name), value])) };
    }),
    account: drive.account.map((row) => ({
      ...row,
      rule: row.rule === null ? null : names.rule(row.rule, drive.behaviour),
      play: row.play === null ? null : names.play(row.play),
    })),
  };
}

/** Like `map`, but items, and the list, stay the same object if their content did not change. */
function kept<Each>(list: Each[], change: (each: Each) => Each): Each[] {
  const next = list.map((each) => {
    const changed = change(each);
    return JSON.stringify(changed) === JSON.stringify(each) ? each : changed;
  });
  return next.every((each, k) => each === list[k]) ? list : next;
}
