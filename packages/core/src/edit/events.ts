/** Edits the events that steps fire, and the values those carry. */
import { type ClipName, checkedName, clipNamed, counted, type DataEntry, type DataValue, type Step, sameValue } from "../model";
import { t } from "../words";
import { withSteps } from "./clips";
import { checkedEntry, withEntry } from "./data";
import { edit } from "./edit";

/**
 * Sets the events of the steps at `indexes`, in this order; an empty list removes them. Events that a step already has keep their values.
 * Throws `bad-name`.
 */
export const setStepEvents = edit(
  (_project, name: ClipName, indexes: readonly number[], events: readonly string[]) =>
    events.length === 0
      ? t("remove the events of {steps} of {name}", { steps: counted(indexes.length, "step"), name })
      : t("fire {events} on {steps} of {name}", { events: events.join(", "), steps: counted(indexes.length, "step"), name }),
  (project, name, indexes, wanted) => {
    const events = [...new Set(wanted.map((event) => checkedName(event, t("event name"))))];
    const chosen = new Set(indexes);
    const { steps } = clipNamed(project, name);
    const next = steps.map((step, k) => (chosen.has(k) ? stepWithEvents(step, events, step.eventValues ?? []) : step));
    return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
  },
);

/**
 * Sets an event's value on those of the steps at `indexes` that fire it; `undefined` removes it. Throws `bad-number` for what JSON cannot
 * express.
 */
export const setEventValue = edit(
  (_project, name: ClipName, _indexes: readonly number[], event: string, value: DataValue | undefined) =>
    value === undefined
      ? t("remove the value of {event} in {name}", { event, name })
      : t("set the value of {event} in {name}", { event, name }),
  (project, name, indexes, event, value) => {
    const entry = value === undefined ? null : checkedEntry(event, value);
    const chosen = new Set(indexes);
    const { steps } = clipNamed(project, name);
    const next = steps.map((step, k) => {
      if (!chosen.has(k) || !step.events?.includes(event)) return step;
      const values = step.eventValues ?? [];
      return stepWithEvents(step, step.events, entry ? withEntry(values, entry) : values.filter((each) => each.name !== event));
    });
    return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
  },
);

/** The step with these events and their values; the same object if it already has them. */
export function stepWithEvents(step: Step, events: readonly string[], values: readonly DataEntry[]): Step {
  const { events: before = [], eventValues: valuesBefore = [], ...plain } = step;
  const kept = values.filter(({ name }) => events.includes(name));
  const same =
    before.join("\n") === events.join("\n") &&
    kept.length === valuesBefore.length &&
    kept.every(({ name, value }, k) => name === valuesBefore[k]?.name && sameValue(value, valuesBefore[k]?.value));
  if (same) return step;
  return {
    ...plain,
    ...(events.length > 0 ? { events: [...events] } : {}),
    ...(kept.length > 0 ? { eventValues: [...kept] } : {}),
  };
}
