/** Written for tests alone, without any of the code that findings use. */
import { type FrameRef, findFrame, frameName, type Project } from "../model";

/** A reference to something that the project does not have, and the name of what refers to it. */
export interface LooseReference {
  readonly owner: string;
  readonly to: string;
}

/** Every reference of a project that does not resolve. */
export function looseReferences(project: Project): LooseReference[] {
  const { clips, actions, marks, palettes = [], parts = [], behaviours = [], stages = [], drives = [] } = project;
  const loose: LooseReference[] = [];
  const namesOf = (list: readonly { readonly name: string }[]) => new Set(list.map(({ name }) => name));
  const playable = new Set([...namesOf(clips), ...namesOf(actions)]);
  const need = (owner: string, to: string | undefined | null, there: ReadonlySet<string>, kind: string) => {
    if (to !== undefined && to !== null && !there.has(to)) loose.push({ owner, to: `${kind} ${to}` });
  };
  const isKept = (ref: FrameRef): boolean => {
    const found = findFrame(project, ref);
    return found !== null && found !== undefined && !found.frame.dropped;
  };
  for (const { name, steps } of clips)
    for (const { frame, parts: drawn = {} } of steps) {
      if (!isKept(frame)) loose.push({ owner: name, to: `frame ${frame}` });
      for (const part of Object.keys(drawn)) need(name, part, namesOf(parts), "part");
    }
  for (const source of project.sources) {
    need(source.name, source.palette, namesOf(palettes), "palette");
    for (const frame of source.frames) {
      if (frame.dropped) continue;
      for (const { of, palette } of frame.pieces ?? []) {
        // A dropped frame is still drawn as a piece.
        if (!findFrame(project, of)) loose.push({ owner: frameName(source, frame), to: `piece ${of}` });
        need(frameName(source, frame), palette, namesOf(palettes), "palette");
      }
    }
  }
  for (const { name, host, guest, at, by } of parts) {
    for (const each of [host, guest]) need(name, each, playable, "play");
    for (const each of [at, by]) need(name, each, namesOf(marks.filter(({ shape }) => shape === "point")), "point");
  }
  for (const kind of marks)
    if (kind.shape === "outline") for (const { of } of kind.trace?.steady ?? []) need(kind.name, of, playable, "play");
  for (const { name, inputs, rules } of behaviours)
    for (const rule of rules) {
      const owner = rule.name;
      need(owner, rule.play, playable, "play");
      for (const each of [...(rule.cutBy ?? []), rule.then]) need(owner, each, namesOf(rules), `rule of ${name}`);
      for (const input of Object.keys(rule.set ?? {})) need(owner, input, namesOf(inputs), "input");
      for (const condition of rule.when) {
        if ("input" in condition) need(owner, condition.input, namesOf(inputs), "input");
        else for (const shown of condition.showing) need(owner, shown, namesOf(rules), `rule of ${name}`);
      }
    }
  for (const { name, behaviour, body, effects, extras, hits, zones, keys, feeds } of stages) {
    need(name, behaviour, namesOf(behaviours), "behaviour");
    if (!behaviours.some((each) => each.name === behaviour)) continue;
    need(name, body, namesOf(marks), "mark");
    const inputs = namesOf(behaviours.find((each) => each.name === behaviour)?.inputs ?? []);
    for (const each of effects) {
      need(name, each.play, playable, "play");
      need(name, each.point, namesOf(marks), "point");
    }
    for (const { play } of extras) need(name, play, playable, "play");
    for (const { ours, theirs, input } of hits) {
      for (const each of [ours, theirs]) need(name, each, namesOf(marks), "mark");
      need(name, input, inputs, "input");
    }
    for (const { input, effect } of zones) {
      need(name, input, inputs, "input");
      need(name, effect, namesOf(effects), "effect");
    }
    for (const key of keys) if ("input" in key) need(name, key.input, inputs, "input");
    for (const each of Object.values(feeds)) need(name, each, inputs, "input");
  }
  for (const { name, behaviour, stage } of drives) {
    need(name, behaviour, namesOf(behaviours), "behaviour");
    need(name, stage, namesOf(stages), "stage");
  }
  for (const { name, choice, data } of project.deliveries) {
    if (choice.of === "clips" || choice.of === "actions")
      for (const each of choice.names) need(name, each, namesOf(choice.of === "clips" ? clips : actions), choice.of);
    if (choice.of === "frames") for (const ref of choice.frames ?? []) if (!isKept(ref)) loose.push({ owner: name, to: `frame ${ref}` });
    need(name, data.example, namesOf(project.examples), "example");
  }
  return loose;
}
