/** Runs inside a worker: carries out the jobs of the table, one at a time. */

import {
  type Art,
  artFrom,
  asSeen,
  assembledLook,
  drawnPixels,
  framePixels,
  isLayered,
  isOfPicture,
  layeredLook,
  type PictureLook,
  picturesOfLook,
  type SheetLook,
  wornLook,
} from "@caravan/core/art";
import { picturesOf, readBundle, writeBundle } from "@caravan/core/bundle";
import { findRepeats, frameFindings } from "@caravan/core/check";
import { createPngCodec, type NamedFile, type PngCodec, readZip, sha256Hex, type WasmModule, writeZip } from "@caravan/core/codec";
import { cutSheet, suggestGrids, suggestOutlines } from "@caravan/core/cut";
import { deliver } from "@caravan/core/deliver";
import { framesToPart, putTogetherFromTiles } from "@caravan/core/edit";
import { learnExample, toldOfExample } from "@caravan/core/example";
import { outlinesOf } from "@caravan/core/marks";
import { understand, understandAs } from "@caravan/core/metadata";
import {
  CaravanError,
  type Frame,
  type FrameRef,
  findFrame,
  frameName,
  frameRef,
  type Project,
  type Source,
  sourceById,
  whyOf,
} from "@caravan/core/model";
import { coloursIn } from "@caravan/core/palette";
import {
  clearPixels,
  coverageOf,
  crop,
  drawingsIn,
  factsOf,
  findDrawings,
  findGround,
  type Ground,
  looksSame,
  mirrored,
  opaqueGround,
  type Pixels,
  sheetCoverageOf,
} from "@caravan/core/raster";
import { inPalettes, nearTiles, type PaletteUse, partedIntoTiles, tilesOf } from "@caravan/core/tiles";
import * as Comlink from "comlink";
import { deleteUnused } from "../project/unused-pictures";
import { viewOf } from "./bitmaps";
import {
  asText,
  fromText,
  type JobName,
  type JobRunner,
  type Jobs,
  type LookFile,
  type LookFiles,
  type NamedFrame,
  type OnProgress,
  type Outcome,
  shownPages,
} from "./jobs";
import { encoded, readArt } from "./read-art";

type Doers = { [Name in JobName]: (ask: Jobs[Name]["ask"], onProgress: OnProgress) => Promise<Jobs[Name]["answer"]> };

/** As many pages as are looked at as bitmaps. */
const MOST_VIEWS = 12;

