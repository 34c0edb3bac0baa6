/** Names delivered files. `stem` starts the name of every file of one density. */
import { type ClipName, type Delivery, type Density, type Project, unreachable } from "../model";
import { chosenOf } from "./choice";
import { layersOf } from "./layers";
import { mirroredFilms } from "./mirrored-films";

export function stemOf({ name }: Pick<Delivery, "name">, { suffix }: Pick<Density, "suffix">): string {
  return `${name}${suffix}`;
}

/** A page of an atlas or a grid sheet; numbered only where there are several. */
export function pagePath(stem: string, page: number, pages: number): string {
  return pages === 1 ? `${stem}.png` : `${stem}-${page}.png`;
}

export function stripPath(stem: string, clip: string): string {
  return `${stem}-${clip}.png`;
}

export function singlePath(stem: string, frame: string): string {
  return `${stem}/${frame}.png`;
}

/** An APNG is a PNG, and called so. */
export function filmPath(stem: string, clip: string, format: "apng" | "gif"): string {
  return `${stem}/${clip}.${format === "gif" ? "gif" : "png"}`;
}

export const BESIDE = {
  atlas: ".atlas.json",
  frames: ".frames.csv",
  outlines: ".outlines.csv",
  times: ".times.csv",
  typed: ".atlas.ts",
  plain: ".atlas.js",
  rules: ".rules.md",
  rulesTable: ".rules.csv",
  tiles: ".tiles.png",
  tilesTable: ".tiles.csv",
  tilesData: ".tiles.json",
  palettes: ".palettes.png",
  palettesText: ".palettes.txt",
  page: ".html",
} as const;

/** A page's picture of a further layer. */
export function layerPath(page: string, layer: string): string {
  return page.replace(/(\.png)?$/, `.${layer}.png`);
}

/** A page's picture of palette indexes. */
export function placesPath(page: string): string {
  return page.replace(/(\.png)?$/, ".places.png");
}

/** There is one contact sheet for all densities. */
export function contactPath(delivery: string, page: number, pages: number): string {
  return pagePath(`${delivery}.contact`, page, pages);
}

/** Whether a delivered file is a contact sheet, which is for people. */
export function isContactPath(path: string): boolean {
  return /\.contact(-\d+)?\.png$/.test(path);
}

/** The name of a file beside the pictures: the stem with an ending. */
export function besidePath(stem: string, which: keyof typeof BESIDE): string {
  return `${stem}${BESIDE[which]}`;
}

export interface ForeseenFile {
  readonly path: string;
  /** The clip or the frame, by its place among `frames`, that it is of and is named after. */
  readonly of: { readonly clip: ClipName } | { readonly frame: number } | null;
}

/**
 * The files that a delivery will have, as far as known before packing: an atlas and a contact sheet count as one page, and metadata in the
 * shape of an example is left out. `frames` are its frames' names.
 */
export function foreseenFiles(project: Project, delivery: Delivery, frames: readonly string[]): ForeseenFile[] {
  const chosen = chosenOf(project, delivery).project;
  const clips = chosen.clips.map(({ name }) => name);
  const { layers } = layersOf(project.sources);
  const page = delivery.data.page && delivery.kind !== "films" ? [whole(besidePath(delivery.name, "page"))] : [];
  const contact = delivery.data.contact ? [whole(contactPath(delivery.name, 0, 1))] : [];
  const files = delivery.densities.flatMap((density) => {
    const stem = stemOf(delivery, density);
    const pictures = picturesOf(stem, delivery, clips, frames);
    if (delivery.kind === "films") return [...pictures, ...mirrorsOf(stem, delivery, chosen)];
    const { atlas, frames: table, times, module, rules, tiles, places } = delivery.data;
    const coloured = project.palettes?.length ? (["palettes", "palettesText"] as const) : [];
    return [
      ...pictures,
      ...layers.flatMap(({ name }) => pictures.map((each) => ({ ...each, path: layerPath(each.path, name) }))),
      ...(atlas ? [whole(besidePath(stem, "atlas"))] : []),
      ...(table ? [whole(besidePath(stem, "frames"))] : []),
      ...(table && project.marks.some(({ shape }) => shape === "outline") ? [whole(besidePath(stem, "outlines"))] : []),
      ...(times ? [whole(besidePath(stem, "times"))] : []),
      ...(rules ? [whole(besidePath(stem, "rules")), whole(besidePath(stem, "rulesTable"))] : []),
      ...(tiles ? (["tiles", "tilesTable", "tilesData"] as const).map((which) => whole(besidePath(stem, which))) : []),
      ...(places && coloured.length > 0 ? pictures.map((each) => ({ ...each, path: placesPath(each.path) })) : []),
      ...(tiles || places ? coloured.map((which) => whole(besidePath(stem, which))) : []),
      ...(module === "none" ? [] : [whole(besidePath(stem, module))]),
    ];
  });
  return [...files, ...page, ...contact];
}

function mirrorsOf(stem: string, { films, mirroredFilms: isWanted }: Delivery, { actions, clips }: Project): ForeseenFile[] {
  if (!isWanted) return [];
  const mirrors = mirroredFilms(
    actions,
    clips.map(({ name }) => name),
  );
  return mirrors.flatMap(({ name, clip }) =>
    films.map((format) => ({ path: filmPath(stem, name, format), of: { clip: clip as ClipName } })),
  );
}

function whole(path: string): ForeseenFile {
  return { path, of: null };
}

function picturesOf(stem: string, { kind, films }: Delivery, clips: readonly ClipName[], frames: readonly string[]): ForeseenFile[] {
  switch (kind) {
    case "atlas":
    case "grid":
      return [whole(pagePath(stem, 0, 1))];
    case "strips":
      return clips.map((clip) => ({ path: stripPath(stem, clip), of: { clip } }));
    case "singles":
      return frames.map((name, frame) => ({ path: singlePath(stem, name), of: { frame } }));
    case "films":
      return clips.flatMap((clip) => films.map((format) => ({ path: filmPath(stem, clip, format), of: { clip } })));
    default:
      return unreachable(kind);
  }
}
