/**
 * Finds the layers that a metadata file lists: pictures of equal size on top of the described one, in a list or record named like layers,
 * or in fields beside the picture's own that are named like light or shade.
 */
import { BLENDS, type Blend, pathKey } from "../model";
import type { Tree } from "../notation";
import { NAME_WORDS, says } from "./words";

/** A layer as given by a file. */
export interface ToldLayer {
  readonly name: string;
  /** The file name of its picture, without folders. */
  readonly image: string;
  /** Null if the file says nothing, or nothing that we know. */
  readonly blend: Blend | null;
  /** The file's own word for its blend mode; null if there is none. */
  readonly blendSaid: string | null;
  /** 0 to 1; 1 by default. */
  readonly opacity: number;
}

export interface ToldLayers {
  /** The layers above or below the described picture, in the file's order. */
  readonly layers: readonly ToldLayer[];
  /** The picture's own position among the file's layers; null if it is not one of them. */
  readonly place: number | null;
}

/** Words for layers, and the blend modes of such layers. */
const NAMED: readonly (readonly [RegExp, Blend])[] = [
  [/^(lights?|lit|lamplight|glows?|glowing|emission|emissive|emit|add|additive|bloom|shine|flares?)$/, "add"],
  [/^(shadows?|shades?|shading|dark|darkness|occlusion|ao|multiply|multiplied)$/, "multiply"],
  [/^(over|overlay|top|front|lines?|ink|hair|cloth|clothes|clothing|robe|armou?r|gear|details?|fx|layer\d*)$/, "normal"],
];

/** The blend mode of a layer with such a name; null if the name suggests none. */
export function blendOfName(name: string): Blend | null {
  const word = name.toLowerCase();
  return NAMED.find(([pattern]) => pattern.test(word))?.[1] ?? null;
}

/** Words for ways of blending that are ours under another name. */
const BLEND_WORDS: Readonly<Record<string, Blend>> = {
  ...Object.fromEntries(BLENDS.map((blend) => [blend, blend])),
  ...{ additive: "add", plus: "add", lighter: "add", lineardodge: "add" },
  ...{ over: "normal", sourceover: "normal", srcover: "normal", alpha: "normal", none: "normal", mul: "multiply", modulate: "multiply" },
};

/** `picture` is the file name of the picture that is described. Cost: O(values). */
export function layersIn(tree: Tree, picture: string): ToldLayers {
  const found: ToldLayer[] = [];
  visit(tree, "", picture, found);
  const all = distinct(found);
  const place = all.findIndex(({ image }) => alike(image, picture));
  return { layers: all.filter((_, k) => k !== place), place: place < 0 ? null : place };
}

function visit(tree: Tree, key: string, picture: string, found: ToldLayer[]): void {
  if (typeof tree !== "object" || tree === null) return;
  const members = Object.entries(tree) as [string, Tree][];
  const name = (own: string) => (Array.isArray(tree) ? null : own);
  if (!says(key, ["layer*", "pass", "passes", "overlay*"])) {
    found.push(...besidePicture(tree, picture));
    for (const [own, each] of members) visit(each, name(own) ?? key, picture, found);
    return;
  }
  const own = members.flatMap(([own, each]) => layerOf(each, name(own)) ?? []);
  // One record that is itself a layer: `layer: { image, blend }`.
  found.push(...(own.length > 0 ? own : [layerOf(tree, null) ?? []].flat()));
}

/** `{ image: "camp.png", light: "camp_light.png" }`, where one of them is the picture. */
function besidePicture(tree: object, picture: string): ToldLayer[] {
  if (Array.isArray(tree)) return [];
  const named = Object.entries(tree).flatMap(([key, value]) =>
    typeof value === "string" && isPicture(value) ? [{ key, image: fileOf(value), isLayer: blendOfName(key) !== null }] : [],
  );
  if (!named.some(({ isLayer }) => !isLayer) || !named.some(({ image }) => alike(image, picture))) return [];
  return named.flatMap(({ key, image, isLayer }) => (isLayer ? [{ ...NOTHING_SAID, name: key, image }] : []));
}

/** What a member of a list of layers says, if it names a picture. */
function layerOf(tree: Tree, key: string | null): ToldLayer | null {
  if (typeof tree === "string") return isPicture(tree) ? { ...NOTHING_SAID, name: key ?? stemOf(tree), image: fileOf(tree) } : null;
  if (typeof tree !== "object" || tree === null || Array.isArray(tree)) return null;
  const fields = Object.entries(tree) as [string, Tree][];
  const image = fields.find(([, value]) => typeof value === "string" && isPicture(value))?.[1];
  if (typeof image !== "string") return null;
  const called = fields.find(([name, value]) => says(name, NAME_WORDS) && typeof value === "string" && !isPicture(value))?.[1];
  const blendSaid = fields.find(([name, value]) => says(name, ["blend*", "mode", "composit*"]) && typeof value === "string")?.[1];
  const opacity = fields.find(([name, value]) => says(name, ["opacity", "alpha", "strength"]) && typeof value === "number")?.[1];
  const said = typeof blendSaid === "string" ? blendSaid : null;
  return {
    name: typeof called === "string" && called !== "" ? called : (key ?? stemOf(image)),
    image: fileOf(image),
    blend: said === null ? null : (BLEND_WORDS[said.toLowerCase().replace(/[^a-z]/g, "")] ?? null),
    blendSaid: said,
    opacity: typeof opacity === "number" ? shareOf(opacity) : 1,
  };
}

/** Opacities are out of 1, 100 or 255. */
function shareOf(opacity: number): number {
  return Math.min(1, Math.max(0, opacity <= 1 ? opacity : opacity <= 100 ? opacity / 100 : opacity / 255));
}

const NOTHING_SAID = { blend: null, blendSaid: null, opacity: 1 };

/** One per picture: the first that is given. */
function distinct(layers: readonly ToldLayer[]): ToldLayer[] {
  const byImage = new Map<string, ToldLayer>();
  for (const layer of layers) if (!byImage.has(pathKey(layer.image))) byImage.set(pathKey(layer.image), layer);
  return [...byImage.values()];
}

/** Whether a text names a picture file. */
export function isPicture(text: string): boolean {
  return text.length < 300 && /[^/\\]\.(png|webp|gif|jpe?g|avif|bmp|apng|tga)$/i.test(text);
}

const fileOf = (path: string) => path.slice(Math.max(path.lastIndexOf("/"), path.lastIndexOf("\\")) + 1);
const stemOf = (path: string) => fileOf(path).replace(/\.[^.]*$/, "");
const alike = (a: string, b: string) => pathKey(a) === pathKey(b);
