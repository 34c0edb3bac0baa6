import type { Art } from "../art";
import type { Atlas } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { checkFileNames, stemOf } from "../delivery-plan";
import { packingIn } from "../example";
import { CaravanError, type Delivery, type Density, type Project, unreachable } from "../model";
import type { OnProgress } from "../pack";
import { t } from "../words";
import { atlasFiles } from "./atlas-files";
import { atlasPages } from "./atlas-pages";
import { contactSheet } from "./contact-sheet";
import type { Contents, FrameToDeliver } from "./contents";
import { films } from "./films";
import { contentsOf, scaledContents } from "./gather-contents";
import { handout } from "./handout";
import type { Layout } from "./layout";
import type { Proof } from "./proof";
import { gridSheet, singlePictures, strips } from "./sheets";

/** A delivered picture. */
export interface DeliveredPage {
  readonly image: string;
  /** The suffix of the density that it is of. */
  readonly suffix: string;
  readonly size: { readonly w: number; readonly h: number };
  /** Total area of its frames divided by its own: 0 to 1. */
  readonly occupancy: number;
  /** Its size in the game's memory when unpacked, with its layers, in bytes: four per pixel. */
  readonly memory: number;
  /** Pictures of its further layers, by name. */
  readonly layers?: Readonly<Record<string, string>>;
}

export interface Delivered {
  readonly files: readonly NamedFile[];
  readonly pages: readonly DeliveredPage[];
  readonly proof: Proof;
  /** What a person should know of how it went: times rounded, clips parted, and the like. */
  readonly notes: readonly string[];
}

/**
 * Everything that one of a project's deliveries asks for, at each of its densities. Throws the first finding that stops delivery, `missing-picture`, `nothing-picked`, `name-collision`, `bad-name`, `frame-too-large`, `too-many-pages`,
 * `picture-too-large` or `proof-failed`.
 */
export function deliver(project: Project, delivery: Delivery, art: Art, png: PngCodec, onProgress: OnProgress = () => {}): Delivered {
  const contents = contentsOf(project, delivery, art);
  const each = delivery.densities.map((density, k) =>
    deliverContents(scaledContents(contents, density), delivery, density, png, (done) =>
      onProgress((k + done) / delivery.densities.length),
    ),
  );
  const contact = delivery.data.contact ? contactSheet(contents, delivery.name, delivery.name, png) : [];
  const [first] = each as [DeliveredAtlas];
  const page = delivery.data.page && first.atlas ? [handout(delivery.name, first.atlas, first.files)] : [];
  const files = [...each.flatMap((one) => one.files), ...page, ...contact];
  checkFileNames(files, t('delivery "{name}"', { name: delivery.name }));
  return {
    files,
    pages: each.flatMap(({ pages }) => pages),
    proof: first.proof,
    notes: [...new Set([...each.flatMap(({ notes }) => notes), ...tooLarge(each.flatMap(({ pages }) => pages))])],
  };
}

/** Every graphics processor in use supports this side; not all support larger ones. */
const SAFE_SIDE = 4096; // px

function tooLarge(pages: readonly DeliveredPage[]): string[] {
  return pages.flatMap(({ image, size: { w, h } }) =>
    Math.max(w, h) > SAFE_SIDE
      ? [
          t("{image} is {w} × {h} px: some phones and older machines allow {safeSide} px a side at most, and then show nothing.", {
            image,
            w,
            h,
            safeSide: SAFE_SIDE,
          }),
        ]
      : [],
  );
}

/** With the atlas, even if its file is not wanted; null for films, which need none. */
interface DeliveredAtlas extends Delivered {
  readonly atlas: Atlas | null;
}

/** Delivers frames as they are: loose pictures, or a project's at one density. Throws as `deliver` does. */
export function deliverContents(
  contents: Contents,
  delivery: Delivery,
  density: Density,
  png: PngCodec,
  onProgress: OnProgress = () => {},
): DeliveredAtlas {
  refuseSameNames(contents.frames);
  if (contents.shape?.traits.cells && delivery.kind !== "grid")
    throw new CaravanError(
      "bad-metadata",
      t('delivery "{name}"', { name: delivery.name }),
      t("Its example places frames by column and row, and these pictures have neither."),
      t("Deliver a grid sheet, or in the shape of another example."),
    );
  const stem = stemOf(delivery, density);
  if (delivery.kind === "films") {
    const made = films(contents, delivery, stem, png, onProgress);
    return {
      files: made.films.map(({ file }) => file),
      pages: made.films.map(({ file, size, pictures }) => ({
        image: file.path,
        suffix: density.suffix,
        size,
        occupancy: 1,
        memory: size.w * size.h * 4 * pictures,
      })),
      proof: made.proof,
      notes: made.notes,
      atlas: null,
    };
  }
  const laid = laidOut(contents, delivery, stem, (done) => onProgress(0.5 * done));
  const { files, atlas, proof, notes } = atlasFiles(laid, contents, delivery, stem, density.scale, png, (done) =>
    onProgress(0.5 + 0.5 * done),
  );
  const pages = laid.pages.map(({ image, pixels: { width: w, height: h }, occupancy, layers }): DeliveredPage => {
    const over = contents.layers.flatMap(({ name }, k): [string, string][] => (layers?.[k] ? [[name, layers[k].image]] : []));
    return {
      ...{ image, suffix: density.suffix, size: { w, h }, occupancy },
      memory: w * h * 4 * (1 + over.length),
      ...(over.length > 0 ? { layers: Object.fromEntries(over) } : {}),
    };
  });
  return { files, pages, proof, notes, atlas };
}

function laidOut(contents: Contents, { kind, packing, sheet }: Delivery, stem: string, onProgress: OnProgress): Layout {
  switch (kind) {
    case "atlas":
      return atlasPages(contents, contents.shape ? packingIn(contents.shape.traits, packing) : packing, stem, onProgress);
    case "grid":
      return gridSheet(contents, sheet, stem);
    case "strips":
      return strips(contents, sheet, stem);
    case "singles":
      return singlePictures(contents, stem);
    case "films":
      throw new Error("Films have no pages.");
    default:
      return unreachable(kind);
  }
}

function refuseSameNames(frames: readonly FrameToDeliver[]): void {
  const seen = new Set<string>();
  for (const { name } of frames) {
    if (seen.has(name))
      throw new CaravanError(
        "name-collision",
        t('frame "{name}"', { name }),
        t("Two frames have this name; a game could not distinguish them."),
        t("Rename one of them, or use a more specific name pattern."),
      );
    seen.add(name);
  }
}
