/** What names and files that a delivery makes would do in a game or on a disk. */
import { setDelivery } from "../edit";
import { type ChosenFrames, chosenFrames } from "../manifest";
import { CaravanError, type Delivery, type Project } from "../model";
import { troubledFiles } from "./delivered-file-names";
import { beginnings, sharedNames } from "./delivered-frame-names";
import { type Finding, whereOfDelivery } from "./finding";

/** Of every delivery: names no file can have, files called alike, frames whose names begin others. Cost: O(frames + steps) for each. */
export function deliveredNames(project: Project): Finding[] {
  const chosen = project.deliveries.map((delivery) => chosenBy(project, delivery));
  return [
    ...project.deliveries.flatMap((_, index) => (chosen[index] ? [] : [choosesNothing(project, index)])),
    ...project.deliveries.flatMap((_, index) => (chosen[index] ? sharedNames(project, index, chosen[index]) : [])),
    ...troubledFiles(project, chosen),
    ...project.deliveries.flatMap((_, index) => (chosen[index] ? beginnings(project, index, chosen[index]) : [])),
  ];
}

/** Null where nothing matches. */
function chosenBy(project: Project, delivery: Delivery): ChosenFrames | null {
  try {
    return chosenFrames(project, delivery);
  } catch (error) {
    if (error instanceof CaravanError && error.code === "nothing-picked") return null;
    throw error;
  }
}

function choosesNothing(project: Project, index: number): Finding {
  return {
    code: "chooses-nothing",
    severity: "error",
    where: whereOfDelivery(project, index),
    message: "No clip or action is chosen to go out, or the chosen ones are gone.",
    place: { stop: "ship", delivery: index },
    delivery: index,
    mend: { label: "Deliver everything", apply: (current) => setDelivery(current, index, { choice: { of: "all" } }) },
  };
}
