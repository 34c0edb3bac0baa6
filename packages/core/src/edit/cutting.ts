/** Cuts sources by any recipe, and cuts them again when their art has changed. */
import { type CutPieces, cutInWords, cutSheet, type FindingCut, type Grid, gridOf, type Piece, pitchOf, traitsOf } from "../cut";
import type { NewFrame } from "../frame-identity";
import { BY_OUTLINE, type Drawings, followDrawings, followPlaces, identified, onPicture, withIdentity } from "../frame-identity";
import { withAnchoredFrames } from "../marks";
import {
  allPictures,
  CaravanError,
  type Clearing,
  type Cut,
  type Frame,
  type FramePoint,
  frameSize,
  type GridCut,
  isNumberedByFiles,
  type Picture,
  type Project,
  refuseTooMany,
  type Size,
  type Source,
  type SourceId,
  sheetOf,
  sourceById,
} from "../model";
import { type Coverage, isClear } from "../raster";
import { t } from "../words";
import { hasOtherTimes, withAnimationFollowed } from "./animation-times";
import { type ChangedPicture, isSameArt, type NewArt, withChangedArt } from "./changed-art";
import { artOf, type EarlierCuts, framesToFind, NO_EARLIER_CUTS } from "./earlier-cuts";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { asBefore } from "./restore-cut";
import { withCut } from "./with-cut";
import { withSource } from "./with-source";

/**
 * Cuts a source by a recipe that finds frames by itself. Frames that show the same drawing keep what was decided about them: name, origin,
 * marks, dropped. Clips keep their steps, including those of frames that are gone. `coverage` is that of the sheet, with its clearing, or
 * what a worker has already found in it by this recipe. What `earlier` cuts had lost and this one finds returns with what was decided about it.
 * Throws what `gridOf` throws.
 */
export const cutSource = edit(
  (project, id: SourceId, cut: Cut, _coverage: Coverage | CutPieces, _earlier: EarlierCuts = NO_EARLIER_CUTS) =>
    t("cut {name} {how}", { name: sourceById(project, id).name, how: cutInWords(cut) }),
  (project, id, cut, coverage, { lost, before, isDecided } = NO_EARLIER_CUTS) => {
    const now = sourceById(project, id);
    if (before && sameCut(before.cut, cut) && artOf(before) === artOf(now) && !sameCut(now.cut, cut))
      return asBefore(project, now, before, isDecided);
    const source = asShown(project, now, cut);
    const cutAnew = finding(framesToFind(project, source, lost), source, (identify) => framesOfCut(source, cut, coverage, identify));
    if (sameCut(source.cut, cut) && sameFrames(source.frames, cutAnew.frames)) return project;
    return withCut(project, { ...cutAnew, cut });
  },
);

/** Clears a source's opaque ground, or leaves it; then cuts again by the recipe. `coverages` are those of its pictures afterwards, `earlier` as in `cutSource`. */
export const setClearing = edit(
  (project, id: SourceId, clearing: Clearing | null, _coverages: readonly Coverage[], _earlier: EarlierCuts = NO_EARLIER_CUTS) =>
    clearing
      ? t("clear the background of {name}", { name: sourceById(project, id).name })
      : t("restore the background of {name}", { name: sourceById(project, id).name }),
  (project, id, clearing, coverages, { lost } = NO_EARLIER_CUTS) => {
    const { clearing: before, ...source } = sourceById(project, id);
    refuseOfPieces(source);
    if (JSON.stringify(before) === JSON.stringify(clearing ?? undefined)) return project;
    const next: Source = clearing ? { ...source, clearing } : source;
    const { cut } = next;
    if (!cut) return withCut(project, next);
    return withCut(
      project,
      finding(framesToFind(project, next, lost), next, (identify) => framesAgain(next, cut, coverages, identify)),
    );
  },
);

/**
 * Replaces a source's pictures by changed art and runs its recipe again, or cuts by another `grid` if the art now has another one. A series
 * keeps its files and gains new ones; clips of an animation follow its times. With `drawings`, frames follow their drawings; without, they
 * stay at their places. Other sources of the same pictures, such as a variant in other colours, are updated too. `coverages` are of each
 * picture with its layers. Throws what `gridOf` throws, `changed-meanwhile`, `too-many-pictures`, `picture-mismatch` if a layer does not fit
 * its new picture.
 */
