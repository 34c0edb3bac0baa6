/** Changes the durations of several steps together. Rounding loses nothing: what one step gives up, another gets. */
import { stretched } from "../clip";
import { CaravanError, type ClipName, checkedDuration, clipNamed, counted, type Micros, type Project } from "../model";
import { t } from "../words";
import { withSteps } from "./clips";
import { edit } from "./edit";

/** Makes the steps at `indexes` longer by `by`, shorter if it is negative. Throws `bad-duration` if one would be left without time. */
export const addToSteps = edit(
  (_project, name: ClipName, indexes: readonly number[], by: Micros) =>
    by < 0
      ? t("make {steps} of {name} {by} ms shorter", { steps: counted(indexes.length, "step"), name, by: Math.abs(by) / 1000 })
      : t("make {steps} of {name} {by} ms longer", { steps: counted(indexes.length, "step"), name, by: Math.abs(by) / 1000 }),
  (project, name, indexes, by) => withDurations(project, name, indexes, (duration) => duration + by),
);

/** Multiplies the times of the steps at `indexes`. Throws `bad-duration`. */
export const scaleSteps = edit(
  (_project, name: ClipName, indexes: readonly number[], factor: number) =>
    t("scale {steps} of {name} to {factor} %", { steps: counted(indexes.length, "step"), name, factor: Math.round(factor * 1000) / 10 }),
  (project, name, indexes, factor) => withDurations(project, name, indexes, (duration) => Math.round(duration * factor)),
);

/** Makes the steps at `indexes` last `total` together, exactly, in the proportions that they have. Throws `bad-duration`. */
export const spreadOverSteps = edit(
  (_project, name: ClipName, indexes: readonly number[], total: Micros) =>
    t("make {steps} of {name} last {total} ms in total", { steps: counted(indexes.length, "step"), name, total: total / 1000 }),
  (project, name, indexes, wanted) => {
    const { steps } = clipNamed(project, name);
    const places = placesOf(steps.length, indexes);
    const total = Math.round(wanted);
    if (places.length === 0) return project;
    if (!Number.isFinite(total) || total < places.length)
      throw new CaravanError(
        "bad-duration",
        t('clip "{name}"', { name }),
        t("{steps} cannot share {total} ms.", { steps: counted(places.length, "step"), total: total / 1000 }),
        t("Each step must last 0.001 ms at least."),
      );
    const shares = stretched(
      places.map((place) => steps[place]?.duration ?? 1),
      total,
    );
    const byPlace = new Map(places.map((place, k) => [place, shares[k] as Micros]));
    return withDurations(project, name, places, (duration, place) => byPlace.get(place) ?? duration);
  },
);

/** Extends one step so that the whole clip lasts `total`; the others stay. Throws `bad-duration` if the others already take that long. */
export const holdUntil = edit(
  (_project, name: ClipName, step: number, total: Micros) =>
    t("hold step {step} until {name} lasts {total} ms", { step, name, total: total / 1000 }),
  (project, name, step, total) => {
    const { steps } = clipNamed(project, name);
    const others = steps.reduce((sum, { duration }, k) => sum + (k === step ? 0 : duration), 0);
    const rest = Math.round(total) - others;
    if (steps[step] && !(rest > 0))
      throw new CaravanError(
        "bad-duration",
        t('clip "{name}"', { name }),
        t("Its other steps last {others} ms already.", { others: others / 1000 }),
        t("Type more than {others} ms.", { others: others / 1000 }),
      );
    return withDurations(project, name, [step], () => rest);
  },
);

/**
 * Moves the border between a step and the next one: what the one gains the other loses, and the clip lasts as long as before. The border
 * of the last step is the clip's end. Neither step gets less than `least`.
 */
export const moveBorder = edit(
  (_project, name: ClipName, step: number, _by: Micros) => t("move the end of step {step} of {name}", { step, name }),
  (project, name, step, wanted) => {
    const { steps } = clipNamed(project, name);
    const [own, next] = [steps[step], steps[step + 1]];
    if (!own) return project;
    const most = next ? next.duration - SHORTEST_DRAGGED : Number.POSITIVE_INFINITY;
    const by = Math.max(Math.min(SHORTEST_DRAGGED - own.duration, 0), Math.min(Math.round(wanted), Math.max(0, most)));
    return withDurations(project, name, next ? [step, step + 1] : [step], (duration, place) => duration + (place === step ? by : -by));
  },
);

/** A border that is dragged leaves each step this long at least; typed times may be shorter. */
const SHORTEST_DRAGGED: Micros = 1000;

function placesOf(count: number, indexes: readonly number[]): number[] {
  return [...new Set(indexes)].filter((index) => index >= 0 && index < count).sort((a, b) => a - b);
}

function withDurations(
  project: Project,
  name: ClipName,
  indexes: readonly number[],
  change: (duration: Micros, place: number) => Micros,
): Project {
  const { steps } = clipNamed(project, name);
  const chosen = new Set(placesOf(steps.length, indexes));
  const next = steps.map((step, place) => {
    if (!chosen.has(place)) return step;
    const duration = checkedDuration(change(step.duration, place), t('clip "{name}"', { name }));
    return duration === step.duration ? step : { ...step, duration };
  });
  return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
}
