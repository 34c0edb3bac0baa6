/** Opens a project in any of its forms and brings its art up to date. */
import { existsSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { type Art, artFrom, looksOf, type SheetLook, sheetLook, singleLooks } from "@caravan/core/art";
import { PROJECT_FILE, readBundle, readProjectFile } from "@caravan/core/bundle";
import { NOTHING_SEEN, type SeenArt } from "@caravan/core/check";
import { sha256Hex } from "@caravan/core/codec";
import { type ChangedPicture, isSameArt, refreshSource, sourceWithArt } from "@caravan/core/edit";
import {
  type Compared,
  comparedByDrawings,
  type Drawings,
  type FrameChanges,
  foundAgain,
  framesChanged,
  gridInWords,
  movesInWords,
  placeOf,
  recipesFor,
  strayedFrames,
  wayOnSheet,
  withFoundPlaces,
} from "@caravan/core/frame-identity";
import { type FrameOutlines, outlinesOf } from "@caravan/core/marks";
import {
  allPictures,
  CaravanError,
  type FrameRef,
  type GridCut,
  keptRefs,
  type Picture,
  type Project,
  type Source,
  sameRect,
  sourceById,
} from "@caravan/core/model";
import { coloursIn, type UsedColour } from "@caravan/core/palette";
import { type Coverage, coverageOf, drawingsIn, findDrawings, type Ground, opaqueGround, type Pixels } from "@caravan/core/raster";
import { type Walk, walkingClip, walkKey, walkOf } from "@caravan/core/stage";
import { isFolder, readFile } from "./files";
import { pngCodec } from "./png";
import { goneFrom } from "./renamed-art";
import { calledInWords } from "./standard";

/** Facts that need pixels. */
function seenIn(project: Project, art: Art): Pick<SeenArt, "walks" | "colours" | "outlines"> {
  return { walks: walksOf(project, art), colours: coloursOf(project, art), outlines: outlinesSeen(project, art) };
}

/** Of every frame whose art is there. */
function outlinesSeen(project: Project, art: Art): SeenArt["outlines"] {
  const found = new Map<FrameRef, FrameOutlines>();
  for (const source of project.sources)
    try {
      for (const [ref, outlines] of outlinesOf(project, keptRefs(source), art)) found.set(ref, outlines);
    } catch (error) {
      if (!(error instanceof CaravanError && error.code === "missing-picture")) throw error;
    }
  return found;
}

/** Reads the document alone, from a folder, its caravan.json, or a `*.caravan` file. */
export function openDocument(path: string): Project {
  if (isFolder(path)) return readProjectFile(readFile(join(path, PROJECT_FILE)), join(path, PROJECT_FILE));
  if (basename(path) === PROJECT_FILE) return readProjectFile(readFile(path), path);
  return readBundle(readFile(path), calledInWords(path)).project;
}

export interface OpenProject {
  readonly project: Project;
  readonly art: Art;
  /** Pictures that are not there, if they may be missing, and opaque grounds. */
  readonly seen: SeenArt;
  /** Sources whose art changed since the document was saved and was cut again by its recipe, and what came of it. */
  readonly refreshed: readonly Refreshed[];
  /** Hashes of the art as the document has it. */
  readonly saved: ReadonlySet<string>;
}

export interface Refreshed {
  readonly source: string;
  readonly changes: FrameChanges;
  /** Whether the art of before was there to compare with. */
  readonly compared: boolean;
  /** Where frames went with their drawings, in words. */
  readonly moves: readonly string[];
  /** Another grid that it was cut by, because the earlier drawings are in its cells now, in words. */
  readonly grid: string | null;
  /** The sheet has another size and its earlier art is unknown: its drawings cannot be followed. */
  readonly unsure: boolean;
}

/** Pictures by hash that were decoded before, for opening the same project again and again. */
export type DecodedPictures = Map<string, Pixels>;

/**
 * Opens a project with its pictures decoded. In folder form, overwritten art is cut again by its recipe. Throws `not-found` for a missing
 * picture, unless these `mayMiss`: then they are listed in `seen`, and their sources stay as in the document.
 */
export function openProject(path: string, decodedBefore: DecodedPictures = new Map(), mayMiss = false): OpenProject {
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  if (folder === null) {
    const { project, pictures } = readBundle(readFile(path), calledInWords(path));
    for (const { sha256, file } of project.sources.flatMap(allPictures))
      if (!decodedBefore.has(sha256)) decodedBefore.set(sha256, pngCodec().decode(pictures.get(sha256) as Uint8Array, `${path}, ${file}`));
    const art = artFrom(decodedBefore, project);
    return {
      project,
      art,
      seen: { ...NOTHING_SEEN, grounds: groundsOf(project, decodedBefore), ...seenIn(project, art) },
      refreshed: [],
      saved: hashesOf(project),
    };
  }
  let project = openDocument(path);
  const saved = hashesOf(project);
  const bySha = decodedBefore;
  const refreshed: Refreshed[] = [];
  const missing = new Set<string>();
  for (const source of project.sources) {
    const gone = mayMiss ? allPictures(source).filter(({ file }) => !existsSync(join(folder, file))) : [];
    for (const { sha256 } of gone) missing.add(sha256);
    if (gone.length > 0) continue;
    const pictures = artInFolder(folder, source, bySha);
    if (isSameArt(source, pictures)) continue;
    const coverages = looksOf(sourceWithArt(project, source, pictures)).map((look) => coverageOf(pixelsOf(look, bySha)));
    const plain = refreshSource(project, source.id, pictures, coverages);
    // Drawings can be followed only if the earlier art is still known, as in `watch`.
    const onOldGrid = drawingsOf(source, sourceById(plain, source.id), bySha);
    const other = onOldGrid && otherGrid(project, source, { pictures, coverages }, onOldGrid, bySha);
    const drawings = other?.drawings ?? onOldGrid;
    const next = drawings ? refreshSource(project, source.id, pictures, coverages, drawings, other?.cut) : plain;
    const after = sourceById(next, source.id);
    const changes = framesChanged(source, after, drawings ? comparedByDrawings(drawings) : isSamePicture(source, after));
    refreshed.push({
      source: source.name,
      changes,
      compared: drawings !== null,
      moves: drawings && !other ? movesInWords(source, after, changes.moved, drawings) : [],
      grid: other?.words ?? null,
      unsure: !drawings && hasOtherSize(source, pictures),
    });
    project = next;
  }
  const art = artFrom(bySha, project);
  return {
    project,
    art,
    seen: { missing, grounds: groundsOf(project, bySha), ...seenIn(project, art) },
    refreshed,
    saved,
  };
}

function hashesOf({ sources }: Project): Set<string> {
  return new Set(sources.flatMap(allPictures).map(({ sha256 }) => sha256));
}

function groundsOf({ sources }: Project, bySha: DecodedPictures): Map<string, Ground> {
  const grounds = new Map<string, Ground>();
  for (const { sha256 } of sources.flatMap(allPictures)) {
    const pixels = bySha.get(sha256);
    const ground = pixels ? opaqueGround(pixels) : null;
    if (ground) grounds.set(sha256, ground);
  }
  return grounds;
}

/** The colours of all pictures as they are drawn; not of those that are missing. */
function coloursOf({ sources }: Project, art: Art): Map<string, readonly UsedColour[]> {
  const colours = new Map<string, readonly UsedColour[]>();
  for (const source of sources)
    for (const look of singleLooks(source)) {
      if (colours.has(look.key)) continue;
      try {
        const used = coloursIn([art.picture(look)]);
        if (used) colours.set(look.key, used);
      } catch (error) {
        if (!(error instanceof CaravanError && error.code === "missing-picture")) throw error;
      }
    }
  return colours;
}

/** The walks of all stages; not those on pictures that are missing. */
function walksOf(project: Project, art: Art): Map<string, Walk> {
  const walks = new Map<string, Walk>();
  for (const stage of project.stages ?? []) {
    const walking = walkingClip(project, stage);
    if (!walking || walks.has(walkKey(project, walking))) continue;
    try {
      const drawn = walking.placed.map(({ source, frame }) => art.drawn(source, frame));
      walks.set(walkKey(project, walking), walkOf(walking, drawn));
    } catch (error) {
      if (!(error instanceof CaravanError && error.code === "missing-picture")) throw error;
    }
  }
  return walks;
}

/** Prints of the earlier frames and of the pieces of the changed art; null if the earlier art is unknown. */
function drawingsOf(before: Source, after: Source, bySha: DecodedPictures): Drawings | null {
  if (!allPictures(before).every(({ sha256 }) => bySha.has(sha256))) return null;
  const found = (source: Source, nameOf: (frame: Source["frames"][number]) => string) => {
    const byPicture = source.pictures.map((_, k) => {
      const frames = source.frames.filter((frame) => (frame.picture ?? 0) === k);
      const drawn = drawingsIn(
        pixelsOf(sheetLook(source, k), bySha),
        frames.map(({ rect }) => rect),
      );
      return frames.flatMap((frame, n) => (drawn[n] ? [[nameOf(frame), drawn[n]] as const] : []));
    });
    return new Map(byPicture.flat());
  };
  const drawings = { before: found(before, ({ key }) => key), after: found(after, placeOf) };
  const strayed = strayedFrames(before, drawings);
  const places = before.pictures.flatMap((_, k) => {
    const frames = strayed.filter((frame) => (frame.picture ?? 0) === k);
    if (frames.length === 0 || !after.pictures[k]) return [];
    const found = findDrawings(
      pixelsOf(sheetLook(before, k), bySha),
      frames.map(({ rect }) => rect),
      pixelsOf(sheetLook(after, k), bySha),
    );
    return frames.map((frame, n) => [frame, found[n] ?? []] as const);
  });
  const placesOf = new Map(places);
  return withFoundPlaces(
    drawings,
    strayed,
    strayed.map((frame) => placesOf.get(frame) ?? []),
  );
}

/** The fraction of earlier drawings that must be in the cells of another grid, which is tried only if fewer are in those of the old one. */
const CLEARLY = 0.9;

/** The grid whose cells now contain the earlier drawings; null if that is the old one, or if unclear. */
function otherGrid(
  project: Project,
  before: Source,
  { pictures, coverages }: { readonly pictures: readonly ChangedPicture[]; readonly coverages: readonly Coverage[] },
  drawings: Drawings,
  bySha: DecodedPictures,
): { cut: GridCut; drawings: Drawings; words: string } | null {
  const olds = [...drawings.before.values()];
  const [changed, coverage] = [pictures[0], coverages[0]];
  if (!changed || !coverage || pictures.length > 1 || olds.length === 0) return null;
  if (foundAgain(olds, drawings.after.values()) >= olds.length * CLEARLY) return null;
  const places = findDrawings(
    pixelsOf(sheetLook(before, 0), bySha),
    before.frames.map(({ rect }) => rect),
    pixelsOf(sheetLook(sourceWithArt(project, before, pictures), 0), bySha),
  );
  for (const cut of recipesFor(before, { w: changed.width, h: changed.height }, coverage, wayOnSheet(before.frames, places))) {
    const after = sourceById(refreshSource(project, before.id, pictures, coverages, undefined, cut), before.id);
    const found = drawingsOf(before, after, bySha);
    const count = found ? foundAgain(olds, found.after.values()) : 0;
    if (found && count >= olds.length * CLEARLY)
      return { cut, drawings: found, words: `${gridInWords(cut, before.cut)}: ${count} of ${olds.length} drawings found there` };
  }
  return null;
}

function hasOtherSize({ pictures }: Source, changed: readonly ChangedPicture[]): boolean {
  return (
    changed.length !== pictures.length ||
    changed.some(({ width, height }, k) => width !== pictures[k]?.width || height !== pictures[k]?.height)
  );
}

/** The earlier art was overwritten, so only the pictures and positions of frames are known. */
function isSamePicture(before: Source, after: Source): Compared {
  return (old, frame) =>
    sheetLook(before, old.picture) === sheetLook(after, frame.picture) && sameRect(old.rect, frame.rect) ? "same" : "changed";
}

/** A sheet's look, from decoded pictures. */
function pixelsOf(look: SheetLook, bySha: DecodedPictures): Pixels {
  return artFrom(bySha, { sources: [] }).picture(look);
}

/** The current pictures of a source and of its layers. Throws `not-found` for a missing one. */
function artInFolder(folder: string, { pictures, layers = [] }: Source, bySha: DecodedPictures): ChangedPicture[] {
  return pictures.map((picture, k) => ({
    ...readPicture(folder, picture, bySha),
    layers: layers.map(({ name, pictures: own }) => ({
      name,
      ...readPicture(folder, own[k] as (typeof own)[number], bySha),
    })),
  }));
}

function readPicture(folder: string, picture: Picture, bySha: DecodedPictures): ChangedPicture {
  const file = join(folder, picture.file);
  if (!existsSync(file)) throw goneFrom(folder, picture);
  const bytes = readFile(file);
  const sha256 = sha256Hex(bytes);
  const pixels = bySha.get(sha256) ?? pngCodec().decode(bytes, file);
  bySha.set(sha256, pixels);
  return { sha256, width: pixels.width, height: pixels.height };
}
