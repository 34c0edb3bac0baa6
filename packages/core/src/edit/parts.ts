/** Edits parts, sprites attached to others: which, where, over or under, and exceptions at single steps. */
import {
  CaravanError,
  type ClipName,
  checkedName,
  clipNamed,
  counted,
  type MarkName,
  MOST_PARTS,
  type Part,
  type Project,
  partNamed,
  type Step,
  type StepPart,
} from "../model";
import { t } from "../words";
import { withSteps } from "./clips";
import { edit } from "./edit";

/**
 * Attaches a guest to a host, above existing parts. Throws `bad-name`, `name-taken`, `not-found`, `bad-call` for a host that is its own
 * guest.
 */
export const attachPart = edit(
  (_project, { guest, host }: Part) => t("attach {guest} to {host}", { guest, host }),
  (project, part): Project => {
    const parts = project.parts ?? [];
    if (parts.length >= MOST_PARTS)
      throw new CaravanError(
        "bad-count",
        t("parts"),
        t("There are {mostParts} parts, which is the limit.", { mostParts: MOST_PARTS }),
        t("Remove one first."),
      );
    const made = sound(project, { ...part, name: newName(project, part.name) });
    return { ...project, parts: [...parts, made] };
  },
);

/** Changes a part. Throws as `attachPart` does. */
export const setPart = edit(
  (_project, name: string, _change: Partial<Omit<Part, "name">>) => t("change the part {name}", { name }),
  (project, name, change) => {
    const before = partNamed(project, name);
    const next: Part = { ...before, ...change };
    if (change.by === undefined && "by" in change) delete next.by;
    if (JSON.stringify(next) === JSON.stringify(before)) return project;
    return withPart(project, before, sound(project, next));
  },
);

/** Updates its steps. Throws `bad-name` or `name-taken`. */
export const renamePart = edit(
  (_project, from: string, to: string) => t("rename the part {from} to {to}", { from, to: to.trim() }),
  (project, from, to) => {
    const part = partNamed(project, from);
    if (to.trim() === from) return project;
    const name = newName(project, to);
    return withStepParts(withPart(project, part, { ...part, name }), (each) => (each === from ? name : each));
  },
);

/** Removes it, and its exceptions at steps. */
export const removePart = edit(
  (_project, name: string) => t("remove the part {name}", { name }),
  (project, name) => {
    const part = partNamed(project, name);
    const { parts = [], ...rest } = project;
    const left = parts.filter((each) => each !== part);
    return withStepParts(left.length > 0 ? { ...rest, parts: left } : rest, (each) => (each === name ? null : each));
  },
);

/** Moves a part by a number of places in the drawing order, up if positive. */
export const movePart = edit(
  (_project, name: string, by: number) => (by > 0 ? t("move {name} up", { name }) : t("move {name} down", { name })),
  (project, name, by) => {
    const part = partNamed(project, name);
    const { parts = [] } = project;
    const from = parts.indexOf(part);
    const to = Math.min(parts.length - 1, Math.max(0, from + by));
    return to === from ? project : { ...project, parts: parts.toSpliced(from, 1).toSpliced(to, 0, part) };
  },
);

/** Sets a part's exception at steps of a clip; null removes it. Throws `not-found`. */
export const setStepPart = edit(
  (_project, clip: ClipName, steps: readonly number[], part: string, told: StepPart | null) =>
    t("{change} {part} on {steps} of {clip}", {
      change: told === null ? t("show") : told.hidden ? t("hide") : told.front ? t("bring forward") : t("put behind"),
      part,
      steps: counted(steps.length, "step"),
      clip,
    }),
  (project, name, indexes, part, told) => {
    partNamed(project, part);
    const { steps } = clipNamed(project, name);
    const chosen = new Set(indexes);
    const next = steps.map((step, k) => (chosen.has(k) ? stepWith(step, part, told) : step));
    return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
  },
);

function stepWith(step: Step, part: string, told: StepPart | null): Step {
  const { parts = {}, ...plain } = step;
  const { [part]: before, ...others } = parts;
  if (JSON.stringify(before ?? null) === JSON.stringify(told)) return step;
  const next = told === null ? others : { ...others, [part]: told };
  return Object.keys(next).length > 0 ? { ...plain, parts: next } : plain;
}

function withPart(project: Project, before: Part, part: Part): Project {
  return { ...project, parts: (project.parts ?? []).map((each) => (each === before ? part : each)) };
}

/** The project with what steps say of parts under other names; null lets it go. */
function withStepParts(project: Project, become: (name: string) => string | null): Project {
  const clips = project.clips.map((clip) => {
    if (!clip.steps.some(({ parts }) => parts && Object.keys(parts).some((name) => become(name) !== name))) return clip;
    const steps = clip.steps.map((step): Step => {
      const { parts, ...plain } = step;
      if (!parts) return step;
      const next = Object.entries(parts).flatMap(([name, told]) => {
        const now = become(name);
        return now === null ? [] : [[now, told] as const];
      });
      return next.length > 0 ? { ...plain, parts: Object.fromEntries(next) } : plain;
    });
    return { ...clip, steps };
  });
  return clips.every((clip, k) => clip === project.clips[k]) ? project : { ...project, clips };
}

/** The part, if everything that it names exists. */
function sound(project: Project, part: Part): Part {
  const { host, guest, at, by } = part;
  const where = t('part "{name}"', { name: part.name });
  for (const play of [host, guest])
    if (![...project.actions, ...project.clips].some(({ name }) => name === play))
      throw new CaravanError("not-found", where, t('There is no action or clip "{play}".', { play }), t("Choose an existing one."));
  for (const point of [at, ...(by === undefined ? [] : [by])])
    if (!isPoint(project, point))
      throw new CaravanError("not-found", where, t('There is no kind of points "{point}".', { point }), t("Make one at Marks first."));
  if (host === guest) throw new CaravanError("bad-call", where, t("It would be attached to itself."), t("Choose another guest."));
  return part;
}

function isPoint({ marks }: Project, name: MarkName): boolean {
  return marks.some((kind) => kind.shape === "point" && kind.name === name);
}

function newName({ parts = [] }: Project, wanted: string): string {
  const name = checkedName(wanted, t("part name"));
  if (parts.some((each) => each.name === name))
    throw new CaravanError(
      "name-taken",
      t('part "{name}"', { name }),
      t("There is already a part of this name."),
      t("Choose another name."),
    );
  return name;
}