export const refreshSource = edit<
  [
    id: SourceId,
    pictures: readonly ChangedPicture[],
    coverages: readonly Coverage[],
    drawings?: Drawings | undefined,
    grid?: GridCut | undefined,
  ]
>(
  (project, id, pictures) => {
    const source = sourceById(project, id);
    const { name } = source;
    return isSameArt(source, pictures) ? t("use the new times of {name}", { name }) : t("use the new art of {name}", { name });
  },
  (project, id, pictures, coverages, drawings, grid) => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (pictures.length === 0) throw new CaravanError("missing-picture", source.name, t("There is no picture to use."), t("Choose one."));
    const isSame = isSameArt(source, pictures);
    if (isSame && !hasOtherTimes(source, pictures)) return project;
    const all = project.sources.filter((each) => each === source || isOfSamePictures(each, source));
    refuseTooMany(project, (pictures.length - source.pictures.length) * all.length);
    const named = withChangedArt(project, source, pictures);
    const withArt = all.reduce((made, each) => {
      if (isSame) return withSource(made, { ...each, pictures: named.pictures });
      // What was found of the drawings, and the grid that a person chose, are of these frames alone.
      const alike = each === source || isCutAlike(each, source);
      const { source: next, drawn } = alike ? refreshed(each, named, coverages, drawings, grid) : refreshed(each, named, coverages);
      return withCut(made, next, drawn);
    }, project);
    return all.reduce((made, each) => withAnimationFollowed(project, made, each.id, pictures).project, withArt);
  },
);

/** Whether new art for one is new art for the other, such as a variant in other colours. */
export function isOfSamePictures(one: Source, other: Source): boolean {
  const [these, those] = [allPictures(one), allPictures(other)];
  return (
    these.length === those.length &&
    these.every(({ sha256, file }, k) => sha256 === those[k]?.sha256 && file === those[k]?.file) &&
    JSON.stringify(one.clearing) === JSON.stringify(other.clearing)
  );
}

/** Whether the frames of both show the same drawings. */
function isCutAlike(one: Source, other: Source): boolean {
  return (
    one.frames.length === other.frames.length &&
    one.frames.every(({ key, rect }, k) => key === other.frames[k]?.key && JSON.stringify(rect) === JSON.stringify(other.frames[k]?.rect))
  );
}

/** The source with its new art and the frames of that, and by key how far the drawing itself moved within its picture, if known. */
interface Refreshed {
  readonly source: Source;
  readonly drawn?: ReadonlyMap<string, FramePoint>;
}

function refreshed(source: Source, art: NewArt, coverages: readonly Coverage[], drawings?: Drawings, grid?: GridCut): Refreshed {
  const [first] = art.pictures as [Picture];
  const cut = grid ?? cutForSize(source, first);
  const changed: Source = { ...(drawings && hasOtherCells(source, cut, first) ? standing(source) : source), cut, ...art };
  if (!changed.cut) return { source: changed };
  if (drawings && !traitsOf(changed.cut).finds) {
    const sizes = changed.pictures.map(({ width, height }) => ({ w: width, h: height }));
    const followed = followPlaces(source.frames, drawings, sizes);
    return { source: withAnchoredFrames(changed, stillFitting(followed.frames, changed), followed.drawn), drawn: followed.drawn };
  }
  const drawn = new Map<string, FramePoint>();
  const identify: Identify = (before, pieces, options) => {
    if (!drawings) return withIdentity(before, pieces, options);
    const followed = followDrawings(before, pieces, drawings);
    for (const [key, by] of followed.drawn) drawn.set(key, by);
    return withIdentity(before, pieces, { ...options, sameDrawing: (k) => followed.frames.get(k) });
  };
  return { source: withAnchoredFrames(changed, framesAgain(changed, changed.cut, coverages, identify), drawn), drawn };
}

/**
 * The source with its frames' default origin made explicit, before cells change size: it is a place in the cell, and the figures should
 * stay where they stand.
 */
function standing(source: Source): Source {
  const [first] = source.frames;
  if (source.origin || !first) return source;
  const { w, h } = frameSize(source, first);
  const alike = source.frames.every((frame) => frameSize(source, frame).w === w && frameSize(source, frame).h === h);
  return alike ? { ...source, origin: { x: w / 2, y: h } } : source;
}

