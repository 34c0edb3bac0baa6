/**
 * Writes the files that a game loads from placed frames and clips, and proves them by reading them back. Same input, same bytes, on every
 * machine.
 */
import { type Atlas, type AtlasClip, type AtlasFrame, atlasData, writeAtlas } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { besidePath, stemOf } from "../delivery-plan";
import { filesInShape } from "../example";
import { behavioursToFile, type Delivery, microsFromMs, orderedRecord, tickAt } from "../model";
import type { OnProgress } from "../pack";
import { t } from "../words";
import type { Contents } from "./contents";
import type { Layout } from "./layout";
import { plainModule, typedModule } from "./module";
import { paletteFiles } from "./palette-files";
import { placesFiles } from "./places-files";
import { type Proof, prove } from "./proof";
import { rulesForPeople, rulesTable } from "./rules-tables";
import { framesTable, outlinesTable, timesTable, worstTickError } from "./tables";
import { tileFiles } from "./tile-files";

export interface AtlasFiles {
  /** The atlas file first if there is one, then the pictures, then the other files. */
  readonly files: readonly NamedFile[];
  readonly atlas: Atlas;
  readonly proof: Proof;
  readonly notes: readonly string[];
}

/** The pictures of a page's layers, by their names. */
function layerImages(layers: Contents["layers"], images: NonNullable<Layout["pages"][number]["layers"]>): Record<string, string> {
  return orderedRecord(layers.flatMap(({ name }, k): [string, string][] => (images[k] ? [[name, images[k].image]] : [])));
}

/** Throws `proof-failed` if the written files do not read back the same. `stem` begins all names; `scale` is the frames' scale. */
export function atlasFiles(
  laid: Layout,
  contents: Contents,
  { name: delivery, filter, data, counting, densities }: Pick<Delivery, "name" | "filter" | "data" | "counting" | "densities">,
  stem: string,
  scale: number,
  png: PngCodec,
  onProgress: OnProgress,
): AtlasFiles {
  const pictures = laid.pages.flatMap(({ image, pixels, layers = [] }, k): NamedFile[] => {
    const all = [{ image, pixels }, ...layers.flatMap((each) => each ?? [])];
    const files = all.map((each): NamedFile => ({ path: each.image, bytes: png.encode(each.pixels) }));
    onProgress((0.7 * (k + 1)) / laid.pages.length);
    return files;
  });
  const written = new Map(contents.frames.flatMap((frame) => (frame.data ? [[frame.name, { data: atlasData(frame.data) }]] : [])));
  const dataOf = (name: string) => written.get(name) ?? {};
  const clips = data.ticks ? contents.clips.map(([name, clip]) => [name, inTicks(clip, data.ticksPerSecond)] as const) : contents.clips;
  const atlas: Atlas = {
    format: "caravan-atlas",
    version: 1,
    ...(contents.pixelsPerUnit === undefined ? {} : { pixelsPerUnit: contents.pixelsPerUnit }),
    ...(data.ticks ? { ticksPerSecond: data.ticksPerSecond } : {}),
    ...(contents.layers.length > 0 ? { layers: contents.layers.map(({ name, blend }) => ({ name, blend })) } : {}),
    ...(data.atlas && densities.length > 1
      ? {
          densities: densities.map((density) => ({
            atlas: besidePath(stemOf({ name: delivery }, density), "atlas"),
            ...{ scale: density.scale, suffix: density.suffix },
          })),
        }
      : {}),
    pages: laid.pages.map(({ image, pixels: { width, height }, layers }) => ({
      ...{ image, width, height, scale, filter },
      ...(layers ? { layers: layerImages(contents.layers, layers) } : {}),
    })),
    frames: orderedRecord(
      laid.frames.map(({ name, page, rect, turned, mirrored, inset, size, origin, marks }): [string, AtlasFrame] => [
        name,
        { page, rect, turned, ...(mirrored ? { mirrored } : {}), inset, size, origin, ...marks, ...dataOf(name) },
      ]),
    ),
    clips: orderedRecord(clips),
    actions: orderedRecord(contents.actions),
    ...(contents.parts.length > 0 ? { parts: [...contents.parts] } : {}),
    ...(contents.behaviours.length > 0 ? { behaviours: behavioursToFile(contents.behaviours) } : {}),
  };
  const atlasFile = { path: besidePath(stem, "atlas"), bytes: writeAtlas(atlas, data.compact) };
  const proof = prove(atlasFile, pictures, laid, { ...contents, clips }, png);
  onProgress(1);
  const files = [...(data.atlas ? [atlasFile] : []), ...pictures];
  const notes = [...laid.notes];
  if (data.frames) files.push({ path: besidePath(stem, "frames"), bytes: framesTable(atlas, counting) });
  if (data.frames && Object.values(atlas.frames).some(({ outlines }) => outlines))
    files.push({ path: besidePath(stem, "outlines"), bytes: outlinesTable(atlas, counting) });
  if (data.times) {
    files.push({ path: besidePath(stem, "times"), bytes: timesTable(atlas, data.ticksPerSecond, counting.from) });
  }
  const worst = data.times || data.ticks ? worstTickError(atlas, data.ticksPerSecond) : 0;
  if (worst > 0)
    notes.push(
      t("{besidePath}: at {ticksPerSecond} ticks a second steps begin up to {worst} ms off their time.", {
        besidePath: besidePath(stem, data.times ? "times" : "atlas"),
        ticksPerSecond: data.ticksPerSecond,
        worst,
      }),
    );
  if (data.rules) {
    files.push({ path: besidePath(stem, "rules"), bytes: rulesForPeople(contents.behaviours) });
    files.push({ path: besidePath(stem, "rulesTable"), bytes: rulesTable(contents.behaviours) });
  }
  if (contents.layers.length > 0 && (data.tiles || (data.places && contents.palettes.length > 0)))
    notes.push(
      t("Tiles and places in palettes cover the lowest layer only, without {layers}.", {
        layers: contents.layers.map(({ name }) => name).join(", "),
      }),
    );
  if (data.tiles) files.push(...tileFiles(contents, data.tiles, contents.palettes, stem, png));
  if (data.places && contents.palettes.length > 0) files.push(...placesFiles(laid.pages, contents.palettes, png));
  if (data.tiles || data.places) files.push(...paletteFiles(contents.palettes, stem, png));
  if (data.module === "typed") files.push({ path: besidePath(stem, "typed"), bytes: typedModule(atlas, stem) });
  if (data.module === "plain") files.push({ path: besidePath(stem, "plain"), bytes: plainModule(atlas, stem) });
  if (contents.shape) {
    const shaped = filesInShape(contents.shape, atlas, stem);
    files.push(...shaped.files);
    notes.push(...shaped.notes);
  }
  return { files, atlas, proof, notes };
}

/** The clip with the ticks of each step: from the tick nearest to its start to that of the next, so that a clip never gets longer. */
function inTicks(clip: AtlasClip, ticksPerSecond: number): AtlasClip {
  let micros = 0;
  const steps = clip.steps.map(({ frame, ms, ...rest }) => {
    const from = tickAt(micros, ticksPerSecond);
    micros += microsFromMs(ms);
    return { frame, ms, ticks: tickAt(micros, ticksPerSecond) - from, ...rest };
  });
  return { ...clip, steps };
}
