/** What names and files that a delivery makes would do in a game or on a disk. */
import { freeDeliveryName, renameClip, renameFrame, setDelivery } from "../edit";
import {
  type ChosenFrames,
  chosenFrames,
  type ForeseenFile,
  foreseenFiles,
  framesNamed,
  paddedPattern,
  troubleWithPaths,
} from "../manifest";
import { CaravanError, type ClipName, type Delivery, frameRef, naturalOrder, OWN_NAMES, type Project } from "../model";
import type { Finding, Mend, Place } from "./finding";

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
    where: whereOf(project, index),
    message: "No clip or action is chosen to go out, or the chosen ones are gone.",
    place: { stop: "ship", delivery: index },
    delivery: index,
    mend: { label: "Deliver everything", apply: (current) => setDelivery(current, index, { choice: { of: "all" } }) },
  };
}

/** A pattern that tells too little: a game could not tell the frames apart. Names that are frames' own are looked at elsewhere. */
function sharedNames(project: Project, index: number, { names }: ChosenFrames): Finding[] {
  const { frameNames } = project.deliveries[index] as Delivery;
  const distinct = new Set(names).size;
  if (frameNames === OWN_NAMES || distinct === names.length) return [];
  const told = `${frameNames}-${paddedPattern("{n}", names.length)}`;
  return [
    {
      code: "same-frame-name",
      severity: "error",
      where: whereOf(project, index),
      message: `Called ${frameNames}, ${names.length} frames have only ${distinct} ${distinct === 1 ? "name" : "names"}; a game could not tell them apart.`,
      place: { stop: "ship", delivery: index },
      delivery: index,
      mend: { label: `Call them ${told}`, apply: (current) => setDelivery(current, index, { frameNames: told }) },
    },
  ];
}

interface Owned extends ForeseenFile {
  readonly delivery: number;
}

/** One finding for each clip, frame or delivery that is to blame, however many of its files are in trouble. */
function troubledFiles(project: Project, chosen: readonly (ChosenFrames | null)[]): Finding[] {
  const files = project.deliveries.flatMap((delivery, index): Owned[] => {
    const taken = chosen[index];
    if (!taken) return [];
    // Frames that share a name share their file too, which is told once.
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
          message: `The delivery "${name}" would make a file called ${trouble.path}, and not every system lets a file be called so.`,
          place: named.place,
          delivery: file.delivery,
          ...mendIf(named.called((before, isTaken) => (fitName(before) === before ? freeName(before, isTaken) : fitName(before)))),
        },
      ];
    return [
      {
        code: "same-file-name",
        severity: "error",
        where: named.where,
        message: `The delivery "${name}" would make ${trouble.path}, but ${trouble.twin === trouble.path ? "there is one already" : `some systems take it for ${trouble.twin}`}.`,
        place: named.place,
        delivery: file.delivery,
        ...mendIf(named.called((before, isTaken) => freeName(before, isTaken))),
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
      where: whereOf(project, index),
      place: { stop: "frames", frame: ref },
      // A name that a pattern made is the pattern's fault, and what is made of a source's name is the source's.
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
    where: whereOf(project, index),
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

function fitName(name: string): string {
  return name.replace(/[\\/:*?"<>|\p{Cc}]/gu, "-").replace(/[. ]+$/u, "");
}

function freeName(name: string, isTaken: (name: string) => boolean): string {
  let free = `${name} 2`;
  for (let n = 3; isTaken(free); n++) free = `${name} ${n}`;
  return free;
}

/** Numbers without leading zeros: code that looks for `walk1` by its beginning finds `walk10` as well. */
function beginnings(project: Project, index: number, { frames, names, project: taken }: ChosenFrames): Finding[] {
  const { frameNames, counting } = project.deliveries[index] as Delivery;
  if (frameNames === OWN_NAMES) return [];
  const traps = namesThatBeginOthers(names);
  const [first] = traps;
  if (!first) return [];
  const padded = paddedPattern(frameNames, highest(names));
  if (padded === frameNames || namesThatBeginOthers(framesNamed(taken, frames, padded, counting.from)).length >= traps.length) return [];
  return [
    {
      code: "frame-name-begins-another",
      severity: "note",
      where: whereOf(project, index),
      message: `The name ${first.short} begins ${first.long}${traps.length > 1 ? `, and so with ${traps.length - 1} more` : ""}. Code that looks for names by their beginning finds both.`,
      place: { stop: "ship", delivery: index },
      delivery: index,
      mend: { label: `Call them ${padded}`, apply: (current) => setDelivery(current, index, { frameNames: padded }) },
    },
  ];
}

/** Pairs of a name and the first other one that it begins. */
function namesThatBeginOthers(names: readonly string[]): { short: string; long: string }[] {
  const sorted = names.toSorted();
  return sorted
    .flatMap((short, k) => {
      const long = sorted[k + 1];
      return long !== undefined && long !== short && long.startsWith(short) ? [{ short, long }] : [];
    })
    .sort((a, b) => naturalOrder(a.short, b.short));
}

/** The largest number that stands in any of the names. */
function highest(names: readonly string[]): number {
  return names.reduce((most, name) => Math.max(most, ...(name.match(/\d{1,9}/gu) ?? []).map(Number)), 0);
}

function whereOf({ deliveries }: Project, index: number): string {
  return `delivery "${deliveries[index]?.name}"`;
}