/** The source before it is cut another way than into cells: figures that clips show already go on standing where they stand in their cells. */
export function asShown(project: Project, source: Source, cut: Cut): Source {
  if (!isGrid(source.cut) || traitsOf(cut).cells) return source;
  const isShown = project.clips.some(({ steps }) => steps.some(({ frame }) => frame.startsWith(`${source.id}/`)));
  return isShown ? standing(source) : source;
}

function hasOtherCells({ cut: before, name, pictures }: Source, cut: Cut | null, { width, height }: ChangedPicture): boolean {
  if (!isGrid(before) || !isGrid(cut)) return false;
  const sheet = sheetOf({ pictures });
  const [old, now] = [gridOf({ w: sheet.width, h: sheet.height }, before, name).cell, gridOf({ w: width, h: height }, cut, name).cell];
  return old.w !== now.w || old.h !== now.h;
}

function isGrid(cut: Cut | null): cut is GridCut {
  return cut?.by === "cell" || cut?.by === "count";
}

/**
 * The recipe for art of another size. Someone who counted cells and then adds a row means cells of the same size: if these fill the new
 * sheet as they filled the old one, they stay, and the counts follow.
 */
function cutForSize({ cut, name, pictures }: Source, { width, height }: ChangedPicture): Cut | null {
  const before = sheetOf({ pictures });
  if (cut?.by !== "count" || (before.width === width && before.height === height)) return cut;
  const { columns: _columns, rows: _rows, spread, ...rest } = cut;
  const old = gridOf({ w: before.width, h: before.height }, cut, name);
  const { cell, leftOver } = old;
  if (cell.w > width || cell.h > height) return cut;
  if (spread) return sharesForSize(cut, old, { w: width, h: height }, name);
  const byCell: Cut = { ...rest, by: "cell", cell };
  const grid = gridOf({ w: width, h: height }, byCell, name);
  return grid.leftOver.right === leftOver.right && grid.leftOver.bottom === leftOver.bottom ? byCell : cut;
}

/** A grid whose rest is spread, on a sheet of another size: with cells of the same shares as on the `old` one if they fill it, else as it is. */
function sharesForSize(cut: Extract<GridCut, { by: "count" }>, old: Grid, size: Size, name: string): Cut {
  const before = pitchOf(old);
  const count = (length: number, share: number) => Math.max(1, Math.round(length / share));
  const counted = {
    ...cut,
    columns: count(size.w - old.margin.x + old.gap.x, before.x),
    rows: count(size.h - old.margin.y + old.gap.y, before.y),
  };
  const after = pitchOf(gridOf(size, counted, name));
  // px that the shares differ by along a whole side
  const differs = { x: Math.abs(after.x - before.x) * counted.columns, y: Math.abs(after.y - before.y) * counted.rows };
  return differs.x < 1 && differs.y < 1 ? counted : cut;
}

/** Says which frame each piece is. */
type Identify = typeof withIdentity;

/** The source with the frames that `cut` makes, in which those of `lost` that it finds are as they were, on the pixels of the sheet. */
function finding(lost: readonly Frame[], source: Source, cut: (identify: Identify) => Frame[]): Source {
  if (lost.length === 0) return withAnchoredFrames(source, cut(withIdentity));
  const back = new Map<string, Frame>();
  const all = new Set(lost);
  const frames = cut((before, pieces, options) => {
    const made = identified(before, pieces, { ...options, lost });
    for (const old of made.olds) if (old && all.has(old)) back.set(old.key, old);
    return made.frames;
  });
  const before = [...source.frames.filter(({ key }) => !back.has(key)), ...back.values()];
  const anchored = withAnchoredFrames({ ...source, frames: before }, frames);
  return { ...anchored, frames: anchored.frames.map((frame) => (back.has(frame.key) ? standingOn(anchored.origin, frame) : frame)) };
}

/** The frame without an origin of its own where that is the common one. */
function standingOn(common: FramePoint | undefined, frame: Frame): Frame {
  if (!common || frame.origin?.x !== common.x || frame.origin.y !== common.y) return frame;
  const { origin: _own, ...others } = frame;
  return others;
}

