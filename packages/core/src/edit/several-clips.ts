/** Edits several clips at once, as one undo step: speed, playback, names, order, removal. */
import {
  CaravanError,
  type Clip,
  type ClipName,
  checkedDuration,
  checkedName,
  clipNamed,
  counted,
  type Micros,
  type Project,
} from "../model";
import { withClipsBecome } from "../references";
import { t } from "../words";
import { type ClipRulesChange, removeClip, setClipRules, withSteps } from "./clips";
import { clipsInWords } from "./clips-in-words";
import { edit } from "./edit";
import { stepWithEvents } from "./events";
import { setClipFps } from "./times";

/** Plays each at a mean speed in steps a second; clips without steps stay. Throws `bad-number` or `bad-duration`; then none has changed. */
export const setFpsOfClips = edit(
  (_project, names: readonly ClipName[], fps: number) => t("play {clips} at {fps} fps", { clips: clipsInWords(names), fps }),
  (project, names, fps) => names.reduce((next: Project, name) => setClipFps(next, name, fps), project),
);

/** Sets how each continues after its last step. */
export const setRulesOfClips = edit(
  (_project, names: readonly ClipName[], _change: ClipRulesChange) => t("change how {clips} play", { clips: clipsInWords(names) }),
  (project, names, change) => names.reduce((next: Project, name) => setClipRules(next, name, change), project),
);

/**
 * Names clips by a pattern: `{name}` is a clip's own name, `{n}` its number among them, counting from `first`. Actions and deliveries
 * follow. Throws `bad-name` or `name-taken`; then no name has changed.
 */
export const renameClips = edit(
  (_project, names: readonly ClipName[], pattern: string, _first: number) =>
    t("rename {clips} to {pattern}", { clips: clipsInWords(names), pattern }),
  (project, names, pattern, first) => {
    const wanted = new Set(names);
    const chosen = project.clips.filter(({ name }) => wanted.has(name));
    const next = new Map(
      chosen.map(({ name }, k) => {
        const text = pattern.replace(/\{(name|n)\}/g, (_, part: string) => (part === "name" ? name : String(first + k)));
        return [name, checkedName(text, t("clip name")) as ClipName] as const;
      }),
    );
    const taken = new Set<string>(project.clips.flatMap(({ name }) => (wanted.has(name) ? [] : [name])));
    for (const name of next.values()) {
      if (taken.has(name))
        throw new CaravanError(
          "name-taken",
          t('clip "{name}"', { name }),
          t("Two clips would have this name."),
          t("Let the pattern hold {name} or {n}.", { name: "{name}", n: "{n}" }),
        );
      taken.add(name);
    }
    if ([...next].every(([from, to]) => from === to)) return project;
    const clips = project.clips.map((clip): Clip => ({ ...clip, name: next.get(clip.name) ?? clip.name }));
    return withClipsBecome({ ...project, clips }, new Map([...next].map(([from, to]) => [from, [to]])));
  },
);

/** Moves clips up (-1) or down (1) in the list by one place, keeping their order; at the end of the list they stay. */
export const moveClips = edit(
  (_project, names: readonly ClipName[], by: -1 | 1) =>
    by < 0 ? t("move {clips} up", { clips: clipsInWords(names) }) : t("move {clips} down", { clips: clipsInWords(names) }),
  (project, names, by) => {
    const wanted = new Set(names);
    const clips = [...project.clips];
    const isChosen = (clip: Clip | undefined) => clip !== undefined && wanted.has(clip.name);
    const from = by < 0 ? 0 : clips.length - 1;
    for (let k = from; k >= 0 && k < clips.length; k -= by) {
      const beside = clips[k + by];
      // Those at the end already hold up the ones behind them.
      if (!isChosen(clips[k]) || beside === undefined || isChosen(beside)) continue;
      [clips[k], clips[k + by]] = [beside, clips[k] as Clip];
    }
    return clips.every((clip, k) => clip === project.clips[k]) ? project : { ...project, clips };
  },
);

/** Removes clips, also out of the actions that show them. The frames stay. */
export const removeClips = edit(
  (_project, names: readonly ClipName[]) => t("remove {clips}", { clips: clipsInWords(names) }),
  (project, names) => names.reduce((next: Project, name) => removeClip(next, name), project),
);

/**
 * Gives the steps at `indexes` these durations in turn; a list shorter than the steps begins again. Throws `bad-duration`, or `bad-call` for
 * more durations than steps.
 */
export const setDurationsInTurn = edit(
  (_project, name: ClipName, indexes: readonly number[], _durations: readonly Micros[]) =>
    t("set {steps} of {name} one by one", { steps: counted(indexes.length, "step"), name }),
  (project, name, indexes, wanted) => {
    const { steps } = clipNamed(project, name);
    if (wanted.length === 0 || wanted.length > indexes.length)
      throw new CaravanError(
        "bad-call",
        t('clip "{name}"', { name }),
        t("{durations} for {steps}.", { durations: counted(wanted.length, "duration"), steps: counted(indexes.length, "step") }),
        t("Type as many as there are steps, or fewer: they then repeat."),
      );
    const durations = wanted.map((each) => checkedDuration(each, t('clip "{name}"', { name })));
    const given = new Map(indexes.map((step, k) => [step, durations[k % durations.length] as Micros]));
    if (steps.every((step, k) => (given.get(k) ?? step.duration) === step.duration)) return project;
    return withSteps(
      project,
      name,
      steps.map((step, k) => (given.has(k) ? { ...step, duration: given.get(k) as Micros } : step)),
    );
  },
);

/**
 * Gives clips the events of another, step by step, in the place of their own. Throws `bad-call` for a clip with another number of steps, since
 * which of its steps is meant is not known then; then none has changed.
 */
export const copyEvents = edit(
  (_project, from: ClipName, names: readonly ClipName[]) => t("copy the events of {from} to {clips}", { from, clips: clipsInWords(names) }),
  (project, from, names) => {
    const { steps: model } = clipNamed(project, from);
    return names.reduce((next: Project, name) => {
      const { steps } = clipNamed(next, name);
      if (steps.length !== model.length)
        throw new CaravanError(
          "bad-call",
          t('clip "{name}"', { name }),
          t("It has {steps}, and {from} has {model}.", { steps: counted(steps.length, "step"), from, model: model.length }),
          t("Set its events by hand, or give the clips the same number of steps."),
        );
      const given = steps.map((step, k) => {
        return stepWithEvents(step, model[k]?.events ?? [], model[k]?.eventValues ?? []);
      });
      return given.every((step, k) => step === steps[k]) ? next : withSteps(next, name, given);
    }, project);
  },
);
