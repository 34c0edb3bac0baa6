/**
 * Reads layered pictures in the OpenRaster format: a ZIP with a layer stack in XML and a PNG per layer.
 *
 * After the OpenRaster file layout and layer stack specification (freedesktop.org, 0.0.5). Layers are listed from the top down. Blend modes
 * other than source-over, which few files use, are reported and blended source-over.
 */
import { XMLParser } from "fast-xml-parser";
import { layered } from "../assemble";
import { type Blend, CaravanError } from "../model";
import { clearPixels, lay, type Pixels } from "../raster";
import { t } from "../words";
import type { PngCodec } from "./png";
import { LONGEST_SIDE } from "./png-structure";
import { readZip, textFromUtf8 } from "./zip";

/** A layer, or a flattened group, on the whole canvas. */
export interface Layer {
  readonly name: string;
  /** Its blend mode; an unsupported one is treated as painted over. */
  readonly blend: Blend;
  readonly pixels: Pixels;
}

export interface LayeredPicture {
  /** From the bottom up, at least one; hidden ones are left out. */
  readonly layers: Layer[];
  /** How many were hidden. */
  readonly hidden: number;
  /** How many groups there are. */
  readonly groups: number;
  /** Layers that are blended in ways that are not known here, in the file's words. */
  readonly unlike: { readonly name: string; readonly blended: string }[];
  /** Layers that are damaged, with the reason. */
  readonly damaged: { readonly name: string; readonly why: string }[];
  /** Numbers of layers and groups that cannot be read, in the file's words, with what is used instead. */
  readonly unread: { readonly name: string; readonly field: string; readonly text: string; readonly used: number }[];
  /** How many pixels look different, composed of the layers, from the merged picture in the file; null if it has none of its size. */
  readonly unlikeMerged: number | null;
}

/** By its first entry, or by the file's name where a packing program has sorted the entries anew. */
export function looksLikeOpenRaster(bytes: Uint8Array, where: string): boolean {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return false;
  return textFromUtf8(bytes.subarray(30, 54)).startsWith("mimetypeimage/openraster") || /\.ora$/i.test(where);
}

/** The format's names of compositing operations, as far as layers here have them. */
const BLENDS: ReadonlyMap<string, Blend> = new Map([
  ["svg:src-over", "normal"],
  ["svg:plus", "add"],
  ["svg:multiply", "multiply"],
]);

/** Composed with other roundings, a channel may differ by so much without looking different. */
const ROUNDING = 6;

type Node = Record<string, unknown>;