/** Frames of pictures as they are now, by the recipe of before. */
export function framesAgain(source: Source, cut: Cut, coverages: readonly Coverage[], identify: Identify = withIdentity): Frame[] {
  for (const [k, coverage] of coverages.entries()) refuseOtherPicture(source, coverage, k);
  return cut.by === "pictures"
    ? framesOfPictures(source, coverages, identify)
    : framesOfCut(source, cut, coverages[0] as Coverage, identify);
}

/** Each picture of a series is one frame, whole. */
export function framesOfPictures(source: Source, coverages: readonly Coverage[], identify: Identify = withIdentity): Frame[] {
  const numbers = numbersOfPictures(source.pictures);
  const pieces = source.pictures.map(({ width, height }, k): NewFrame => {
    const rect = { x: 0, y: 0, w: width, h: height };
    const coverage = coverages[k];
    const empty = coverage ? isClear(coverage, rect) : false;
    return { key: `p${k}`, column: k, row: 0, number: numbers[k] as number, rect, picture: k, empty };
  });
  const sameWay = source.frames.every(({ key }) => key.startsWith("p"));
  return identify(source.frames, pieces, { sameWay, letter: "p", likeness: 1, byNumber: isNumberedByFiles(source) });
}

/** Each still's own number; one without counts on from the one before. No two are alike. */
function numbersOfPictures(pictures: readonly Picture[]): number[] {
  const own = new Set(pictures.flatMap(({ number }) => number ?? []));
  const taken = new Set<number>();
  let last = -1;
  return pictures.map(({ number }) => {
    let next = number ?? last + 1;
    while (taken.has(next) || (number === undefined && own.has(next))) next++;
    taken.add(next);
    last = next;
    return next;
  });
}

/** What was found in a picture of another size says nothing of this one: it was begun with other art, or in another project. */
function refuseOtherPicture(source: Source, { width, height }: Pick<Coverage, "width" | "height">, picture = 0): void {
  const own = source.pictures[picture];
  if (own && (own.width !== width || own.height !== height))
    throw new CaravanError(
      "changed-meanwhile",
      source.name,
      t("Its picture is {width} × {height} px; what was found is of one of {w} × {h} px.", {
        width: own.width,
        height: own.height,
        w: width,
        h: height,
      }),
      t("Its art changed meanwhile: cut it again."),
    );
}

function framesOfCut(source: Source, cut: Cut, given: Coverage | CutPieces, identify: Identify = withIdentity): Frame[] {
  refuseOfPieces(source);
  refuseOtherPicture(source, given);
  switch (cut.by) {
    case "hand":
    case "metadata":
      return stillFitting(source.frames, source);
    case "pieces":
      throw new CaravanError("bad-call", source.name, t("Only a source of pieces is put together."), t("Make one at Frames."));
    case "pictures":
      throw new CaravanError("bad-call", source.name, t("Only a series is cut into its pictures."), t("Cut the sheet another way."));
    case "outlines":
      return identify(source.frames, piecesOf(given, cut, source), BY_OUTLINE);
    default: {
      const sameWay = source.cut === null || traitsOf(source.cut).cells;
      return identify(source.frames, piecesOf(given, cut, source), { sameWay, letter: "i", likeness: 1, shows: !sameWay });
    }
  }
}

function piecesOf(given: Coverage | CutPieces, cut: FindingCut, source: Source): Piece[] {
  return "pieces" in given ? given.pieces : cutSheet(given, cut, source.name).pieces;
}

/** Frames with given rectangles stay there, if their picture still exists and is large enough. */
function stillFitting(frames: readonly Frame[], { pictures }: Source): Frame[] {
  const kept = frames.flatMap((frame) => {
    const on = pictures[frame.picture ?? 0];
    return (on && onPicture(frame, { w: on.width, h: on.height })) ?? [];
  });
  return kept.length === frames.length && kept.every((frame, k) => frame === frames[k]) ? (frames as Frame[]) : kept;
}

function sameCut(a: Cut | null, b: Cut): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

function sameFrames(a: readonly Frame[], b: readonly Frame[]): boolean {
  return a === b || (a.length === b.length && a.every((frame, k) => JSON.stringify(frame) === JSON.stringify(b[k])));
}
