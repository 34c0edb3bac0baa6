/** Findings about all names and files that a delivery produces. */

import { type ChosenFrames, chosenFrames } from "../delivery-plan";
import { setDelivery } from "../edit";
import { CaravanError, type Delivery, keptRefs, type Project } from "../model";
import { chosenAndGone } from "../references";
import { t } from "../words";
import { troubledFiles } from "./delivered-file-names";
import { beginnings, sharedNames, unfitNames } from "./delivered-frame-names";
import { type Finding, whereOfDelivery } from "./finding";
import { attempt, guarded } from "./guarded";

/** Of every delivery: names no file can have, files called alike, frames whose names begin others. Cost: O(frames + steps) for each. */
export function deliveredNames(project: Project): Finding[] {
  const failed: Finding[] = [];
  const chosen = project.deliveries.map((delivery, index): ChosenFrames | "nothing" | "failed" => {
    const [found, trouble] = attempt(whereOfDelivery(project, index), () => chosenBy(project, delivery));
    failed.push(...trouble);
    return found === undefined ? "failed" : (found ?? "nothing");
  });
  const taken = chosen.map((each) => (typeof each === "string" ? null : each));
  const ofEach = (find: (index: number, frames: ChosenFrames) => Finding[]) =>
    taken.flatMap((frames, index) => (frames ? guarded(whereOfDelivery(project, index), () => find(index, frames)) : []));
  return [
    ...failed,
    ...chosenAndGone(project).flatMap(({ delivery, names }) =>
      chosen[delivery] === "nothing" ? [] : [chosenGone(project, delivery, names)],
    ),
    ...project.deliveries.flatMap((_, index) => (chosen[index] === "nothing" ? [] : framesGone(project, index))),
    ...chosen.flatMap((each, index) => (each === "nothing" ? [choosesNothing(project, index)] : [])),
    ...ofEach((index, { project: chosenOf }) => noClips(project, index, chosenOf)),
    ...ofEach((index, frames) => unfitNames(project, index, frames)),
    ...ofEach((index, frames) => sharedNames(project, index, frames)),
    ...guarded(t("file names"), () => troubledFiles(project, taken)),
    ...ofEach((index, frames) => beginnings(project, index, frames)),
  ];
}

/** Strips and films are made of clips. */
function noClips(project: Project, index: number, { clips }: Pick<Project, "clips">): Finding[] {
  const { kind } = project.deliveries[index] as Delivery;
  if (clips.length > 0 || (kind !== "strips" && kind !== "films")) return [];
  const other = kind === "strips" ? "grid" : "atlas";
  return [
    {
      code: "chooses-nothing",
      severity: "error",
      where: whereOfDelivery(project, index),
      message:
        kind === "strips"
          ? t("There are no clips to make strips of. Make a clip at Clips, or deliver a grid sheet.")
          : t("There are no clips to film. Make a clip at Clips, or deliver packed pages."),
      place: { stop: "ship", delivery: index },
      delivery: index,
      mend: {
        label: kind === "strips" ? t("Deliver a grid sheet") : t("Deliver packed pages"),
        apply: (current) => setDelivery(current, index, { kind: other }),
      },
    },
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

/** Reports chosen clips or actions that were removed, so that nobody finds out in the game. */
function chosenGone(project: Project, index: number, names: readonly string[]): Finding {
  const { choice } = project.deliveries[index] as Delivery;
  const gone = new Set(names);
  return {
    code: "chosen-gone",
    severity: "warning",
    where: whereOfDelivery(project, index),
    message:
      choice.of === "clips"
        ? t("It chooses {names}, but no such clip exists any more.", { names: names.join(", ") })
        : t("It chooses {names}, but no such action exists any more.", { names: names.join(", ") }),
    place: { stop: "ship", delivery: index },
    delivery: index,
    mend: {
      label: names.length === 1 ? t("Choose without it") : t("Choose without them"),
      apply: (current) => setDelivery(current, index, { choice: { names: choice.names.filter((name) => !gone.has(name)) } }),
    },
  };
}

/** Reports chosen frames that no longer exist. */
function framesGone(project: Project, index: number): Finding[] {
  const { choice } = project.deliveries[index] as Delivery;
  if (choice.of !== "frames") return [];
  const kept = new Set(project.sources.flatMap(keptRefs));
  const there = (choice.frames ?? []).filter((ref) => kept.has(ref));
  const gone = (choice.frames?.length ?? 0) - there.length;
  if (gone === 0) return [];
  return [
    {
      code: "chosen-gone",
      severity: "warning",
      where: whereOfDelivery(project, index),
      message: gone === 1 ? t("1 chosen frame no longer exists.") : t("{gone} chosen frames no longer exist.", { gone }),
      place: { stop: "ship", delivery: index },
      delivery: index,
      mend: { label: t("Keep the others"), apply: (current) => setDelivery(current, index, { choice: { frames: there } }) },
    },
  ];
}

function choosesNothing(project: Project, index: number): Finding {
  return {
    code: "chooses-nothing",
    severity: "error",
    where: whereOfDelivery(project, index),
    message: t("Nothing is chosen for delivery, or it no longer exists."),
    place: { stop: "ship", delivery: index },
    delivery: index,
    mend: { label: t("Deliver everything"), apply: (current) => setDelivery(current, index, { choice: { of: "all" } }) },
  };
}
