/** Findings about names of delivered files: clashes, and names that some system refuses. */

import { type ChosenFrames, type ForeseenFile, foreseenFiles, troubleWithPaths } from "../delivery-plan";
import { freeDeliveryName, renameClip, renameFrame, setDelivery } from "../edit";
import { type ClipName, type Delivery, fitFileName, frameRef, freeName, OWN_NAMES, type Project } from "../model";
import { type Finding, type Mend, type Place, whereOfDelivery } from "./finding";

interface Owned extends ForeseenFile {
  readonly delivery: number;
}

/** One finding for each clip, frame or delivery that is to blame, however many of its files are in trouble. */
export function troubledFiles(project: Project, chosen: readonly (ChosenFrames | null)[]): Finding[] {
  const files = project.deliveries.flatMap((delivery, index): Owned[] => {
    const taken = chosen[index];
    if (!taken) return [];
    // Frames that share a name also share their file, which is reported once.
    const files = foreseenFiles(project, delivery, taken.names).map((file) => ({ ...file, delivery: index }));
    const first = new Map(taken.names.map((name, k) => [name, k]).reverse() as [string, number][]);
    return files.filter(({ of }) => !of || !("frame" in of) || first.get(taken.names[of.frame] as string) === of.frame);
  });
  const told = new Set<string>();
  return troubleWithPaths(files.map(({ path }) => path)).flatMap((trouble): Finding[] => {
    const file = files[trouble.at] as Owned;
    const blamed = `${trouble.kind} ${file.delivery} ${JSON.stringify(file.of)}`;
    if (told.has(blamed)) return [];
    told.add(blamed);
    const { name } = project.deliveries[file.delivery] as Delivery;
    const named = namedAfter(project, file, chosen[file.delivery] as ChosenFrames);
    if (trouble.kind === "unfit")
      return [
        {
          code: "unfit-name",
          severity: "error",
          where: named.where,
          message: `The delivery "${name}" would write a file named ${trouble.path}, which some systems do not allow.`,
          place: named.place,
          delivery: file.delivery,
          ...mendIf(
            named.called((before, isTaken) =>
              fitFileName(before) === before ? freeName(before, (each) => each === before || isTaken(each), " ") : fitFileName(before),
            ),
          ),
        },
      ];
    return [
      {
        code: "same-file-name",
        severity: "error",
        where: named.where,
        message: `The delivery "${name}" would make ${trouble.path}, but ${trouble.twin === trouble.path ? "there is one already" : `some systems do not distinguish it from ${trouble.twin}`}.`,
        place: named.place,
        delivery: file.delivery,
        ...mendIf(named.called((before, isTaken) => freeName(before, (each) => each === before || isTaken(each), " "))),
      },
    ];
  });
}

interface NamedAfter {
  readonly where: string;
  readonly place: Place;
  /** The mend that gives it another name, if names can be given here. */
  called(next: (before: string, isTaken: (name: string) => boolean) => string): Mend | null;
}

function namedAfter(project: Project, { of, delivery: index }: Owned, { frames }: ChosenFrames): NamedAfter {
  if (of && "clip" in of) {
    const clips = new Set(project.clips.map(({ name }) => name.toLowerCase()));
    return {
      where: `clip "${of.clip}"`,
      place: { stop: "clips", clip: of.clip },
      called: (next) =>
        renaming(
          of.clip,
          next(of.clip, (name) => clips.has(name.toLowerCase())),
          (name) => (current) => renameClip(current, of.clip as ClipName, name),
        ),
    };
  }
  const delivery = project.deliveries[index] as Delivery;
  const placed = of ? frames[of.frame] : undefined;
  if (placed) {
    const ref = frameRef(placed.source, placed.frame);
    const own = placed.frame.name;
    return {
      where: whereOfDelivery(project, index),
      place: { stop: "frames", frame: ref },
      // A name made by a pattern is the pattern's fault, and one made from a source's name is the source's.
      called: (next) =>
        own === undefined || delivery.frameNames !== OWN_NAMES
          ? null
          : renaming(
              own,
              next(own, () => false),
              (name) => (current) => renameFrame(current, ref, name),
            ),
    };
  }
  return {
    where: whereOfDelivery(project, index),
    place: { stop: "ship", delivery: index },
    called: () => {
      const free = freeDeliveryName(project, delivery.name);
      return renaming(delivery.name, free, (name) => (current) => setDelivery(current, index, { name }));
    },
  };
}

function renaming(before: string, name: string, apply: (name: string) => (project: Project) => Project): Mend | null {
  return name === before || name === "" ? null : { label: `Call it ${name}`, apply: apply(name) };
}

function mendIf(mend: Mend | null): { mend?: Mend } {
  return mend ? { mend } : {};
}
