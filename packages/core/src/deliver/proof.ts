import type { Atlas, AtlasFrame } from "../atlas";
import { AtlasBehaviour, atlasData, readAtlas } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { behavioursToFile, CaravanError, type FrameMarks, ownOf } from "../model";
import { frameFromPage } from "../pack";
import { clearPixels, crop, looksSame, type Pixels } from "../raster";
import { t } from "../words";
import type { Contents } from "./contents";
import type { Layout } from "./layout";

/** Describes the result of reading the written bytes back. */
export interface Proof {
  /** Frames that went in, and that came out of the files with the same pixels; of films their pictures, in every format. */
  readonly frames: number;
  readonly exact: number;
  /** Frames that share another frame's place. */
  readonly shared: number;
  readonly clips: number;
  /** Frames whose boxes, points and outlines came out as they went in. */
  readonly marked: number;
}

/**
 * Reads the files as a game would, and compares every frame pixel by pixel, its boxes, points, outlines and data, every clip step by step,
 * every action and every behaviour with what was meant. `atlasFile` is the first file. Throws `proof-failed` with the first difference:
 * better no delivery than a wrong one.
 */
export function prove(atlasFile: NamedFile, pictures: readonly NamedFile[], laid: Layout, contents: Contents, png: PngCodec): Proof {
  const atlas = readAtlas(atlasFile.bytes, atlasFile.path);
  const page = pageReader(atlas, pictures, png);
  const places = new Set<string>();
  const data = new Map(contents.frames.flatMap((frame) => (frame.data ? [[frame.name, atlasData(frame.data)]] : [])));
  if (!saysSame(atlas.parts ?? [], contents.parts)) throw proofFailed(t("the list of parts"), atlasFile.path);
  if (!saysSame(atlas.layers ?? [], contents.layers)) throw proofFailed(t("the list of layers"), atlasFile.path);
  for (const { name, marks, wholeOn } of laid.frames) {
    const written = ownOf(atlas.frames, name);
    const pixels = written && page(written.page);
    if (!pixels || !looksSame(frameFromPage(pixels, written), wholeOn(0))) throw proofFailed(t('frame "{name}"', { name }), atlasFile.path);
    for (const [k, layer] of contents.layers.entries()) {
      const image = page(written.page, layer.name);
      const read = image ? frameFromPage(image, written) : clearPixels(written.size.w, written.size.h);
      if (!looksSame(read, wholeOn(k + 1)))
        throw proofFailed(t('layer "{name}" of frame "{frame}"', { name: layer.name, frame: name }), atlasFile.path);
    }
    if (!sameMarks(written, marks)) throw proofFailed(t('the marks of frame "{name}"', { name }), atlasFile.path);
    if (!saysSame(written.data ?? {}, data.get(name) ?? {})) throw proofFailed(t('the data of frame "{name}"', { name }), atlasFile.path);
    places.add(`${written.page} ${written.rect.x} ${written.rect.y}`);
  }
  for (const { what, page: at, rect, wholeOn } of laid.copies)
    for (const [k, layer] of [undefined, ...contents.layers].entries()) {
      const image = page(at, layer?.name);
      const read = image ? crop(image, rect) : layer && clearPixels(rect.w, rect.h);
      if (!read || !looksSame(read, wholeOn(k)))
        throw proofFailed(
          layer ? t('layer "{name}" of {what}', { name: layer.name, what }) : what,
          laid.pages[at]?.image ?? atlasFile.path,
        );
    }
  if (Object.keys(atlas.frames).length !== laid.frames.length) throw proofFailed(t("the number of frames"), atlasFile.path);
  for (const [name, clip] of contents.clips)
    if (!saysSame(ownOf(atlas.clips, name), clip)) throw proofFailed(t('clip "{name}"', { name }), atlasFile.path);
  for (const [name, action] of contents.actions)
    if (!saysSame(ownOf(atlas.actions, name), action)) throw proofFailed(t('action "{name}"', { name }), atlasFile.path);
  for (const [name, behaviour] of Object.entries(behavioursToFile(contents.behaviours)))
    if (!saysSame(ownOf(atlas.behaviours, name), AtlasBehaviour.parse(behaviour)))
      throw proofFailed(t('behaviour "{name}"', { name }), atlasFile.path);
  const frames = laid.frames.length;
  const marked = laid.frames.filter(({ marks }) => marks).length;
  return { frames, exact: frames, shared: frames - places.size, clips: contents.clips.length, marked };
}

function sameMarks({ boxes, points, outlines }: AtlasFrame, marks: FrameMarks | undefined): boolean {
  return saysSame([boxes, points, outlines], [marks?.boxes, marks?.points, marks?.outlines]);
}

/** Whether two values are equal as JSON, in any order of fields: an edit's order differs from a file's. */
function saysSame(a: unknown, b: unknown): boolean {
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return a === b;
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((each, k) => saysSame(each, b[k]));
  const [one, other] = [fieldsOf(a), fieldsOf(b)];
  return one.size === other.size && [...one].every(([name, value]) => other.has(name) && saysSame(value, other.get(name)));
}

function fieldsOf(value: object): Map<string, unknown> {
  return new Map(Object.entries(value).filter(([, each]) => each !== undefined));
}

/** Decodes a page, or a layer of it, when it is first asked for. */
function pageReader(atlas: Atlas, pictures: readonly NamedFile[], png: PngCodec): (page: number, layer?: string) => Pixels | null {
  const files = new Map(pictures.map(({ path, bytes }) => [path, bytes]));
  const decoded = new Map<string, Pixels>();
  return (page, layer) => {
    const image = layer === undefined ? atlas.pages[page]?.image : atlas.pages[page]?.layers?.[layer];
    const known = decoded.get(image ?? "");
    if (known) return known;
    const bytes = image === undefined ? undefined : files.get(image);
    if (!bytes || image === undefined) return null;
    const pixels = png.decode(bytes, image);
    decoded.set(image, pixels);
    return pixels;
  };
}

export function proofFailed(what: string, where: string): CaravanError {
  return new CaravanError(
    "proof-failed",
    where,
    t("Read back, {what} is not what was meant.", { what }),
    t("Nothing was delivered. This is an internal error; please report it."),
  );
}
