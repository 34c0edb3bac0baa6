import { type AtlasAction, type AtlasClip, atlasAction, atlasClip } from "../atlas";
import { type FindingCode, findingsOf } from "../check";
import type { NamedFile, PngCodec } from "../codec";
import {
  CaravanError,
  type Delivery,
  type Density,
  type ErrorCode,
  type FrameRef,
  frameLook,
  frameRef,
  keptFrames,
  type Look,
  originOf,
  type Project,
  pictureOf,
  unreachable,
} from "../model";
import type { OnProgress } from "../pack";
import { crop, framePixels, type Pixels, scaled } from "../raster";
import { atlasFiles } from "./atlas-files";
import { atlasPages } from "./atlas-pages";
import { chosenOf } from "./choice";
import { checkFileNames } from "./file-names";
import { films } from "./films";
import { framesNamed } from "./frame-names";
import type { FrameToDeliver, Goods } from "./goods";
import type { Laid } from "./laid";
import type { Proof } from "./proof";
import { gridSheet, singlePictures, strips } from "./sheets";
import { groupsOf } from "./together";

/** A picture that was delivered. */
export interface DeliveredPage {
  readonly image: string;
  readonly size: { readonly w: number; readonly h: number };
  /** Summed area of what is laid on it, over its own: 0 to 1. */
  readonly occupancy: number;
  /** What it takes in the game's memory once it is unpacked, in bytes: four for each pixel. */
  readonly memory: number;
}

export interface Delivered {
  readonly files: readonly NamedFile[];
  readonly pages: readonly DeliveredPage[];
  readonly proof: Proof;
  /** What a person should know of how it went: times rounded, clips parted, and the like. */
  readonly notes: readonly string[];
}

/**
 * Everything that one of a project's deliveries asks for, at each of its densities. `pictures` are the sources' pixels by look, cleared.
 * Throws the first finding that stops delivery, `nothing-picked`, `name-collision`, `bad-name`, `frame-too-large`, `too-many-pages`,
 * `picture-too-large` or `proof-failed`.
 */
export function deliver(
  project: Project,
  delivery: Delivery,
  pictures: ReadonlyMap<Look, Pixels>,
  png: PngCodec,
  onProgress: OnProgress = () => {},
): Delivered {
  const goods = goodsOf(project, delivery, pictures);
  const each = delivery.densities.map((density, k) =>
    deliverGoods(scaledGoods(goods, density), delivery, density, png, (done) => onProgress((k + done) / delivery.densities.length)),
  );
  const files = each.flatMap((one) => one.files);
  checkFileNames(files, `delivery "${delivery.name}"`);
  return {
    files,
    pages: each.flatMap(({ pages }) => pages),
    proof: (each[0] as Delivered).proof,
    notes: [...new Set(each.flatMap(({ notes }) => notes))],
  };
}

/** Delivers frames as they are: loose pictures, or a project's at one density. Throws as `deliver` does. */
export function deliverGoods(
  goods: Goods,
  delivery: Delivery,
  density: Density,
  png: PngCodec,
  onProgress: OnProgress = () => {},
): Delivered {
  refuseSameNames(goods.frames);
  const stem = `${delivery.name}${density.suffix}`;
  if (delivery.kind === "films") {
    const made = films(goods, delivery.films, stem, png, onProgress);
    return {
      files: made.films.map(({ file }) => file),
      pages: made.films.map(({ file, size, pictures }) => ({
        image: file.path,
        size,
        occupancy: 1,
        memory: size.w * size.h * 4 * pictures,
      })),
      proof: made.proof,
      notes: made.notes,
    };
  }
  const laid = laidOut(goods, delivery, stem, (done) => onProgress(0.5 * done));
  const { files, proof, notes } = atlasFiles(laid, goods, delivery, stem, density.scale, png, (done) => onProgress(0.5 + 0.5 * done));
  const pages = laid.pages.map(({ image, pixels: { width: w, height: h }, occupancy }) => ({
    image,
    size: { w, h },
    occupancy,
    memory: w * h * 4,
  }));
  return { files, pages, proof, notes };
}

function laidOut(goods: Goods, { kind, packing, sheet }: Delivery, stem: string, onProgress: OnProgress): Laid {
  switch (kind) {
    case "atlas":
      return atlasPages(goods, packing, stem, onProgress);
    case "grid":
      return gridSheet(goods, sheet, stem);
    case "strips":
      return strips(goods, sheet, stem);
    case "singles":
      return singlePictures(goods, stem);
    case "films":
      throw new Error("Films are laid on no pages.");
    default:
      return unreachable(kind);
  }
}

function goodsOf(whole: Project, delivery: Delivery, pictures: ReadonlyMap<Look, Pixels>): Goods {
  const chosen = chosenOf(whole, delivery.choice);
  const { project } = chosen;
  const stopping = findingsOf(project).find((finding) => finding.severity === "error");
  if (stopping) throw new CaravanError(CODES[stopping.code] ?? "nothing-picked", stopping.where, stopping.message, "Nothing was written.");
  const placed = keptFrames(project).filter(({ source, frame }) => chosen.frames?.has(frameRef(source, frame)) ?? true);
  const texts = framesNamed(project, placed, delivery.frameNames, delivery.counting.from);
  const names = new Map<FrameRef, string>(placed.map(({ source, frame }, k) => [frameRef(source, frame), texts[k] as string]));
  const frames = placed.map(({ source, frame }, k): FrameToDeliver => {
    const pixels = pictures.get(frameLook(source, frame));
    if (!pixels)
      throw new CaravanError(
        "missing-picture",
        pictureOf(source, frame).file,
        "The picture of this source is not there.",
        "Put it back and deliver again.",
      );
    const name = texts[k] as string;
    const origin = originOf(source, frame);
    if (!frame.size && !frame.turned) return { name, pixels, rect: frame.rect, origin };
    const upright = framePixels(pixels, frame);
    return { name, pixels: upright, rect: { x: 0, y: 0, w: upright.width, h: upright.height }, origin };
  });
  const clips = project.clips.map((clip): [string, AtlasClip] => [clip.name, atlasClip(clip, (step) => names.get(step.frame) as string)]);
  const actions = project.actions.map((action): [string, AtlasAction] => [action.name, atlasAction(action)]);
  return { frames, clips, actions, groups: groupsOf(delivery.packing.together, texts, clips, actions) };
}

function scaledGoods(goods: Goods, { scale }: Density): Goods {
  if (scale === 1) return goods;
  const frames = goods.frames.map(({ name, pixels, rect, origin }): FrameToDeliver => {
    const small = scaled(crop(pixels, rect), scale);
    const rounded = (value: number) => Math.round(value * scale * 1000) / 1000;
    return {
      name,
      pixels: small,
      rect: { x: 0, y: 0, w: small.width, h: small.height },
      origin: { x: rounded(origin.x), y: rounded(origin.y) },
    };
  });
  return { ...goods, frames };
}

function refuseSameNames(frames: readonly FrameToDeliver[]): void {
  const seen = new Set<string>();
  for (const { name } of frames) {
    if (seen.has(name))
      throw new CaravanError(
        "name-collision",
        `frame "${name}"`,
        "Two frames have this name; a game could not tell them apart.",
        "Rename one of them, or make the pattern of names tell more.",
      );
    seen.add(name);
  }
}

const CODES: Partial<Record<FindingCode, ErrorCode>> = {
  "empty-clip": "empty-clip",
  "missing-frames": "missing-frame",
  "same-frame-name": "name-collision",
  "empty-action": "empty-clip",
  "nothing-cut": "nothing-picked",
};
