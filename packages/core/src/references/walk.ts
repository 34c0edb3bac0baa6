/**
 * Visits every reference by name in a document. Renaming, splitting, joining and removing go through here, so that no
 * place is forgotten. A reference to something removed becomes a finding, not a loss.
 */

import type { Action, ActionName, ClipName, Delivery, Petal, Project } from "../model";
import { withNamesBecome } from "./behaviour-names";

/** What clips have become: one other name, several where one was split, none where it was removed. Clips that are not in it stay. */
export type ClipsBecome = ReadonlyMap<ClipName, readonly ClipName[]>;

/**
 * The project with all references to clips updated. A delivery's choice follows to everything that a clip has become, and keeps a removed
 * name so that its absence is visible. Facings show what their clip has become, the first part if it was split; with `letGo` they are
 * cleared instead if that has another facing.
 */
export function withClipsBecome(project: Project, become: ClipsBecome, facings: "follow" | "letGo" = "follow"): Project {
  if (become.size === 0) return project;
  const followed = { ...project, ...clipsFollowed(project, become, facings === "letGo") };
  // A rule that plays an action means the action, whatever clips are named.
  const actions = new Set<string>(project.actions.map(({ name }) => name));
  return withNamesBecome(followed, { play: (name) => (actions.has(name) ? name : (become.get(name as ClipName)?.[0] ?? name)) });
}

function clipsFollowed({ actions, deliveries }: Project, become: ClipsBecome, letGo: boolean): Pick<Project, "actions" | "deliveries"> {
  return {
    actions: mapped(actions, (action) => {
      const facings = Object.entries(action.facings).flatMap(([facing, petal]): [string, Petal][] => {
        const names = become.get(petal.clip);
        if (!names) return [[facing, petal]];
        return names[0] === undefined || letGo ? [] : [[facing, { ...petal, clip: names[0] }]];
      });
      const same =
        facings.length === Object.keys(action.facings).length &&
        facings.every(([, petal], k) => petal === Object.values(action.facings)[k]);
      return same ? action : { ...action, facings: Object.fromEntries(facings) as Action["facings"] };
    }),
    deliveries: mapped(deliveries, (delivery) =>
      delivery.choice.of === "actions" ? delivery : choosing(delivery, (name) => become.get(name as ClipName)),
    ),
  };
}

/** The project with references to an action under its new name. */
export function withRenamedAction(project: Project, from: ActionName, to: ActionName): Project {
  const deliveries = mapped(project.deliveries, (delivery) =>
    delivery.choice.of === "clips" ? delivery : choosing(delivery, (name) => (name === from ? [to] : undefined)),
  );
  const followed = deliveries === project.deliveries ? project : { ...project, deliveries };
  return withNamesBecome(followed, { play: (name) => (name === from ? to : name) });
}

/** The delivery with the names that it chooses followed; one that has become nothing is kept. */
function choosing(delivery: Delivery, becomes: (name: string) => readonly string[] | undefined): Delivery {
  const { names } = delivery.choice;
  const next = [
    ...new Set(
      names.flatMap((name) => {
        const others = becomes(name);
        return others && others.length > 0 ? others : [name];
      }),
    ),
  ];
  return next.length === names.length && next.every((name, k) => name === names[k])
    ? delivery
    : { ...delivery, choice: { ...delivery.choice, names: next } };
}

/** Like `map`, but returns the same list if nothing changed. */
function mapped<Each>(list: Each[], change: (each: Each) => Each): Each[] {
  const next = list.map(change);
  return next.every((each, k) => each === list[k]) ? list : next;
}

/** Names that deliveries choose and that are not there, by the index of the delivery. */
export function chosenAndGone({ clips, actions, deliveries }: Project): { delivery: number; names: string[] }[] {
  return deliveries.flatMap(({ choice: { of, names } }, delivery) => {
    if (of === "all" || of === "frames") return [];
    const there = new Set<string>((of === "clips" ? clips : actions).map(({ name }) => name));
    const gone = names.filter((name) => !there.has(name));
    return gone.length > 0 ? [{ delivery, names: gone }] : [];
  });
}
