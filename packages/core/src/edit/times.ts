import { evenShares, stretched } from "../clip";
import { CaravanError, type ClipName, checkedDuration, clipNamed, counted, LONGEST_STEP, type Micros, type Project } from "../model";
import { t } from "../words";
import { withSteps } from "./clips";
import { edit } from "./edit";

/** Sets one duration for each of the steps at `indexes`. Throws `bad-duration`. */
export const setStepDurations = edit(
  (_project, name: ClipName, indexes: readonly number[], duration: Micros) =>
    t("set {steps} of {name} to {duration} ms", { steps: counted(indexes.length, "step"), name, duration: duration / 1000 }),
  (project, name, indexes, wanted) => {
    const duration = checkedDuration(wanted, t('clip "{name}"', { name }));
    const chosen = new Set(indexes);
    const { steps } = clipNamed(project, name);
    if (steps.every((step, k) => !chosen.has(k) || step.duration === duration)) return project;
    return withSteps(
      project,
      name,
      steps.map((step, k) => (chosen.has(k) ? { ...step, duration } : step)),
    );
  },
);

/**
 * Stretches a clip to last `total` in all. Steps keep their proportions and sum to `total` exactly; equal steps stay equal
 * to within 1 µs. Throws `bad-duration` if some step would get no time or more than an hour.
 */
export const setClipTotal = edit(
  (_project, name: ClipName, total: Micros) => t("make {name} {total} ms long", { name, total: Math.round(total) / 1000 }),
  (project, name, total) => stretch(project, name, total, stretched),
);

/** Plays a clip at a mean speed in steps a second. Throws `bad-duration`. */
export const setClipFps = edit(
  (_project, name: ClipName, fps: number) => t("play {name} at {fps} fps", { name, fps }),
  (project, name, fps) => {
    if (!(fps > 0))
      throw new CaravanError("bad-number", t('clip "{name}"', { name }), t("A speed must be above 0 fps."), t("Type a number such as 8."));
    return stretch(project, name, (clipNamed(project, name).steps.length * 1_000_000) / fps, stretched);
  },
);

/** Makes all steps of a clip equally long, to within 1 µs, without changing how long it lasts. */
export const evenOut = edit(
  (_project, name: ClipName) => t("even out {name}", { name }),
  (project, name) => {
    const total = clipNamed(project, name).steps.reduce((sum, step) => sum + step.duration, 0);
    return stretch(project, name, total, (durations, all) => evenShares(all, durations.length));
  },
);

function stretch(project: Project, name: ClipName, wanted: number, share: (durations: Micros[], total: Micros) => Micros[]): Project {
  const { steps } = clipNamed(project, name);
  if (steps.length === 0) return project;
  const total = Math.round(wanted);
  if (!Number.isFinite(total) || total < steps.length || total > LONGEST_STEP * steps.length)
    throw new CaravanError(
      "bad-duration",
      t('clip "{name}"', { name }),
      t("{steps} cannot share {total} ms.", { steps: counted(steps.length, "step"), total: total / 1000 }),
      t("Each step must last from 0.001 ms to one hour."),
    );
  const durations = share(
    steps.map((step) => step.duration),
    total,
  );
  if (durations.every((duration, k) => duration === steps[k]?.duration)) return project;
  const next = steps.map((step, k) => ({ ...step, duration: checkedDuration(durations[k] as Micros, t('clip "{name}"', { name })) }));
  return withSteps(project, name, next);
}
