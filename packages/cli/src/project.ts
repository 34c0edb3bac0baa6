/** Opens a project in any of its forms and brings its art up to date. */
import { basename, dirname, join } from "node:path";
import { PROJECT_FILE, readBundle, readProjectFile } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { type ChangedPicture, type FrameChanges, framesChanged, type LooksTheSame, refreshSource } from "@caravan/core/edit";
import { type Look, lookOf, type Picture, type Project, pictureOf, type Source, sameRect, sourceById } from "@caravan/core/model";
import { clearGround, coverageOf, type Pixels } from "@caravan/core/raster";
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
  /** Pixels by look: decoded, and cleared where a source says so. */
  readonly pictures: ReadonlyMap<Look, Pixels>;
  /** Sources whose art changed since the document was saved and was cut again by its recipe, and what came of it. */
  readonly refreshed: readonly Refreshed[];
}

export interface Refreshed {
  readonly source: string;
  readonly changes: FrameChanges;
}

/** Pictures by hash that were decoded before, for opening the same project again and again. */
export type DecodedPictures = Map<string, Pixels>;

/** Opens a project with its pictures decoded. In folder form, art that was overwritten is cut again by its recipe. */
export function openProject(path: string, decodedBefore: DecodedPictures = new Map()): OpenProject {
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  if (folder === null) {
    const { project, pictures } = readBundle(readFile(path), path);
    const decoded = ({ sha256, file }: Picture) => {
      const pixels = decodedBefore.get(sha256) ?? pngCodec().decode(pictures.get(sha256) as Uint8Array, `${path}, ${file}`);
      decodedBefore.set(sha256, pixels);
      return pixels;
    };
    return { project, pictures: looksOf(project, decoded), refreshed: [] };
  }
  let project = openDocument(path);
  const bySha = decodedBefore;
  const refreshed: Refreshed[] = [];
  for (const source of project.sources) {
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
  return { project, pictures: looksOf(project, ({ sha256 }) => bySha.get(sha256) as Pixels), refreshed };
}

/** The art of before was overwritten, so all that can be told is on which pictures and where frames lie. */
function isSamePicture(before: Source, after: Source): LooksTheSame {
  return (old, frame) => pictureOf(before, old).sha256 === pictureOf(after, frame).sha256 && sameRect(old.rect, frame.rect);
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
