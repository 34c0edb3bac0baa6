/** Restores items that one side removed and the other side's work needs: they are easy to remove again, but not to recreate. */
import { type Clip, FIELD_OF_SHAPE, MARK_SHAPES, type MarkKind, type Project } from "../model";
import { type Naming, sourcesNamed } from "../references";
import { t } from "../words";
import { sourcesById, type Versions } from "./versions";

/** A restored item, and what needs it, in words. */
export interface BroughtBack {
  readonly where: string;
  readonly by: string;
}

/** The merged project with sources that are named, clips that its actions show and kinds of marks that its frames have, from whichever version has them. */
export function withNeeded(merged: Project, { base, ours, theirs }: Versions): { project: Project; back: BroughtBack[] } {
  const versions = [ours, theirs, base];
  const { project, back } = withNeededSources(merged, ours, theirs);
  const clips = [...project.clips];
  const there = new Set<string>(clips.map(({ name }) => name));
  for (const action of project.actions)
    for (const { clip: name } of Object.values(action.facings)) {
      const clip = there.has(name)
        ? undefined
        : firstOf(versions, ({ clips: own }): Clip | undefined => own.find((each) => each.name === name));
      if (!clip) continue;
      there.add(name);
      clips.push(clip);
      back.push({ where: `clips, ${name}`, by: t("the action {name}", { name: action.name }) });
    }
  const marks = [...project.marks];
  for (const shape of MARK_SHAPES) {
    const known = new Set<string>(marks.filter((kind) => kind.shape === shape).map(({ name }) => name));
    for (const source of project.sources)
      for (const frame of source.frames)
        for (const name of Object.keys(frame.marks?.[FIELD_OF_SHAPE[shape]] ?? {})) {
          const isIt = (kind: MarkKind) => kind.shape === shape && kind.name === name;
          const kind = known.has(name) ? undefined : firstOf(versions, (version) => version.marks.find(isIt));
          if (!kind) continue;
          known.add(name);
          marks.push(kind);
          back.push({ where: `marks, ${name}`, by: t("frames of {name}", { name: source.name }) });
        }
  }
  return { project: back.length === 0 ? project : { ...project, clips, marks }, back };
}

/**
 * A source that one side removed comes back if the other side's work names it in a new place: a clip of its frames, for instance. What
 * named it before on the side that removed it stays without it, as decided there.
 */
function withNeededSources(project: Project, ours: Project, theirs: Project): { project: Project; back: BroughtBack[] } {
  const sides = [ours, theirs].map((side) => ({ sources: sourcesById(side), named: new Set(sourcesNamed(side).map(key)) }));
  const sources = sourcesById(project);
  const back: BroughtBack[] = [];
  for (const naming of sourcesNamed(project)) {
    if (sources.has(naming.source)) continue;
    const having = sides.find((side) => side.sources.has(naming.source) && side.named.has(key(naming)));
    const source = having?.sources.get(naming.source);
    if (!source || sides.some((side) => side !== having && side.named.has(key(naming)))) continue;
    sources.set(source.id, source);
    back.push({ where: `sources, ${source.name}`, by: inWords(naming) });
  }
  return { project: back.length === 0 ? project : { ...project, sources: [...sources.values()] }, back };
}

function key({ source, by, name }: Naming): string {
  return JSON.stringify([source, by, name]);
}

function inWords({ by, name }: Naming): string {
  switch (by) {
    case "clip":
      return t("the clip {name}", { name });
    case "pieces":
      return t("the pieces of {name}", { name });
    case "delivery":
      return t("the delivery {name}", { name });
    case "stage":
      return t("the stage {name}", { name });
  }
}

function firstOf<Thing>(versions: readonly Project[], find: (version: Project) => Thing | undefined): Thing | undefined {
  for (const version of versions) {
    const found = find(version);
    if (found) return found;
  }
  return undefined;
}
