/** Turns boxes and points of a metadata file into kinds of marks of the project. */
import type { NewFrame } from "../frame-identity";
import { FIELD_OF_SHAPE, type FrameMarks, fittedName, MARK_SHAPES, type MarkName, type MarkShape, type Project } from "../model";
import { addMarkKind } from "./mark-kinds";

/**
 * The project with a kind for each name in `frames`' marks, and the frames with their marks under those kinds' names. If the project uses a
 * name for another shape, the new kind's shape is appended to its name.
 */
export function withMarkKinds(project: Project, frames: readonly NewFrame[]): { project: Project; frames: readonly NewFrame[] } {
  if (frames.every(({ marks }) => marks === undefined)) return { project, frames };
  let next = project;
  const kinds = new Map<string, MarkName | null>();
  const kindOf = (shape: MarkShape, name: string): MarkName | null => {
    const key = `${shape} ${name}`;
    const known = kinds.get(key);
    if (known !== undefined) return known;
    const fit = fittedName(name);
    const found = fit === null ? null : freeFor(next, shape, fit);
    if (found !== null && !next.marks.some((kind) => kind.name === found)) next = addMarkKind(next, shape, found);
    kinds.set(key, found as MarkName | null);
    return found as MarkName | null;
  };
  const named = frames.map((frame): NewFrame => {
    if (!frame.marks) return frame;
    const marks: Record<string, Record<string, unknown>> = {};
    for (const shape of MARK_SHAPES) {
      const field = FIELD_OF_SHAPE[shape];
      const own = Object.entries(frame.marks[field] ?? {}).flatMap(([name, mark]) => {
        const kind = kindOf(shape, name);
        return kind === null ? [] : [[kind, mark] as const];
      });
      if (own.length > 0) marks[field] = Object.fromEntries(own);
    }
    const { marks: _told, ...rest } = frame;
    return Object.keys(marks).length > 0 ? { ...rest, marks: marks as FrameMarks } : rest;
  });
  return { project: next, frames: named };
}

/** The name for marks of a shape: its own if that is free or of this shape already. */
function freeFor(project: Project, shape: MarkShape, name: string): string {
  const isFree = (each: string) => project.marks.every((kind) => kind.name !== each || kind.shape === shape);
  if (isFree(name)) return name;
  const other = `${name} ${shape}`;
  for (let k = 2; ; k++) {
    const tried = k === 2 ? other : `${other} ${k}`;
    if (isFree(tried)) return tried;
  }
}