const doers: Doers = {
  async readPicture({ name, blob, clearing, recolouring = null }) {
    const png = await pngCodec();
    const bytes = await bytesOf(blob);
    const decoded = png.decode(bytes, name);
    const drawn = asSeen(decoded, { clearing });
    const pixels = asSeen(drawn, { clearing: null, recolouring });
    const { width, height } = pixels;
    const facts = factsOf(pixels);
    const ground = facts.ground === "opaque" ? findGround(pixels) : null;
    const known = {
      sha256: sha256Hex(bytes),
      width,
      height,
      coverage: sheetCoverageOf(pixels),
      facts,
      ground,
      colours: coloursIn([drawn]),
    };
    const look = clearing || recolouring ? new ImageData(new Uint8ClampedArray(pixels.bytes), width, height) : blob;
    return { ...known, ...(await viewOf(look, width, height)) };
  },

  async assemble(of) {
    const pixels = await pixelsOfLook(of, await pngCodec(), "a frame of pieces");
    const { width, height, bytes } = pixels;
    const known = {
      sha256: sha256Hex(bytes),
      width,
      height,
      coverage: sheetCoverageOf(pixels),
      facts: factsOf(pixels),
      ground: null,
      colours: null,
    };
    return { ...known, ...(await viewOf(new ImageData(new Uint8ClampedArray(bytes), width, height), width, height)) };
  },

  async readArt({ name, blob }) {
    return readArt(blob, name, await pngCodec());
  },

  async filmFacts({ name, blob }) {
    const { filmFacts } = await import("./film");
    return filmFacts(blob, name);
  },

  async filmFrames({ name, blob, starts, reduction }, onProgress) {
    const { filmFrames } = await import("./film");
    return filmFrames(blob, name, starts, reduction, await pngCodec(), onProgress);
  },

  async unzip({ name, blob }) {
    return readZip(await bytesOf(blob), name);
  },

  async understand({ text, where, picture, coverage, known }) {
    return understand(text, { picture, coverage }, where, known);
  },

  async readAs({ text, where, picture, coverage, reading }) {
    return understandAs(text, { picture, coverage }, where, reading);
  },

  async learnExample({ text, where, seen }) {
    return learnExample(text, where, seen);
  },

  async tellExample({ example }) {
    return toldOfExample(example);
  },

  async drawings({ of, rects }) {
    return drawingsIn(await pixelsOfLook(of, await pngCodec(), "art"), rects);
  },

  async findDrawings({ before, after, rects }) {
    const png = await pngCodec();
    return findDrawings(await pixelsOfLook(before, png, "art"), rects, await pixelsOfLook(after, png, "changed art"));
  },

  async mirrorFrames({ of, frames, scale }) {
    const png = await pngCodec();
    const pixels = await pixelsOfLook(of, png, "art to mirror");
    return Promise.all(frames.map((frame) => encoded(mirrored(framePixels(pixels, { scale }, frame)), png)));
  },

  async findPieces({ coverage, cut, where }) {
    return asText(cutSheet(coverage, cut, where));
  },

  async inspect({ source: text, pictures }) {
    const source = fromText(text);
    const png = await pngCodec();
    const looks: Pixels[] = [];
    for (const of of pictures) looks.push(await pixelsOfLook(of, png, source.name));
    const kept = source.frames.filter((frame) => !frame.dropped && !frame.empty);
    const seen = kept.flatMap((frame) => {
      const picture = looks[frame.picture ?? 0];
      return picture ? [{ ref: frameRef(source, frame), pixels: drawnPixels(picture, frame) }] : [];
    });
    const repeats = findRepeats(seen);
    return { findings: frameFindings(source, looks.map(coverageOf), repeats), repeats };
  },

  async sweepPictures({ hashes, keep }) {
    return deleteUnused(new Set(hashes), new Set(keep));
  },

  async suggestCuts({ coverage }) {
    const grids = suggestGrids(coverage);
    return { grids, outlines: suggestOutlines(coverage, grids) };
  },

  async suggestGrids({ coverage }) {
    return suggestGrids(coverage);
  },

  async countTiles({ project: text, frames, pictures, tile, flips }) {
    const project = fromText(text);
    const art = artFrom(await decodedOf(pictures, "the budget"), project);
    const named = frames.map(({ ref, name }) => ({ name, pixels: pixelsOfFrame(project, art, ref) }));
    const { placed, distinct, colours, perFrame } = tilesOf(named, tile, flips);
    const { use } = inPalettes(named, tile, project.palettes ?? []);
    return {
      tiles: placed.length,
      distinct,
      colours,
      perFrame: perFrame.map((each, k) => ({ ...(use[k] as PaletteUse), ...each, ref: (frames[k] as NamedFrame).ref })),
    };
  },

  async traceOutlines({ project: text, frames, pictures }) {
    const project = fromText(text);
    return outlinesOf(project, frames, artFrom(await decodedOf(pictures, "the outlines"), project));
  },

  async nearPieces({ project: text, frames, pictures, most }) {
    const project = fromText(text);
    const art = artFrom(await decodedOf(pictures, "the pieces"), project);
    return nearTiles(
      frames.map((ref) => pixelsOfFrame(project, art, ref)),
      most,
    );
  },

  async partIntoTiles({ project: text, source: id, pictures, tile }) {
    const project = fromText(text);
    const source = sourceById(project, id);
    const art = artFrom(await decodedOf(pictures, source.name), project);
    const frames = framesToPart(source);
    const stored = frames.map((frame) => crop(art.picture(wornLook(project, source, frame.picture)), frame.rect));
    const parted = partedIntoTiles(stored, tile);
    // Proved before anybody relies on it: every frame drawn again from the tiles as the project would draw it.
    const made = putTogetherFromTiles(project, id, parted);
    const again = artFrom(await decodedOf(pictures, source.name), made);
    const together = made.sources.at(-1) as Source;
    for (const [k, frame] of frames.entries()) {
      const [was, is] = [art.frame(source, frame), again.frame(together, together.frames[k] as Frame)];
      if (!looksSame(crop(was.pixels, was.rect), crop(is.pixels, is.rect)))
        throw new CaravanError(
          "proof-failed",
          frameName(source, frame),
          "Put together from tiles it would not be the same.",
          "Nothing was changed. Please report it.",
        );
    }
    return parted;
  },

  async deliver({ project: text, delivery, pictures: given }, onProgress) {
    const project = fromText(text);
    const png = await pngCodec();
    const blobs = new Map(given);
    const decoded = new Map<string, Pixels>();
    const grounds = new Map<string, Ground>();
    for (const picture of picturesOf(project)) {
      const blob = blobs.get(picture.sha256);
      if (decoded.has(picture.sha256) || !blob) continue;
      const pixels = png.decode(await bytesOf(blob), picture.file);
      const ground = opaqueGround(pixels);
      if (ground) grounds.set(picture.sha256, ground);
      decoded.set(picture.sha256, pixels);
      onProgress(Math.min(0.3, (0.3 * decoded.size) / given.length));
    }
    const { files, pages, proof, notes } = deliver(project, delivery, artFrom(decoded, project), png, (done) =>
      onProgress(0.3 + 0.7 * done),
    );
    // Many pictures, and films, are shown from their files instead.
    const pictures = shownPages(pages);
    const shown = pictures.length <= MOST_VIEWS && delivery.kind !== "films" && delivery.kind !== "singles" ? pictures : [];
    const views = shown.map(
      async ({
        image,
        page: {
          size: { w, h },
        },
      }) => {
        const file = files.find(({ path }) => path === image) as NamedFile;
        return viewOf(new Blob([file.bytes as BlobPart], { type: "image/png" }), w, h);
      },
    );
    return { files, pages, proof, notes, views: await Promise.all(views), grounds };
  },

  async zip({ files }) {
    return writeZip(files);
  },

  async writeBundle({ project, pictures }) {
    const bytes = await Promise.all(pictures.map(async ([sha256, blob]) => [sha256, await bytesOf(blob)] as const));
    return writeBundle({ project: fromText(project), pictures: new Map(bytes) });
  },

  async readBundle({ name, blob }) {
    const { project, pictures } = readBundle(await bytesOf(blob), name);
    // A picture that does not open would leave a project that cannot be shown: better to refuse the file now.
    const png = await pngCodec();
    for (const { sha256, file } of picturesOf(project)) png.decode(pictures.get(sha256) as Uint8Array, `${name}, ${file}`);
    return { project, pictures: [...pictures] };
  },
};

