import { readdirSync } from "node:fs";
import { basename, extname, join, relative, resolve } from "node:path";
import { performance } from "node:perf_hooks";
import { deliverContents, type FrameToDeliver } from "@caravan/core/deliver";
import type { DeliveredLayer } from "@caravan/core/delivery-plan";
import { CaravanError, fitFileName, fittedName, naturalOrder, type Packing, USUAL_DELIVERY, USUAL_PACKING } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { type Command, InvalidArgumentError } from "commander";
import { isDelivered, receiptIn, writeSet } from "../delivered-set";
import { isFolder } from "../files";
import { givenPaths } from "../given-paths";
import { noteLeft } from "../leftover-files";
import { fileStem, whole } from "../options";
import { tell, wrongCall } from "../output";
import { pngCodec } from "../png";
import { progressOn } from "../progress";
import { reserveStandardOutput, STANDARD, UNNAMED } from "../standard";
import { readStill, STILL_ENDING } from "../stills";

interface PackOptions {
  out: string;
  name: string;
  padding: number;
  extrude: number;
  max: number;
  rotate: boolean;
  pow2: boolean;
  trim: boolean;
  alias: boolean;
  effort: Packing["effort"];
  layer: readonly LayerFolder[];
  compact: boolean;
  replace: boolean;
  clean: boolean;
  json: boolean;
}

export function addPack(program: Command): void {
  program
    .command("pack")
    .summary("pack loose pictures into an atlas")
    .description("Packs pictures (PNG, JPEG, WebP, TGA), and those in folders, into atlas pages and an atlas file.")
    .argument("<path...>", "pictures or folders; - is a picture at standard input", givenPaths)
    .requiredOption("--out <dir>", "where the atlas goes; - writes a ZIP to standard output")
    .option("--name <name>", "start of the file names", fileStem, "atlas")
    .option("--padding <px>", "least distance between frames", whole(0, 64), 2)
    .option("--extrude <px>", "repeat edge pixels outward by so many pixels", whole(0, 16), 1)
    .option("--max <px>", "longest side of a page", whole(16, 16_384), 4096)
    .option("--rotate", "allow frames to be stored rotated by 90°", false)
    .option("--pow2", "page sides are powers of two", false)
    .option("--no-trim", "keep transparent pixels around frames")
    .option("--no-alias", "store identical frames separately")
    .option("--effort <normal|high>", "how many layouts are tried", effort, "normal")
    .option(
      "--layer <name=folder>",
      "pictures of a layer, with the names of those below; name:add or name:multiply sets its blend mode",
      layer,
      [],
    )
    .option("--compact", "write the atlas file without spaces", false)
    .option("--replace", "replace files in the way that Caravan did not write", false)
    .option("--clean", "remove what an earlier run wrote and this one does not", false)
    .option("--json", "print one JSON document", false)
    .action(pack);
}

function effort(text: string): Packing["effort"] {
  if (text === "normal" || text === "high") return text;
  throw new InvalidArgumentError("Write normal or high.");
}

interface LayerFolder extends DeliveredLayer {
  readonly folder: string;
}

function layer(text: string, before: readonly LayerFolder[]): LayerFolder[] {
  const [, wanted, blend = "normal", folder] = /^([^=:]+)(?::(normal|add|multiply))?=(.+)$/.exec(text) ?? [];
  const name = wanted === undefined ? null : fittedName(wanted);
  if (name === null || folder === undefined || fitFileName(name) !== name)
    throw new InvalidArgumentError("Write a name and a folder, such as light=glow or light:add=glow.");
  if (before.some((each) => each.name.toLowerCase() === name.toLowerCase()))
    throw new InvalidArgumentError(`There are two layers named ${name}. Give each a name of its own.`);
  return [...before, { name, blend: blend as DeliveredLayer["blend"], folder }];
}

/** The pictures of a layer by the names of frames. Throws for one that no frame is called as, or that is not as large. */
async function layerPictures({ name, folder }: LayerFolder, frames: readonly FrameToDeliver[], out: string): Promise<Map<string, Pixels>> {
  if (!isFolder(folder))
    throw new CaravanError(
      "not-found",
      folder,
      `The layer "${name}" is not a folder.`,
      "Give a folder of pictures with the names of those below.",
    );
  const sizes = new Map(frames.map((frame) => [frame.name, frame.rect]));
  const found = new Map<string, Pixels>();
  for (const each of picturesAt([folder], out)) {
    const below = sizes.get(each.name);
    if (!below)
      throw new CaravanError(
        "not-found",
        each.path,
        `Nothing below it is called "${each.name}".`,
        "Give it the name of the picture that it lies over, or remove it.",
      );
    const pixels = await readStill(each.path);
    if (pixels.width !== below.w || pixels.height !== below.h)
      throw new CaravanError(
        "picture-mismatch",
        each.path,
        `It is ${pixels.width} × ${pixels.height} px, and "${each.name}" below it ${below.w} × ${below.h} px.`,
        "Make them the same size: layers are combined pixel by pixel.",
      );
    found.set(each.name, pixels);
  }
  return found;
}

