import {
  CaravanError,
  type Clip,
  type ClipName,
  checkedName,
  clipNamed,
  counted,
  type FrameRef,
  findFrame,
  freeName,
  PLAIN_LOOP,
  type Project,
  USUAL_STEP,
} from "../model";
import { withClipsBecome } from "../references";
import { inLanguage, t } from "../words";
import { edit } from "./edit";

/**
 * Adds a clip at the end that shows `refs` in the given order. Without a name the clip is named after its first frame's source. Throws
 * `nothing-picked`, `bad-name` or `name-taken`.
 */
export const addClip = edit<[refs: readonly FrameRef[], name?: string]>(
  (project, refs, name) => t("make {name}", { name: name?.trim() || nameForClip(project, refs) }),
  (project, refs, wanted) => {
    if (refs.length === 0)
      throw new CaravanError(
        "nothing-picked",
        t("new clip"),
        t("No frames are picked."),
        t("Pick frames on the sheet or in the tray first."),
      );
    const name = wanted === undefined ? nameForClip(project, refs) : newName(project, wanted);
    const steps = refs.map((frame) => ({ frame, duration: USUAL_STEP }));
    return { ...project, clips: [...project.clips, { name, steps, ...PLAIN_LOOP }] };
  },
);

/** The default name for a clip of these frames. */
export function nameForClip(project: Project, refs: readonly FrameRef[]): ClipName {
  const first = refs[0] ? findFrame(project, refs[0]) : null;
  return freeName(first?.source.name ?? "clip", new Set(project.clips.map((clip) => clip.name))) as ClipName;
}

/** Throws `bad-name` or `name-taken`. */
export const renameClip = edit(
  (_project, from: ClipName, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, from, to) => {
    const clip = clipNamed(project, from);
    if (to.trim() === from) return project;
    const name = newName(project, to);
    return withClipsBecome(withClip(project, from, { ...clip, name }), new Map([[from, [name]]]));
  },
);

/** A copy right after the original, under a free name. */
export const duplicateClip = edit(
  (_project, name: ClipName) => t("duplicate {name}", { name }),
  (project, name) => {
    const clip = clipNamed(project, name);
    const copy = { ...clip, name: freeName(name, new Set(project.clips.map((each) => each.name))) as ClipName };
    return { ...project, clips: project.clips.flatMap((each) => (each === clip ? [clip, copy] : [each])) };
  },
);

/** Removes a clip, also out of the actions that show it. The frames stay. */
export const removeClip = edit(
  (_project, name: ClipName) => t("remove {name}", { name }),
  (project, name) => {
    const clip = clipNamed(project, name);
    return withClipsBecome({ ...project, clips: project.clips.filter((each) => each !== clip) }, new Map([[name, []]]));
  },
);

/** What may be set of a clip's rules of playing. */
export type ClipRulesChange = Partial<Pick<Clip, "playback" | "times" | "loopFrom" | "after" | "doubleEnds">>;

const RULE_WORDS: Record<Clip["playback"], string> = { once: "once", loop: "in a loop", pingpong: "as a ping-pong" };

/** Sets how a clip continues after its last step. `loopFrom` is kept inside the clip. */
export const setClipRules = edit(
  (_project, name: ClipName, change: ClipRulesChange) =>
    change.playback
      ? t("play {name} {how}", { name, how: inLanguage(RULE_WORDS[change.playback]) })
      : t("change how {name} plays", { name }),
  (project, name, change) => {
    const clip = clipNamed(project, name);
    const next = { ...clip, ...change };
    next.loopFrom = Math.max(0, Math.min(next.loopFrom, clip.steps.length - 1));
    const same = (Object.keys(change) as (keyof ClipRulesChange)[]).every((key) => clip[key] === next[key]);
    return same ? project : withClip(project, name, next);
  },
);

/** Puts frames in before step `at`; each lasts as long as the step before it, or the usual time. */
export const insertSteps = edit(
  (_project, name: ClipName, _at: number, refs: readonly FrameRef[]) =>
    t("add {frames} to {name}", { frames: counted(refs.length, "frame"), name }),
  (project, name, at, refs) => {
    if (refs.length === 0) return project;
    const { steps } = clipNamed(project, name);
    const place = Math.max(0, Math.min(at, steps.length));
    const duration = (steps[place - 1] ?? steps[place])?.duration ?? USUAL_STEP;
    const added = refs.map((frame) => ({ frame, duration }));
    return withSteps(project, name, [...steps.slice(0, place), ...added, ...steps.slice(place)]);
  },
);

/** Removes steps by index. The frames stay in the tray. */
export const removeSteps = edit(
  (_project, name: ClipName, indexes: readonly number[]) =>
    t("drop {frames} from {name}", { frames: counted(indexes.length, "frame"), name }),
  (project, name, indexes) => {
    const gone = new Set(indexes);
    const { steps } = clipNamed(project, name);
    const kept = steps.filter((_, k) => !gone.has(k));
    return kept.length === steps.length ? project : withSteps(project, name, kept);
  },
);

/** Moves steps together, keeping their order, so that the first of them gets index `to` among the others. */
export const moveSteps = edit(
  (_project, name: ClipName, indexes: readonly number[], _to: number) =>
    t("reorder {frames} of {name}", { frames: counted(indexes.length, "frame"), name }),
  (project, name, indexes, to) => {
    const moving = new Set(indexes);
    const { steps } = clipNamed(project, name);
    const moved = steps.filter((_, k) => moving.has(k));
    const others = steps.filter((_, k) => !moving.has(k));
    const at = Math.max(0, Math.min(to, others.length));
    const next = [...others.slice(0, at), ...moved, ...others.slice(at)];
    return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
  },
);

/** Turns the order of all steps round. */
export const reverseSteps = edit(
  (_project, name: ClipName) => t("reverse {name}", { name }),
  (project, name) => withSteps(project, name, clipNamed(project, name).steps.toReversed()),
);

function newName(project: Project, wanted: string): ClipName {
  const name = checkedName(wanted, t("clip name")) as ClipName;
  if (project.clips.some((clip) => clip.name === name))
    throw new CaravanError(
      "name-taken",
      t('clip "{name}"', { name }),
      t("There is already a clip of this name."),
      t("Choose another name."),
    );
  return name;
}

export function withClip(project: Project, name: ClipName, clip: Clip): Project {
  return { ...project, clips: project.clips.map((each) => (each.name === name ? clip : each)) };
}

/** The project with other steps in a clip; its loop continues from the same step, or from the next remaining one. */
export function withSteps(project: Project, name: ClipName, steps: Clip["steps"]): Project {
  const clip = clipNamed(project, name);
  return withClip(project, name, { ...clip, steps, loopFrom: loopFromAmong(clip, steps) });
}

/** Where the loop of a clip begins among other steps of it. */
export function loopFromAmong({ steps: before, loopFrom }: Pick<Clip, "steps" | "loopFrom">, steps: Clip["steps"]): number {
  const last = Math.max(0, steps.length - 1);
  if (loopFrom === 0) return 0;
  const places = new Map(steps.map((step, k) => [step, k]));
  for (const step of before.slice(loopFrom)) {
    const place = places.get(step);
    if (place !== undefined) return place;
    // Steps that were changed in place are other objects at the same places.
    if (steps.length === before.length) return Math.min(loopFrom, last);
  }
  return last;
}
