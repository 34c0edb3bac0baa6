/**
 * Recognises pictures that are layers of others: by names with one more word, `camp.png` and `camp_light.png`, or from a layered file.
 */
import type { NewLayer } from "../edit";
import { blendOfName, type ToldLayer } from "../metadata";
import { fitFileName, fittedName, freeName, MOST_LAYERS, pathKey } from "../model";
import { t } from "../words";
import type { TakenPicture } from "./drop-contents";
import { withoutEnding } from "./names";
import { type Choices, clearingFor, type Proposal, type ProposedLayer } from "./proposal";

/** Something in a drop that may be a layer, or have layers. */
export interface Stackable {
  /** Its folder and its name without an ending. */
  readonly path: string;
  /** The name's numbers for a series, in order; null for a single picture. */
  readonly numbers: readonly number[] | null;
  readonly pictures: readonly TakenPicture[];
  /** The layers that its metadata lists. */
  readonly told?: readonly ToldLayer[];
}

export interface FoundLayers {
  /** The layers of each thing, by index in the list. */
  readonly over: ReadonlyMap<number, readonly { readonly at: number; readonly layer: ProposedLayer }[]>;
  /** Things named like layers of others that do not fit, with the reason. */
  readonly unfit: ReadonlyMap<number, string>;
  /** For things with layers in their metadata, what could not be followed. */
  readonly notes: ReadonlyMap<number, readonly string[]>;
}

/** Cost: O(things). */
export function findLayers(things: readonly Stackable[]): FoundLayers {
  const byPath = new Map(things.map(({ path }, k) => [pathKey(path), k]));
  const over = new Map<number, { at: number; layer: ProposedLayer }[]>();
  const unfit = new Map<number, string>();
  const notes = new Map<number, string[]>();
  const lay = (lowest: number, at: number, layer: Omit<ProposedLayer, "pictures">) => {
    const thing = things[at] as Stackable;
    const why = whyUnfit(things[lowest] as Stackable, thing);
    const there = over.get(lowest) ?? [];
    if (why !== null) unfit.set(at, why);
    else if (there.length < MOST_LAYERS) over.set(lowest, [...there, { at, layer: { ...layer, pictures: thing.pictures } }]);
  };
  // What a file says takes precedence over what names suggest.
  const told = new Set<number>();
  for (const [lowest, { path, told: layers = [] }] of things.entries()) {
    const folder = path.slice(0, path.lastIndexOf("/") + 1);
    for (const layer of layers) {
      const at = byPath.get(pathKey(`${folder}${withoutEnding(layer.image)}`));
      const note = at === undefined ? missing(layer) : at === lowest || told.has(at) ? null : unfollowed(layer);
      if (note !== null) notes.set(lowest, [...(notes.get(lowest) ?? []), note]);
      if (at === undefined || at === lowest || told.has(at)) continue;
      told.add(at);
      lay(lowest, at, { name: layer.name, blend: layer.blend ?? (layer.blendSaid === null ? blendOfName(layer.name) : null) ?? "normal" });
    }
  }
  for (const [at, thing] of things.entries()) {
    if (told.has(at)) continue;
    const [, below, name] = /^(.*[^\s_.-])[\s_.-]+([^\s_.\-/]+)$/.exec(thing.path) ?? [];
    const blend = name === undefined ? null : blendOfName(name);
    const lowest = below === undefined ? undefined : byPath.get(pathKey(below));
    if (blend === null || name === undefined || lowest === undefined) continue;
    lay(lowest, at, { name, blend });
  }
  // A layer has no layers of its own.
  const layers = new Set([...over.values()].flat().map(({ at }) => at));
  for (const at of layers) over.delete(at);
  // Light and shade go above painted layers.
  const height = ({ layer }: { layer: ProposedLayer }) => ["normal", "multiply", "add"].indexOf(layer.blend);
  return { over: new Map([...over].map(([at, each]) => [at, each.toSorted((a, b) => height(a) - height(b))])), unfit, notes };
}

function missing({ name, image }: ToldLayer): string {
  return t("Its metadata lists a layer {name} in {image}, which was not dropped with it.", { name, image });
}

/** What of a layer has no counterpart here; null if all of it has. */
function unfollowed({ name, blend, blendSaid, opacity }: ToldLayer): string | null {
  const parts = [
    ...(blend === null && blendSaid !== null
      ? [
          t("The layer {name} is blended by {blendSaid}, which Caravan does not support: it is imported as painted over.", {
            name,
            blendSaid,
          }),
        ]
      : []),
    ...(opacity < 1
      ? [
          t("The layer {name} has an opacity of {opacity} %, which Caravan does not support: it is imported opaque.", {
            name,
            opacity: Math.round(opacity * 100),
          }),
        ]
      : []),
  ];
  return parts.length > 0 ? parts.join(" ") : null;
}

function whyUnfit(below: Stackable, over: Stackable): string | null {
  const name = (path: string) => path.slice(path.lastIndexOf("/") + 1);
  if ((below.numbers === null) !== (over.numbers === null) || below.pictures.length !== over.pictures.length)
    return t("It has the name of a layer of {name}, which has {pictures} of its pictures; it has {own}.", {
      name: name(below.path),
      pictures: below.pictures.length,
      own: over.pictures.length,
    });
  if (below.numbers?.some((number, k) => number !== over.numbers?.[k]))
    return t("It has the name of a layer of {name}, whose pictures have other numbers.", { name: name(below.path) });
  const unlike = over.pictures.find(({ width, height }, k) => width !== below.pictures[k]?.width || height !== below.pictures[k]?.height);
  if (!unlike) return null;
  const [first] = below.pictures;
  return t("It has the name of a layer of {name}, but has a different size: {width} × {height} px over {belowW} × {belowH}.", {
    name: name(below.path),
    width: unlike.width,
    height: unlike.height,
    belowW: first?.width ?? "",
    belowH: first?.height ?? "",
  });
}

/** A thing with its layers; `apart` are the same as separate imports. */
export function withLayers(proposal: Proposal, layers: readonly ProposedLayer[], apart: readonly Proposal[]): Proposal {
  const names = layers.map(({ name }) => name).join(", ");
  return {
    ...proposal,
    what:
      layers.length === 1
        ? t("{what}, with the layer {names}", { what: proposal.what, names })
        : t("{what}, with the layers {names}", { what: proposal.what, names }),
    layering: { whole: t("One source with its layers"), apart: t("{layers} sources", { layers: layers.length + 1 }) },
    layers,
    arrivals: (choices) => {
      const made = proposal.arrivals(choices);
      const [only, ...others] = made;
      if (!choices.layers || !only || others.length > 0)
        return [...made, ...apart.flatMap((each) => each.arrivals({ ...choices, cut: each.usual.cut, clips: false }))];
      return [{ ...only, layers: newLayers(layers, choices) }];
    },
  };
}

/** Layers as imported, with valid and distinct names. */
export function newLayers(layers: readonly ProposedLayer[], choices: Choices): NewLayer[] {
  const taken = new Set<string>();
  return layers.map(({ name, blend, pictures }) => {
    const fit = fitFileName(fittedName(name.replaceAll("/", " "), 50) ?? "layer") || "layer";
    const free = freeName(fit, taken, " ");
    taken.add(free);
    const ground = pictures.every((each) => each.ground) ? (pictures[0]?.ground ?? null) : null;
    return {
      ...{ name: free, blend },
      ...clearingFor(ground, choices),
      pictures: pictures.map(({ sha256, width, height }) => ({ sha256, width, height })),
    };
  });
}
