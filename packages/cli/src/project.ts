/** Opens a project in any of its forms and brings its art up to date. */
import { existsSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { PROJECT_FILE, readBundle, readProjectFile } from "@caravan/core/bundle";
import { NOTHING_SEEN, type SeenArt } from "@caravan/core/check";
import { sha256Hex } from "@caravan/core/codec";
import { type ChangedPicture, type Compared, type FrameChanges, framesChanged, refreshSource } from "@caravan/core/edit";
import { type Look, lookOf, type Picture, type Project, pictureOf, type Source, sameRect, sourceById } from "@caravan/core/model";
import { clearGround, coverageOf, type Ground, opaqueGround, type Pixels } from "@caravan/core/raster";
import { isFolder, readFile } from "./files";
import { pngCodec } from "./png";

/** Reads the document alone, from a folder, its caravan.json, or a `*.caravan` file. */
export function openDocument(path: string): Project {
  if (isFolder(path)) return readProjectFile(readFile(join(path, PROJECT_FILE)), join(path, PROJECT_FILE));
  if (basename(path) === PROJECT_FILE) return readProjectFile(readFile(path), path);
  return readBundle(readFile(path), path).project;
}

export interface OpenProject {
  readonly project: Project;
  /** Pixels by look: decoded, and cleared where a source says so; none at all if a picture is missing. */
  readonly pictures: ReadonlyMap<Look, Pixels>;
  /** Pictures that are not there, if they may be missing, and opaque grounds. */
  readonly seen: SeenArt;
  /** Sources whose art changed since the document was saved and was cut again by its recipe, and what came of it. */
  readonly refreshed: readonly Refreshed[];
}

export interface Refreshed {
  readonly source: string;
  readonly changes: FrameChanges;
}

/** Pictures by hash that were decoded before, for opening the same project again and again. */
export type DecodedPictures = Map<string, Pixels>;

/**
 * Opens a project with its pictures decoded. In folder form, art that was overwritten is cut again by its recipe. Throws `not-found` for
 * a missing picture, unless these `mayMiss`: then they are told in `seen`, and their sources stay as the document has them.
 */
export function openProject(path: string, decodedBefore: DecodedPictures = new Map(), mayMiss = false): OpenProject {
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  if (folder === null) {
    const { project, pictures } = readBundle(readFile(path), path);
    const decoded = ({ sha256, file }: Picture) => {
      const pixels = decodedBefore.get(sha256) ?? pngCodec().decode(pictures.get(sha256) as Uint8Array, `${path}, ${file}`);
      decodedBefore.set(sha256, pixels);
      return pixels;
    };
    const looks = looksOf(project, decoded);
    return { project, pictures: looks, seen: { ...NOTHING_SEEN, grounds: groundsOf(project, decodedBefore) }, refreshed: [] };
  }
  let project = openDocument(path);
  const bySha = decodedBefore;
  const refreshed: Refreshed[] = [];
  const missing = new Set<string>();
  for (const source of project.sources) {
    const gone = mayMiss ? source.pictures.filter(({ file }) => !existsSync(join(folder, file))) : [];
    for (const { sha256 } of gone) missing.add(sha256);
    if (gone.length > 0) continue;
    const pictures = source.pictures.map((picture) => readPicture(join(folder, picture.file), bySha));
    if (pictures.every(({ sha256 }, k) => sha256 === source.pictures[k]?.sha256)) continue;
    const coverages = pictures.map(({ sha256 }) => coverageOf(cleared(bySha.get(sha256) as Pixels, source)));
    const next = refreshSource(project, source.id, pictures, coverages);
    refreshed.push({
      source: source.name,
      changes: framesChanged(source, sourceById(next, source.id), isSamePicture(source, sourceById(next, source.id))),
    });
    project = next;
  }
  const pictures = missing.size > 0 ? new Map() : looksOf(project, ({ sha256 }) => bySha.get(sha256) as Pixels);
  return { project, pictures, seen: { missing, grounds: groundsOf(project, bySha) }, refreshed };
}

function groundsOf({ sources }: Project, bySha: DecodedPictures): Map<string, Ground> {
  const grounds = new Map<string, Ground>();
  for (const { sha256 } of sources.flatMap(({ pictures }) => pictures)) {
    const pixels = bySha.get(sha256);
    const ground = pixels ? opaqueGround(pixels) : null;
    if (ground) grounds.set(sha256, ground);
  }
  return grounds;
}

/** The art of before was overwritten, so all that can be told is on which pictures and where frames lie. */
function isSamePicture(before: Source, after: Source): Compared {
  return (old, frame) =>
    pictureOf(before, old).sha256 === pictureOf(after, frame).sha256 && sameRect(old.rect, frame.rect) ? "same" : "changed";
}

function readPicture(file: string, bySha: DecodedPictures): ChangedPicture {
  const bytes = readFile(file);
  const sha256 = sha256Hex(bytes);
  const pixels = bySha.get(sha256) ?? pngCodec().decode(bytes, file);
  bySha.set(sha256, pixels);
  return { sha256, width: pixels.width, height: pixels.height };
}

function cleared(pixels: Pixels, { clearing }: Source): Pixels {
  return clearing ? clearGround(pixels, clearing) : pixels;
}

function looksOf(project: Project, decoded: (picture: Picture) => Pixels): Map<Look, Pixels> {
  const looks = new Map<Look, Pixels>();
  for (const source of project.sources)
    for (const picture of source.pictures) {
      const look = lookOf(source, picture);
      if (!looks.has(look)) looks.set(look, cleared(decoded(picture), source));
    }
  return looks;
}
