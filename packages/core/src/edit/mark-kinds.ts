/** Edits the kinds of boxes and points of a project: their names, letters and line patterns. */
import { frameWithMarks, hasMark, marksWithout } from "../marks";
import {
  type BoxUse,
  CaravanError,
  checkedName,
  FIELD_OF_SHAPE,
  type FrameMarks,
  MARK_LINES,
  type MarkKind,
  type MarkName,
  type MarkShape,
  markNamed,
  type Project,
  type Trace,
} from "../model";
import { withNamesBecome } from "../references";
import { inLanguage, t } from "../words";
import { edit } from "./edit";
import { withEachFrame } from "./with-frames";

/** What outlines are traced by until a person says otherwise. */
const USUAL_TRACE: Trace = { alpha: 1, withinPx: 1, corners: 24, convex: false };

/** Adds a kind with a free letter and line pattern, as long as there are some. Throws `bad-name` or `name-taken`. */
export const addMarkKind = edit(
  (_project, shape: MarkShape, name: string) =>
    t("add {shape} named {name}", { shape: inLanguage(FIELD_OF_SHAPE[shape]), name: name.trim() }),
  (project, shape, wanted) => {
    const name = newName(project, wanted);
    const looks = { name, letter: freeLetter(project, name), line: freeLine(project) };
    const kind: MarkKind = shape === "outline" ? { ...looks, shape, trace: USUAL_TRACE } : { ...looks, shape };
    return { ...project, marks: [...project.marks, kind] };
  },
);

/** Throws `bad-name` or `name-taken`. */
export const renameMarkKind = edit(
  (_project, from: MarkName, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, from, to) => {
    const kind = markNamed(project, from);
    if (to.trim() === from) return project;
    const name = newName(project, to);
    // A letter that came from the name follows it; one that a person chose stays.
    const others = { marks: project.marks.filter((each) => each !== kind) };
    const letter = kind.letter === freeLetter(others, from) ? freeLetter(others, name) : kind.letter;
    const renamed = withNamesBecome(withKind(project, from, { ...kind, name, letter }), {
      mark: (each) => (each === from ? name : each),
    });
    return withEachFrame(renamed, (frame) =>
      frame.marks && hasMark(frame.marks, from) ? { ...frame, marks: renamedIn(frame.marks, from, name) } : frame,
    );
  },
);

/** Throws `bad-name` unless it is one letter or digit. */
export const setMarkLook = edit(
  (_project, name: MarkName, change: Partial<Pick<MarkKind, "letter" | "line">>) =>
    change.letter === undefined ? t("change the line of {name}", { name }) : t("change the letter of {name}", { name }),
  (project, name, change) => {
    const kind = markNamed(project, name);
    const next = { ...kind, ...change };
    if (!/^[\p{L}\p{N}]$/u.test(next.letter))
      throw new CaravanError("bad-name", t("letter of {name}", { name }), t("It is one letter or digit."), t("Type one, such as B."));
    return next.letter === kind.letter && next.line === kind.line ? project : withKind(project, name, next);
  },
);

/** Sets the purpose of a kind of boxes or outlines, null for any. Throws `not-found` for points. */
export const setBoxUse = edit(
  (_project, name: MarkName, use: BoxUse | null) =>
    use === null ? t("{name} is for anything", { name }) : t("{name} is for {use}", { name, use: inLanguage(use) }),
  (project, name, use) => {
    const kind = markNamed(project, name);
    if (kind.shape === "point")
      throw new CaravanError("not-found", name, t("Points have no use of their own."), t("Choose boxes or outlines."));
    if ((kind.use ?? null) === use) return project;
    const { use: _before, ...rest } = kind;
    return withKind(project, name, use ? { ...rest, use } : rest);
  },
);

/** Removes a kind with all its marks. */
export const removeMarkKind = edit(
  (_project, name: MarkName) => t("remove {name}", { name }),
  (project, name) => {
    markNamed(project, name);
    const without = { ...project, marks: project.marks.filter((each) => each.name !== name) };
    return withEachFrame(without, (frame) => (hasMark(frame.marks, name) ? frameWithMarks(frame, marksWithout(frame.marks, name)) : frame));
  },
);

function withKind(project: Project, name: MarkName, kind: MarkKind): Project {
  return { ...project, marks: project.marks.map((each) => (each.name === name ? kind : each)) };
}

function newName(project: Project, wanted: string): MarkName {
  const name = checkedName(wanted, t("mark name")) as MarkName;
  if (project.marks.some((each) => each.name === name))
    throw new CaravanError("name-taken", `"${name}"`, t("Other marks have this name."), t("Type another name."));
  return name;
}

function renamedIn({ boxes, points, outlines }: FrameMarks, from: MarkName, to: MarkName): FrameMarks {
  const rename = <Value>(record: Record<MarkName, Value>) =>
    Object.fromEntries(Object.entries(record).map(([name, value]) => [name === from ? to : name, value])) as Record<MarkName, Value>;
  return {
    ...(boxes ? { boxes: rename(boxes) } : {}),
    ...(points ? { points: rename(points) } : {}),
    ...(outlines ? { outlines: rename(outlines) } : {}),
  };
}

/** The first letter of its name that is free, otherwise any. */
function freeLetter({ marks }: Pick<Project, "marks">, name: string): string {
  const letters = [...`${name}ABCDEFGHIJKLMNOPQRSTUVWXYZ`].filter((each) => /[\p{L}\p{N}]/u.test(each));
  const upper = letters.map((each) => (each.toUpperCase().length === 1 ? each.toUpperCase() : each));
  return upper.find((each) => !marks.some(({ letter }) => letter === each)) ?? upper[0] ?? "A";
}

function freeLine({ marks }: Project): MarkKind["line"] {
  const uses = (line: MarkKind["line"]) => marks.filter((each) => each.line === line).length;
  return [...MARK_LINES].sort((a, b) => uses(a) - uses(b))[0] as MarkKind["line"];
}