const runner: JobRunner = {
  async run(name, ask, onProgress = () => {}) {
    try {
      const answer = await doers[name](ask, onProgress);
      const outcome = { ok: true, answer } as const;
      return Comlink.transfer(outcome, givenAway(answer));
    } catch (error) {
      return problemOf(error);
    }
  },
};

Comlink.expose(runner);

let codec: Promise<PngCodec> | null = null;

function pngCodec(): Promise<PngCodec> {
  codec ??= WebAssembly.compileStreaming(fetch(new URL("@jsquash/png/codec/pkg/squoosh_png_bg.wasm", import.meta.url))).then((module) =>
    createPngCodec(module as unknown as WasmModule),
  );
  return codec;
}

/** A frame's own pixels; nothing for one that is gone meanwhile. */
function pixelsOfFrame(project: Project, art: Art, ref: FrameRef): Pixels {
  const found = findFrame(project, ref);
  if (!found) return clearPixels(1, 1);
  const { pixels, rect } = art.frame(found.source, found.frame);
  return crop(pixels, rect);
}

async function decodedOf(pictures: ReadonlyMap<string, Blob>, where: string): Promise<Map<string, Pixels>> {
  const png = await pngCodec();
  const decoded = new Map<string, Pixels>();
  for (const [sha256, blob] of pictures) decoded.set(sha256, png.decode(await bytesOf(blob), where));
  return decoded;
}

async function pixelsOf({ blob, clearing, recolouring = null }: LookFile, png: PngCodec, where: string): Promise<Pixels> {
  const pixels = png.decode(await bytesOf(blob), where);
  return asSeen(pixels, { clearing, recolouring });
}

/** Pictures as they are seen, that pieces were taken from just now: a walk of many frames asks for the same few again and again. */
const parts = new Map<PictureLook["key"], Pixels>();
/** Bytes of them that are kept at most. */
const MOST_PARTS = 64 * 1024 * 1024;

async function pixelsOfLook({ look, files }: LookFiles, png: PngCodec, where: string): Promise<Pixels> {
  const wanted = new Map<string, Pixels>();
  for (const each of picturesOfLook(look)) {
    let pixels = parts.get(each.key);
    if (!pixels) {
      const blob = files.get(each.sha256);
      if (!blob) throw new CaravanError("missing-picture", where, "A picture that it is taken from is not there.", "Give the art again.");
      pixels = await pixelsOf({ blob, clearing: each.clearing, recolouring: each.recolouring }, png, where);
    }
    parts.delete(each.key);
    parts.set(each.key, pixels);
    wanted.set(each.key, pixels);
  }
  let bytes = [...parts.values()].reduce((sum, each) => sum + each.bytes.length, 0);
  for (const [key, each] of parts) {
    if (bytes <= MOST_PARTS || wanted.has(key)) continue;
    bytes -= each.bytes.length;
    parts.delete(key);
  }
  const pixelsAt = ({ key }: PictureLook) => wanted.get(key) as Pixels;
  const sheetAt = (each: SheetLook): Pixels => (isLayered(each) ? layeredLook(each, pixelsAt) : pixelsAt(each));
  return isOfPicture(look) || isLayered(look) ? sheetAt(look) : assembledLook(look, sheetAt);
}

async function bytesOf(blob: Blob): Promise<Uint8Array> {
  return new Uint8Array(await blob.arrayBuffer());
}

function problemOf(error: unknown): Outcome<never> {
  if (error instanceof CaravanError) {
    const { code, where, what, remedy } = error;
    return { ok: false, problem: { code, where, what, remedy } };
  }
  return { ok: false, fault: whyOf(error) };
}

/** Bitmaps and the buffers of all typed arrays in an answer, each once; arrays that view only a part of theirs are copied. */
function givenAway(answer: unknown, found = new Set<Transferable>()): Transferable[] {
  if (answer instanceof ImageBitmap) found.add(answer);
  else if (ArrayBuffer.isView(answer)) {
    if (answer.buffer instanceof ArrayBuffer && answer.byteLength === answer.buffer.byteLength) found.add(answer.buffer);
  } else if (typeof answer === "object" && answer !== null) for (const part of Object.values(answer)) givenAway(part, found);
  return [...found];
}