/** `groups` says whether a group becomes one layer or each of its layers one. Throws `damaged-picture` or what ZIP and PNG throw. */
export function readOpenRaster(bytes: Uint8Array, where: string, png: PngCodec, groups: "flatten" | "apart"): LayeredPicture {
  const files = new Map(readZip(bytes, where).map((file) => [file.path, file.bytes]));
  const stack = files.get("stack.xml");
  const damage = (what: string) => new CaravanError("damaged-picture", where, what, t("Save it as OpenRaster again."));
  if (!stack) throw damage(t("The layered picture has no stack.xml."));
  const text = textFromUtf8(stack);
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(text)) throw damage(t("Its stack.xml defines entities, which are not read."));
  let nodes: Node[];
  try {
    // Numeric entities too, such as &#228;: some writers have no other letters than ASCII.
    const parser = new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: "", htmlEntities: true });
    nodes = parser.parse(text, true) as Node[];
  } catch (cause) {
    throw damage(t("Its stack.xml is damaged: {reason}.", { reason: cause instanceof Error ? cause.message : "unreadable" }));
  }
  const image = nodes.find((node) => "image" in node);
  const width = Number(attribute(image, "w"));
  const height = Number(attribute(image, "h"));
  if (!(width > 0 && height > 0 && width <= LONGEST_SIDE && height <= LONGEST_SIDE))
    throw damage(t("Its stack.xml does not say how large the picture is."));
  const found = {
    ...{ hidden: 0, groups: 0 },
    unlike: [] as LayeredPicture["unlike"],
    damaged: [] as LayeredPicture["damaged"],
    unread: [] as LayeredPicture["unread"],
  };
  const numberOf = (node: Node, name: string, field: string, usual: number): number => {
    const text = attribute(node, field);
    const number = Number(text);
    if (text.trim() !== "" && Number.isFinite(number)) return number;
    if (text !== "") found.unread.push({ name, field, text, used: usual });
    return usual;
  };
  const root = ((image?.image ?? []) as Node[]).find((node) => "stack" in node);

  const layersOf = (stackNode: Node | undefined): Layer[] =>
    ((stackNode?.stack as Node[] | undefined) ?? []).toReversed().flatMap((node, k): Layer[] => {
      if (!("layer" in node) && !("stack" in node)) return [];
      const name = attribute(node, "name") || t("layer {k}", { k: k + 1 });
      if (attribute(node, "visibility") === "hidden") {
        found.hidden++;
        return [];
      }
      const operation = attribute(node, "composite-op") || "svg:src-over";
      const blend = BLENDS.get(operation) ?? "normal";
      if (!BLENDS.has(operation)) found.unlike.push({ name, blended: operation });
      const opacity = Math.max(0, Math.min(1, numberOf(node, name, "opacity", 1)));
      if ("stack" in node) {
        found.groups++;
        const inner = layersOf(node);
        if (groups === "apart" || inner.length === 0)
          return inner.map((layer) => ({
            name: `${name}/${layer.name}`,
            blend: layer.blend === "normal" ? blend : layer.blend,
            pixels: faded(layer.pixels, opacity),
          }));
        return [{ name, blend, pixels: faded(layered(inner), opacity) }];
      }
      const file = files.get(attribute(node, "src"));
      try {
        if (!file) throw new Error(t("Its picture {file} is missing.", { file: attribute(node, "src") }));
        const canvas = clearPixels(width, height);
        const [x, y] = [Math.round(numberOf(node, name, "x", 0)), Math.round(numberOf(node, name, "y", 0))];
        lay(canvas, png.decode(file, `${where}, ${name}`), x, y, false);
        return [{ name, blend, pixels: faded(canvas, opacity) }];
      } catch (error) {
        found.damaged.push({ name, why: error instanceof Error ? error.message : t("It is damaged.") });
        return [];
      }
    });
  const layers = layersOf(root);
  if (layers.length === 0) throw damage(t("It has no visible layer."));
  const merged = mergedIn(files, png, where);
  const unlikeMerged = merged?.width === width && merged.height === height ? unlikeCount(layered(layers), merged) : null;
  return { layers, ...found, unlikeMerged };
}

/** The picture that the file's program composed; null if it is missing or damaged. */
function mergedIn(files: ReadonlyMap<string, Uint8Array>, png: PngCodec, where: string): Pixels | null {
  const file = files.get("mergedimage.png");
  try {
    return file ? png.decode(file, `${where}, mergedimage.png`) : null;
  } catch {
    return null;
  }
}

/** How many pixels look different, by colours as their alpha lets them show. */
function unlikeCount({ bytes: a }: Pixels, { bytes: b }: Pixels): number {
  let count = 0;
  for (let at = 0; at < a.length; at += 4) {
    const [alpha, other] = [a[at + 3] as number, b[at + 3] as number];
    let most = Math.abs(alpha - other);
    for (let k = at; k < at + 3; k++) most = Math.max(most, Math.abs((a[k] as number) * alpha - (b[k] as number) * other) / 255);
    if (most > ROUNDING) count++;
  }
  return count;
}

function attribute(node: Node | undefined, name: string): string {
  return String((node?.[":@"] as Record<string, unknown> | undefined)?.[name] ?? "");
}

function faded(pixels: Pixels, opacity: number): Pixels {
  if (opacity === 1) return pixels;
  const bytes = pixels.bytes.slice();
  for (let k = 3; k < bytes.length; k += 4) bytes[k] = Math.round((bytes[k] as number) * opacity);
  return { ...pixels, bytes };
}
