/** Cuts sources as a metadata file says, and gives them new art together with a new file. */
import { type NewFrame, placeOf, type Said, withIdentity } from "../frame-identity";
import { halves, scaledMarks, withAnchoredFrames } from "../marks";
import {
  CaravanError,
  type Cut,
  type Frame,
  fittedName,
  groupedBy,
  type Reading,
  type Source,
  type SourceId,
  scaleOf,
  sourceById,
} from "../model";
import { t } from "../words";
import { type ChangedPicture, withChangedArt } from "./changed-art";
import { asShown } from "./cutting";
import { type EarlierCuts, NO_EARLIER_CUTS, recipeOf } from "./earlier-cuts";
import { edit } from "./edit";
import { withMarkKinds } from "./marks-from-file";
import { refuseOfPieces } from "./of-pieces";
import { asBefore } from "./restore-cut";
import { withCut } from "./with-cut";
import { withSource } from "./with-source";

/**
 * Cuts a source into the frames described by a metadata file, and stores the reading for the next such file. `before` are the frames of the
 * same file's earlier reading: frames are then matched by name, and names and origins that nobody changed are read again. A source that was
 * read this very way before, as `earlier` cuts know, is as it was, with what was decided since.
 */
export const cutByMetadata = edit(
  (
    project,
    id: SourceId,
    _cut: Extract<Cut, { by: "metadata" }>,
    _frames: readonly NewFrame[],
    _before: readonly NewFrame[] | null = null,
    _earlier: EarlierCuts = NO_EARLIER_CUTS,
  ) => t("cut {name} as {file} says", { name: sourceById(project, id).name, file: _cut.file }),
  (project, id, cut, found, before = null, earlier = NO_EARLIER_CUTS) => {
    const now = sourceById(project, id);
    if (earlier.before && isReadAs(earlier.before, now, cut, found)) {
      const restored = asBefore(project, now, earlier.before, earlier.isDecided);
      return { ...restored, readings: withReading(project.readings, cut.reading) };
    }
    const source = asShown(project, now, cut);
    refuseOfPieces(source);
    const told = withMarkKinds(project, found);
    const frames = framesAsTold(source, told.frames, before && withMarkKinds(told.project, before).frames);
    return {
      ...withCut(told.project, { ...withAnchoredFrames(source, frames), cut }),
      readings: withReading(project.readings, cut.reading),
    };
  },
);

/** Whether a source was, on the art of now and unlike now, cut by this reading of a file that said the same about its frames. */
function isReadAs(before: Source, now: Source, cut: Cut, found: readonly NewFrame[]): boolean {
  const recipe = recipeOf({ ...now, cut });
  if (recipeOf(before) !== recipe || recipeOf(now) === recipe) return false;
  const places = new Set(before.frames.map(placeOf));
  return found.length === before.frames.length && found.every((frame) => places.has(placeOf(frame)));
}

/**
 * Gives a source changed art together with a new metadata file: frames are matched by name, wherever they are now, and what a person
 * decided about them stays, in pixels of the frame. `before` as in `cutByMetadata`. Throws `bad-call` for a series.
 */
export const refreshByMetadata = edit(
  (
    project,
    id: SourceId,
    _picture: ChangedPicture,
    _cut: Extract<Cut, { by: "metadata" }>,
    _frames: readonly NewFrame[],
    _before: readonly NewFrame[],
  ) => t("use the new art of {name}", { name: sourceById(project, id).name }),
  (project, id, picture, cut, found, before) => {
    const source = sourceById(project, id);
    if (source.pictures.length > 1)
      throw new CaravanError(
        "bad-call",
        source.name,
        t("A metadata file describes a sheet, and this is a series."),
        t("Import it as a source."),
      );
    const changed: Source = { ...source, ...withChangedArt(project, source, [picture]) };
    const told = withMarkKinds(project, found);
    const frames = framesAsTold(changed, told.frames, withMarkKinds(told.project, before).frames);
    return { ...withSource(told.project, { ...changed, cut, frames }), readings: withReading(project.readings, cut.reading) };
  },
);

/** Frames as described by a file, matched by name if `before` has its earlier description. */
function framesAsTold(source: Source, found: readonly NewFrame[], before: readonly NewFrame[] | null): Frame[] {
  const named = (frames: readonly NewFrame[]) => frames.map((frame) => inProjectPixels(frame, scaleOf(source)));
  const told = before && groupedBy(named(before), placeOf);
  // Of several records on one rectangle, the one of its name.
  const toldOf = (frame: Frame) => {
    const records = told?.get(placeOf(frame)) ?? [];
    return records.find(({ name }) => name === frame.name) ?? records[0];
  };
  return withIdentity(source.frames, named(found), {
    // Another reading of the same file may take any part of the sheet for a frame; what was cut otherwise shows the drawings that there are.
    ...{ sameWay: false, letter: "m", likeness: 1, shows: source.cut?.by !== "metadata" },
    ...(told
      ? { byName: (frame: Frame) => toldOf(frame)?.name ?? frame.name, saidBefore: (frame: Frame) => saidOf(frame, toldOf(frame)) }
      : {}),
  });
}

/** A frame as described by a file, converted for the project: files give origins and marks in pixels of the art. */
function inProjectPixels({ name, origin, marks, ...each }: NewFrame, scale: number): NewFrame {
  return {
    ...{ ...each, ...nameOf(name) },
    ...(origin ? { origin: { x: halves(origin.x * scale), y: halves(origin.y * scale) } } : {}),
    ...(marks ? { marks: scale === 1 ? marks : scaledMarks(marks, scale, halves) } : {}),
  };
}

/** Whether a frame still has the name, the origin and the marks from a file. */
function saidOf({ name, origin, marks }: Frame, told: NewFrame | undefined): Said {
  if (!told) return { name: false, origin: false, marks: false };
  return {
    name: name === told.name,
    origin: origin?.x === told.origin?.x && origin?.y === told.origin?.y,
    marks: JSON.stringify(marks) === JSON.stringify(told.marks),
  };
}

/** What the file calls it, fit to be a name; what cannot be made one is left out. */
function nameOf(name: string | undefined): { name?: string } {
  const fit = name === undefined ? null : fittedName(name);
  return fit === null ? {} : { name: fit };
}

/** The list with this reading in the place of the one of its name. */
function withReading(readings: readonly Reading[], reading: Reading): Reading[] {
  return readings.some(({ name }) => name === reading.name)
    ? readings.map((each) => (each.name === reading.name ? reading : each))
    : [...readings, reading];
}
