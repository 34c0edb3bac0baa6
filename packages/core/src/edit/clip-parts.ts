/** Edits that recombine clips: split, join, split by rows; copy, duplicate and reverse steps. */
import {
  CaravanError,
  type Clip,
  type ClipName,
  clipNamed,
  counted,
  type FrameRef,
  findFrame,
  freeName,
  type Project,
  type Step,
} from "../model";
import { withClipsBecome } from "../references";
import { t } from "../words";
import { withClip, withSteps } from "./clips";
import { edit } from "./edit";

/** Puts copies of steps in before step `at`, with their times and events. */
export const pasteSteps = edit(
  (_project, name: ClipName, _at: number, steps: readonly Step[]) =>
    t("paste {steps} into {name}", { steps: counted(steps.length, "step"), name }),
  (project, name, at, copied) => {
    if (copied.length === 0) return project;
    const { steps } = clipNamed(project, name);
    const place = Math.max(0, Math.min(at, steps.length));
    // Copies, so that a step pasted beside itself is distinct from it.
    return withSteps(project, name, [...steps.slice(0, place), ...copied.map((step) => ({ ...step })), ...steps.slice(place)]);
  },
);

/** Copies the steps at `indexes`, in their order, to right after the last of them. */
export const duplicateSteps = edit(
  (_project, name: ClipName, indexes: readonly number[]) =>
    t("duplicate {steps} of {name}", { steps: counted(indexes.length, "step"), name }),
  (project, name, indexes) => {
    const { steps } = clipNamed(project, name);
    const chosen = steps.filter((_, k) => indexes.includes(k));
    return pasteSteps(project, name, Math.max(...indexes) + 1, chosen);
  },
);

/** Turns the order of the steps at `indexes` round, at the places that they have. */
export const reverseSomeSteps = edit(
  (_project, name: ClipName, indexes: readonly number[]) =>
    t("reverse {steps} of {name}", { steps: counted(indexes.length, "step"), name }),
  (project, name, indexes) => {
    const { steps } = clipNamed(project, name);
    const places = [...new Set(indexes)].filter((k) => k < steps.length).sort((a, b) => a - b);
    const turned = new Map(places.map((place, k) => [place, steps[places[places.length - 1 - k] as number] as Step]));
    const next = steps.map((step, k) => turned.get(k) ?? step);
    return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
  },
);

/**
 * Splits a clip before each of the steps at `places` into consecutive clips: the first keeps its name, the others get free ones. Each plays
 * as the whole did; the part in which the loop began continues from that step. Throws `bad-call` if there is nothing to split at.
 */
export const splitClip = edit(
  (_project, name: ClipName, places: readonly number[]) => t("split {name} into {count}", { name, count: places.length + 1 }),
  (project, name, places) => {
    const clip = clipNamed(project, name);
    const cuts = [...new Set(places)].filter((place) => place > 0 && place < clip.steps.length).sort((a, b) => a - b);
    if (cuts.length === 0)
      throw new CaravanError(
        "bad-call",
        t('clip "{name}"', { name }),
        t("There is no step after which to split it."),
        t("Choose a step after the first."),
      );
    const parts = [0, ...cuts].map((from, k) => clip.steps.slice(from, cuts[k] ?? clip.steps.length));
    return inPlaceOf(project, clip, parts);
  },
);

/** The clip's parts in its place in the list, under names that are free. */
function inPlaceOf(project: Project, clip: Clip, parts: readonly Step[][]): Project {
  const taken = new Set(project.clips.map((each) => each.name));
  const clips = parts.map((steps, k): Clip => {
    const loop = clip.steps[clip.loopFrom];
    const loopFrom = Math.max(0, loop ? steps.indexOf(loop) : 0);
    if (k === 0) return { ...clip, steps, loopFrom };
    const name = freeName(clip.name, taken) as ClipName;
    taken.add(name);
    return { ...clip, name, steps, loopFrom };
  });
  const next = { ...project, clips: project.clips.flatMap((each) => (each === clip ? clips : [each])) };
  return withClipsBecome(next, new Map([[clip.name, clips.map(({ name }) => name)]]));
}

/** Puts the steps of other clips after those of the first and removes these clips. The first keeps its name and how it plays. */
export const joinClips = edit(
  (_project, name: ClipName, others: readonly ClipName[]) => t("join {others} to {name}", { others: others.join(", "), name }),
  (project, name, others) => {
    const first = clipNamed(project, name);
    const added = others.filter((other) => other !== name).map((other) => clipNamed(project, other));
    if (added.length === 0) return project;
    const gone = new Set(added);
    const joined = withSteps(project, name, [...first.steps, ...added.flatMap(({ steps }) => steps)]);
    return withClipsBecome(
      { ...joined, clips: joined.clips.filter((each) => !gone.has(each)) },
      new Map(added.map((clip) => [clip.name, [name]])),
      "letGo",
    );
  },
);

/** The steps of a clip grouped by the row of their frames, in order of first appearance; missing frames stay with the previous ones. */
export function rowsOfClip(project: Project, clip: Clip): Step[][] {
  const rows = new Map<string, Step[]>();
  let last = "";
  for (const step of clip.steps) {
    const found = findFrame(project, step.frame);
    last = found ? `${found.source.id} ${found.frame.row}` : last;
    const row = rows.get(last);
    if (row) row.push(step);
    else rows.set(last, [step]);
  }
  return [...rows.values()];
}

/** Parts a clip into one for each row of the sheet that its frames are from. Throws `bad-call` if they are all from one row. */
export const partByRows = edit(
  (_project, name: ClipName) => t("split {name} by rows", { name }),
  (project, name) => {
    const clip = clipNamed(project, name);
    const rows = rowsOfClip(project, clip);
    if (rows.length < 2)
      throw new CaravanError("bad-call", t('clip "{name}"', { name }), t("All its frames are of one row."), t("Split it by hand instead."));
    return inPlaceOf(project, clip, rows);
  },
);

/** Removes a frame from every clip that shows it. The frame stays in the tray. */
export const removeFrameEverywhere = edit(
  (_project, ref: FrameRef) => t("remove {ref} from all clips", { ref: ref.slice(ref.indexOf("/") + 1) }),
  (project, ref) =>
    project.clips
      .filter((clip) => clip.steps.some(({ frame }) => frame === ref))
      .reduce(
        (next, { name, steps }) =>
          withSteps(
            next,
            name,
            steps.filter(({ frame }) => frame !== ref),
          ),
        project,
      ),
);

/** Makes equal neighbours one step each, which lasts as long as they did together; events of all of them stay. */
export const mergeEqualSteps = edit(
  (_project, name: ClipName) => t("merge equal neighbours of {name}", { name }),
  (project, name) => {
    const clip = clipNamed(project, name);
    const { steps } = clip;
    const merged: Step[] = [];
    let loopFrom = 0;
    for (const [k, step] of steps.entries()) {
      const before = merged.at(-1);
      // The step where the loop continues begins a step of its own, or the lead-in would repeat.
      const begins = k === clip.loopFrom && k > 0;
      if (before?.frame !== step.frame || step.events?.length || begins || JSON.stringify(before.parts) !== JSON.stringify(step.parts))
        merged.push(step);
      else merged[merged.length - 1] = { ...before, duration: before.duration + step.duration };
      if (k === clip.loopFrom) loopFrom = merged.length - 1;
    }
    return merged.length === steps.length ? project : withClip(project, name, { ...clip, steps: merged, loopFrom });
  },
);
