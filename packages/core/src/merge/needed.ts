/** Restores items that one side removed and the other side's work needs: they are easy to remove again, but not to recreate. */
import { type Clip, FIELD_OF_SHAPE, MARK_SHAPES, type MarkKind, type Project } from "../model";
import { t } from "../words";

/** A restored item, and what needs it, in words. */
export interface BroughtBack {
  readonly where: string;
  readonly by: string;
}

/** The merged project with clips that its actions show and kinds of marks that its frames have, from whichever version has them. */
export function withNeeded(project: Project, versions: readonly Project[]): { project: Project; back: BroughtBack[] } {
  const back: BroughtBack[] = [];
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

function firstOf<Thing>(versions: readonly Project[], find: (version: Project) => Thing | undefined): Thing | undefined {
  for (const version of versions) {
    const found = find(version);
    if (found) return found;
  }
  return undefined;
}
