/** Reads files of art and metadata in the form that the studio's review uses: pictures stored as PNG by hash. */
import { readdirSync } from "node:fs";
import { basename, join } from "node:path";
import {
  type Animation,
  type AwaitedAnimation,
  lettersOfNames,
  looksLikeGif,
  looksLikeOpenRaster,
  looksLikePng,
  looksLikeWebp,
  type ReadText,
  readAnimatedWebp,
  readApng,
  readGif,
  readOpenRaster,
  readText,
  readZip,
  sha256Hex,
} from "@caravan/core/codec";
import { isPassedBy, isTextFile, type TakenArt, type TakenItem, type TakenPicture } from "@caravan/core/intake";
import { CaravanError, naturalOrder } from "@caravan/core/model";
import { opaqueGround, type Pixels, sheetCoverageOf } from "@caravan/core/raster";
import { isFolder, readFile } from "./files";
import { note } from "./output";
import { pngCodec } from "./png";
import { decodeStill } from "./stills";

export interface TakenFiles {
  readonly items: readonly TakenItem[];
  readonly texts: readonly ({ readonly path: string } & ReadText)[];
  /** Files that could not be read, in words. */
  readonly failed: readonly string[];
  /** PNG files by hash. */
  readonly pictures: Map<string, Uint8Array>;
}

const ART = /\.(png|apng|gif|jpe?g|webp|tga|ora)$/i;

/** Reads files and folders, in natural order. An unreadable path from the command line is an error; within folders it is noted. */
export async function takenFiles(paths: readonly string[]): Promise<TakenFiles> {
  const taken = { items: [] as TakenItem[], texts: [] as ({ path: string } & ReadText)[], failed: [] as string[] };
  const pictures = new Map<string, Uint8Array>();
  const files = paths.flatMap((path) => {
    if (isFolder(path))
      return filesIn(path).map((inside) => ({ file: join(path, inside), path: `${basename(join(path, "."))}/${inside}`, given: false }));
    return [{ file: path, path: basename(path), given: true }];
  });
  for (const { file, path, given } of files.flatMap(unzipped).sort((a, b) => naturalOrder(a.path, b.path))) {
    try {
      const bytes = typeof file === "string" ? readFile(file) : file;
      if (isTextFile(path)) taken.texts.push({ path, ...readText(bytes) });
      else taken.items.push({ path, art: await artIn(bytes, typeof file === "string" ? file : path, pictures) });
    } catch (error) {
      if (given || !(error instanceof CaravanError)) throw error;
      taken.failed.push(error.message);
    }
  }
  return { ...taken, pictures };
}

interface Found {
  readonly file: string | Uint8Array;
  readonly path: string;
  readonly given: boolean;
}

/** A ZIP is unpacked. */
function unzipped(found: Found): Found[] {
  if (typeof found.file !== "string" || !/\.zip$/i.test(found.path)) return [found];
  const folder = found.path.replace(/\.zip$/i, "");
  const archive = readFile(found.file);
  const letters = lettersOfNames(archive);
  if (letters !== null)
    note(
      `${found.file}: It does not say which letters its names are in: they are read as ${letters}. If they look wrong, unpack it first.`,
    );
  return readZip(archive, found.file)
    .filter(({ path }) => !isPassedBy(path) && (ART.test(path) || isTextFile(path)))
    .map(({ path, bytes }) => ({ file: bytes, path: `${folder}/${path}`, given: false }));
}

/** Art and metadata below a folder, with `/`. Caravan's own files are hidden ones, which are passed by. */
function filesIn(folder: string, prefix = ""): string[] {
  return readdirSync(join(folder, prefix), { withFileTypes: true }).flatMap((entry) => {
    if (isPassedBy(entry.name)) return [];
    const path = prefix === "" ? entry.name : `${prefix}/${entry.name}`;
    if (entry.isDirectory()) return filesIn(folder, path);
    return ART.test(entry.name) || isTextFile(entry.name) || /\.zip$/i.test(entry.name) ? [path] : [];
  });
}

async function artIn(bytes: Uint8Array, where: string, pictures: Map<string, Uint8Array>): Promise<TakenArt> {
  const png = pngCodec();
  const stored = (pixels: Pixels, file = png.encode(pixels)): TakenPicture => {
    const sha256 = sha256Hex(file);
    pictures.set(sha256, file);
    const { width, height } = pixels;
    return { sha256, width, height, coverage: sheetCoverageOf(pixels), ground: opaqueGround(pixels) };
  };
  if (looksLikePng(bytes)) {
    const animation = readApng(bytes, where, png);
    if (animation && animation.count > 1) return animated(animation, stored, where);
    return { kind: "still", picture: stored(png.decode(bytes, where), bytes) };
  }
  if (looksLikeGif(bytes)) return animated(readGif(bytes, where), stored, where);
  if (looksLikeOpenRaster(bytes, where)) {
    const { layers, ...told } = readOpenRaster(bytes, where, png, "flatten");
    const named = (each: typeof layers) => each.map(({ name, blend, pixels }) => ({ name, blend, ...stored(pixels) }));
    const parted = told.groups > 0 ? readOpenRaster(bytes, where, png, "apart") : null;
    const apart = parted && { layers: named(parted.layers), unlikeMerged: parted.unlikeMerged };
    return { kind: "layers", layers: named(layers), apart, ...told };
  }
  const moving = looksLikeWebp(bytes) ? readAnimatedWebp(bytes, where, decodeStill) : null;
  if (moving) return animated(moving, stored, where);
  return { kind: "still", picture: stored(await decodeStill(bytes, where)) };
}

async function animated(
  animation: Animation | AwaitedAnimation,
  stored: (pixels: Pixels) => TakenPicture,
  where: string,
): Promise<TakenArt> {
  const broken: { index: number; why: string }[] = [];
  const pictures: (TakenPicture & { ms: number })[] = [];
  for await (const { pixels, ms } of animation.frames((index, why) => broken.push({ index, why })))
    pictures.push({ ms, ...stored(pixels) });
  if (pictures.length === 0)
    throw new CaravanError("damaged-picture", where, `None of its ${animation.count} pictures is whole.`, "Export it again.");
  return { kind: "animation", pictures, plays: animation.plays, broken };
}
