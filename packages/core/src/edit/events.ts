import { type ClipName, checkedName, clipNamed, counted } from "../model";
import { withSteps } from "./clips";
import { edit } from "./edit";

/** Names the events that fire when the steps at `indexes` are entered, in this order; none takes them away. Throws `bad-name`. */
export const setStepEvents = edit(
  (_project, name: ClipName, indexes: readonly number[], events: readonly string[]) =>
    events.length === 0
      ? `take the events off ${counted(indexes.length, "step")} of ${name}`
      : `fire ${events.join(", ")} on ${counted(indexes.length, "step")} of ${name}`,
  (project, name, indexes, wanted) => {
    const events = [...new Set(wanted.map((event) => checkedName(event, "event name")))];
    const chosen = new Set(indexes);
    const { steps } = clipNamed(project, name);
    const next = steps.map((step, k) => {
      if (!chosen.has(k) || (step.events ?? []).join("\n") === events.join("\n")) return step;
      const { events: _before, ...plain } = step;
      return events.length > 0 ? { ...plain, events } : plain;
    });
    return next.every((step, k) => step === steps[k]) ? project : withSteps(project, name, next);
  },
);