async function pack(paths: string[], options: PackOptions): Promise<void> {
  const started = performance.now();
  const png = pngCodec();
  if (options.out.trim() === "") wrongCall("--out does not name a folder. Give one, such as --out delivered.");
  if (options.out === STANDARD) reserveStandardOutput(options.json);
  const below: FrameToDeliver[] = [];
  for (const { name, path } of picturesAt(paths, options.out)) {
    const pixels = await readStill(path);
    const { width: w, height: h } = pixels;
    below.push({ name, pixels, rect: { x: 0, y: 0, w, h }, origin: { x: w / 2, y: h } });
  }
  const pictures = await Promise.all(options.layer.map((each) => layerPictures(each, below, options.out)));
  const layers = options.layer.map(({ name, blend }): DeliveredLayer => ({ name, blend }));
  const frames =
    layers.length === 0
      ? below
      : below.map((frame): FrameToDeliver => ({ ...frame, layers: pictures.map((each) => partOf(each.get(frame.name))) }));
  const packing: Packing = {
    ...USUAL_PACKING,
    paddingPx: options.padding,
    extrudePx: options.extrude,
    maxPx: options.max,
    maxPages: 999,
    turn: options.rotate,
    sides: options.pow2 ? "powerOfTwo" : "free",
    trim: options.trim,
    share: options.alias,
    effort: options.effort,
  };
  const contents = {
    frames,
    clips: [],
    actions: [],
    parts: [],
    behaviours: [],
    layers,
    palettes: [],
    groups: null,
    pixelsPerUnit: undefined,
    shape: null,
  };
  const progress = progressOn("Packing");
  const data = { ...USUAL_DELIVERY.data, ...(options.compact ? { compact: true as const } : {}) };
  const delivery = { ...USUAL_DELIVERY, name: options.name, packing, data };
  const built = progress.during((at) => deliverContents(contents, delivery, { scale: 1, suffix: "" }, png, at));
  const { left } = writeSet(options.out, built.files, `pack ${options.name}`, options.replace);
  noteLeft(options.out, left, options.clean);
  const pages = built.pages.map(({ image, size, occupancy, layers: over }) => ({
    image,
    width: size.w,
    height: size.h,
    occupancy: Math.round(occupancy * 10_000) / 10_000,
    ...(over ? { layers: over } : {}),
  }));
  const { proof } = built;
  const told = { pages, frames: proof.frames, placed: proof.exact, aliases: proof.shared, ms: Math.round(performance.now() - started) };
  tell(options.json, told, () =>
    [
      ...pages.map(
        ({ image, width, height, occupancy, layers: over = {} }) =>
          `${[image, ...Object.values(over)].map((each) => join(options.out, each)).join(", ")}: ${width} × ${height} px, ${(occupancy * 100).toFixed(1)} % filled`,
      ),
      `${proof.exact} of ${proof.frames} frames placed, ${proof.shared} shared, every pixel checked`,
    ].join("\n"),
  );
}

function partOf(pixels: Pixels | undefined): NonNullable<FrameToDeliver["layers"]>[number] {
  return pixels ? { pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } } : null;
}

/** Pictures in natural order of their names, without those that Caravan itself wrote into `out`. Throws if there are none, or two of one name. */
function picturesAt(paths: readonly string[], out: string): { name: string; path: string }[] {
  const found = new Map<string, string>();
  const receipt = receiptIn(out);
  const isOwn = (path: string) => isDelivered(out, receipt, relative(resolve(out), resolve(path)).replaceAll("\\", "/"));
  const add = (name: string, path: string) => {
    const twin = found.get(name);
    if (twin !== undefined)
      throw new CaravanError(
        "name-collision",
        path,
        `It would have the name "${name}", as ${twin} has.`,
        "Rename one, or give the folder above both.",
      );
    found.set(name, path);
  };
  for (const path of paths)
    if (isFolder(path))
      for (const inside of picturesIn(path).filter((each) => !isOwn(join(path, each)))) add(withoutEnding(inside), join(path, inside));
    else add(path === STANDARD ? UNNAMED : withoutEnding(basename(path)), path);
  if (found.size === 0)
    throw new CaravanError(
      "nothing-picked",
      paths.join(", "),
      "There are no pictures in it.",
      "Give a folder with PNG, JPEG, WebP or TGA files.",
    );
  return [...found].map(([name, path]) => ({ name, path })).sort((a, b) => naturalOrder(a.name, b.name));
}

/** Paths of the pictures below a folder, with `/`. */
function picturesIn(folder: string, prefix = ""): string[] {
  return readdirSync(join(folder, prefix), { withFileTypes: true }).flatMap((entry) => {
    const path = prefix === "" ? entry.name : `${prefix}/${entry.name}`;
    if (entry.isDirectory()) return entry.name.startsWith(".caravan-") ? [] : picturesIn(folder, path);
    return STILL_ENDING.test(entry.name) && !entry.name.startsWith(".") ? [path] : [];
  });
}

function withoutEnding(path: string): string {
  return path.slice(0, path.length - extname(path).length);
}
