/** Opens a project in any of its forms and brings its art up to date. */
import { basename, dirname, join } from "node:path";
import { type Art, artFrom, singleLooks } from "@caravan/core/art";
import { PROJECT_FILE, readBundle, readProjectFile } from "@caravan/core/bundle";
import { NOTHING_SEEN, type SeenArt } from "@caravan/core/check";
import { sha256Hex } from "@caravan/core/codec";
import { type ChangedPicture, isSameArt } from "@caravan/core/edit";
import { type FrameOutlines, outlinesOf } from "@caravan/core/marks";
import { allPictures, CaravanError, type FrameRef, keptRefs, type Picture, type Project, type Source } from "@caravan/core/model";
import { coloursIn, type UsedColour } from "@caravan/core/palette";
import { type Ground, opaqueGround } from "@caravan/core/raster";
import { type Walk, walkingClip, walkKey, walkOf } from "@caravan/core/stage";
import { artPath } from "./art-path";
import { isFolder, readFile } from "./files";
import { type DecodedPictures, type Refreshed, withNewArt } from "./new-art";
import { pngCodec } from "./png";
import { goneFrom, placesOf } from "./renamed-art";
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
    const gone = mayMiss ? allPictures(source).filter(({ file }) => artPath(folder, file) === null) : [];
    for (const { sha256 } of gone) missing.add(sha256);
    if (gone.length > 0) continue;
    const pictures = artInFolder(folder, source, bySha);
    if (isSameArt(source, pictures)) continue;
    const next = withNewArt(project, source, pictures, bySha);
    project = next.project;
    refreshed.push(next.refreshed);
  }
  const art = artFrom(bySha, project);
  return {
    project,
    art,
    seen: { missing, elsewhere: placesOf(folder, missing), grounds: groundsOf(project, bySha), ...seenIn(project, art) },
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
  const file = artPath(folder, picture.file);
  if (file === null) throw goneFrom(folder, picture);
  const bytes = readFile(file);
  const sha256 = sha256Hex(bytes);
  const pixels = bySha.get(sha256) ?? pngCodec().decode(bytes, file);
  bySha.set(sha256, pixels);
  return { sha256, width: pixels.width, height: pixels.height };
}
