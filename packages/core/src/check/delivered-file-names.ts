/** Findings about names of delivered files: clashes, and names that some system refuses. */

import { type ChosenFrames, type ForeseenFile, foreseenFiles, type PathTrouble, troubleWithPaths } from "../delivery-plan";
import { freeDeliveryName, renameClip, renameFrame, renameSource, setDelivery } from "../edit";
import { type ClipName, counted, type Delivery, fitFileName, frameRef, freeName, OWN_NAMES, type Project, type Source } from "../model";
import { t } from "../words";
import { type Finding, type Mend, type Place, whereOfDelivery } from "./finding";

interface Owned extends ForeseenFile {
  readonly delivery: number;
}

/** One finding for each clip, frame, source or delivery that is to blame, however many of its files are in trouble. */
export function troubledFiles(project: Project, chosen: readonly (ChosenFrames | null)[]): Finding[] {
  const files = project.deliveries.flatMap((delivery, index): Owned[] => {
    const taken = chosen[index];
    if (!taken) return [];
    // Frames that share a name also share their file, which is reported once.
    const files = foreseenFiles(project, delivery, taken.names).map((file) => ({ ...file, delivery: index }));
    const first = new Map(taken.names.map((name, k) => [name, k]).reverse() as [string, number][]);
    return files.filter(({ of }) => !of || !("frame" in of) || first.get(taken.names[of.frame] as string) === of.frame);
  });
  const blamed = new Map<string, { trouble: PathTrouble; file: Owned; named: NamedAfter; files: number }>();
  for (const trouble of troubleWithPaths(files.map(({ path }) => path))) {
    const file = files[trouble.at] as Owned;
    const named = namedAfter(project, file, chosen[file.delivery] as ChosenFrames);
    const key = `${trouble.kind} ${file.delivery} ${named.key}`;
    const before = blamed.get(key);
    if (before) before.files++;
    else blamed.set(key, { trouble, file, named, files: 1 });
  }
  return [...blamed.values()].map(({ trouble, file, named, files }): Finding => {
    const { name } = project.deliveries[file.delivery] as Delivery;
    const others = files > 1 ? t(" The same is true of {files}.", { files: counted(files - 1, "other file") }) : "";
    const place = { where: named.where, place: named.place, delivery: file.delivery };
    if (trouble.kind === "unfit")
      return {
        code: "unfit-name",
        severity: "error",
        message: t('The delivery "{name}" would write a file named {path}, which some systems do not allow.{others}', {
          name,
          path: trouble.path,
          others,
        }),
        ...place,
        ...mendIf(
          named.called((before, isTaken) =>
            fitFileName(before) === before ? freeName(before, (each) => each === before || isTaken(each), " ") : fitFileName(before),
          ),
        ),
      };
    return {
      code: "same-file-name",
      severity: "error",
      message:
        trouble.twin === trouble.path
          ? t('The delivery "{name}" would make {path}, but there is one already.{others}', { name, path: trouble.path, others })
          : t('The delivery "{name}" would make {path}, but some systems do not distinguish it from {twin}.{others}', {
              name,
              path: trouble.path,
              twin: trouble.twin,
              others,
            }),
      ...place,
      ...mendIf(named.called((before, isTaken) => freeName(before, (each) => each === before || isTaken(each), " "))),
    };
  });
}

/** What gave a file its name. */
interface NamedAfter {
  /** Tells it from all others of its delivery. */
  readonly key: string;
  readonly where: string;
  readonly place: Place;
  /** The mend that gives it another name, if names can be given here. */
  called(next: (before: string, isTaken: (name: string) => boolean) => string): Mend | null;
}

function namedAfter(project: Project, { of, delivery: index }: Owned, { frames }: ChosenFrames): NamedAfter {
  if (of && "clip" in of) {
    const clips = new Set(project.clips.map(({ name }) => name.toLowerCase()));
    return {
      key: `clip ${of.clip}`,
      where: t('clip "{clip}"', { clip: of.clip }),
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
  if (placed && delivery.frameNames === OWN_NAMES) {
    const { source, frame } = placed;
    const ref = frameRef(source, frame);
    const own = frame.name;
    if (own === undefined) return namedAfterSource(project, source);
    return {
      key: `frame ${ref}`,
      where: whereOfDelivery(project, index),
      place: { stop: "frames", frame: ref },
      called: (next) =>
        renaming(
          own,
          next(own, () => false),
          (name) => (current) => renameFrame(current, ref, name),
        ),
    };
  }
  // A name made by a pattern is the pattern's fault; which other pattern is wanted, nobody but its author can tell.
  if (placed)
    return { key: "pattern", where: whereOfDelivery(project, index), place: { stop: "ship", delivery: index }, called: () => null };
  return {
    key: "delivery",
    where: whereOfDelivery(project, index),
    place: { stop: "ship", delivery: index },
    called: () => {
      const free = freeDeliveryName(project, delivery.name);
      return renaming(delivery.name, free, (name) => (current) => setDelivery(current, index, { name }));
    },
  };
}

/** Frames without names of their own are called after their source. */
function namedAfterSource({ sources }: Project, { id, name }: Source): NamedAfter {
  const names = new Set(sources.map((each) => each.name.toLowerCase()));
  return {
    key: `source ${id}`,
    where: t('source "{name}"', { name }),
    place: { stop: "sources", source: id },
    called: (next) =>
      renaming(
        name,
        next(name, (each) => names.has(each.toLowerCase())),
        (wanted) => (current) => renameSource(current, id, wanted),
      ),
  };
}

function renaming(before: string, name: string, apply: (name: string) => (project: Project) => Project): Mend | null {
  return name === before || name === "" ? null : { label: t("Call it {name}", { name }), apply: apply(name) };
}

function mendIf(mend: Mend | null): { mend?: Mend } {
  return mend ? { mend } : {};
}
