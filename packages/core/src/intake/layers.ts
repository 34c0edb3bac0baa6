/**
 * Recognises pictures that are layers of others: by names with one more word, `camp.png` and `camp_light.png`, or from a layered file.
 */
import type { NewLayer } from "../edit";
import { type Blend, fitFileName, fittedName, freeName, MOST_LAYERS } from "../model";
import { type Choices, clearingFor, type Proposal, type ProposedLayer } from "./proposal";
import type { TakenPicture } from "./taken";

/** Words that tell of layers, and how such layers lie over what is below. */
const WORDS: readonly (readonly [RegExp, Blend])[] = [
  [/^(lights?|lit|lamplight|glows?|glowing|emission|emissive|emit|add|additive|bloom|shine|flares?)$/, "add"],
  [/^(shadows?|shades?|shading|dark|darkness|occlusion|ao|multiply|multiplied)$/, "multiply"],
  [/^(over|overlay|top|front|lines?|ink|hair|cloth|clothes|clothing|robe|armou?r|gear|details?|fx|layer\d*)$/, "normal"],
];

/** How a layer of such a name lies over what is below; null where the name tells nothing. */
export function blendOfName(name: string): Blend | null {
  const word = name.toLowerCase();
  return WORDS.find(([pattern]) => pattern.test(word))?.[1] ?? null;
}

/** Something of a drop that may lie over another, or under it. */
export interface Stackable {
  /** Its folder and its name without an ending. */
  readonly path: string;
  /** The name's numbers for a series, in order; null for a single picture. */
  readonly numbers: readonly number[] | null;
  readonly pictures: readonly TakenPicture[];
}

export interface FoundLayers {
  /** For each thing what lies over it, by places in the list. */
  readonly over: ReadonlyMap<number, readonly { readonly at: number; readonly layer: ProposedLayer }[]>;
  /** Things that are called as layers of others and do not fit over them, with the reason. */
  readonly unfit: ReadonlyMap<number, string>;
}

/** Cost: O(things). */
export function findLayers(things: readonly Stackable[]): FoundLayers {
  const byPath = new Map(things.map(({ path }, k) => [path.toLowerCase(), k]));
  const over = new Map<number, { at: number; layer: ProposedLayer }[]>();
  const unfit = new Map<number, string>();
  for (const [at, thing] of things.entries()) {
    const [, below, name] = /^(.*[^\s_.-])[\s_.-]+([^\s_.\-/]+)$/.exec(thing.path) ?? [];
    const blend = name === undefined ? null : blendOfName(name);
    const lowest = below === undefined ? undefined : byPath.get(below.toLowerCase());
    if (blend === null || name === undefined || lowest === undefined) continue;
    const why = whyUnfit(things[lowest] as Stackable, thing);
    const there = over.get(lowest) ?? [];
    if (why !== null) unfit.set(at, why);
    else if (there.length < MOST_LAYERS) over.set(lowest, [...there, { at, layer: { name, blend, pictures: thing.pictures } }]);
  }
  // What is a layer itself carries none.
  const layers = new Set([...over.values()].flat().map(({ at }) => at));
  for (const at of layers) over.delete(at);
  // Light and shade lie over what is painted.
  const height = ({ layer }: { layer: ProposedLayer }) => ["normal", "multiply", "add"].indexOf(layer.blend);
  return { over: new Map([...over].map(([at, each]) => [at, each.toSorted((a, b) => height(a) - height(b))])), unfit };
}

function whyUnfit(below: Stackable, over: Stackable): string | null {
  const name = (path: string) => path.slice(path.lastIndexOf("/") + 1);
  if ((below.numbers === null) !== (over.numbers === null) || below.pictures.length !== over.pictures.length)
    return `It is called as a layer of ${name(below.path)}, which has ${below.pictures.length} of its pictures; it has ${over.pictures.length}.`;
  if (below.numbers?.some((number, k) => number !== over.numbers?.[k]))
    return `It is called as a layer of ${name(below.path)}, whose pictures have other numbers.`;
  const unlike = over.pictures.find(({ width, height }, k) => width !== below.pictures[k]?.width || height !== below.pictures[k]?.height);
  if (!unlike) return null;
  const [first] = below.pictures;
  return `It is called as a layer of ${name(below.path)}, but is not as large: ${unlike.width} × ${unlike.height} px over ${first?.width} × ${first?.height}.`;
}

/** A thing with what lies over it; `apart` are these as they would come in by themselves. */
export function withLayers(proposal: Proposal, layers: readonly ProposedLayer[], apart: readonly Proposal[]): Proposal {
  const names = layers.map(({ name }) => name).join(", ");
  return {
    ...proposal,
    what: `${proposal.what}, with the ${layers.length === 1 ? "layer" : "layers"} ${names}`,
    layering: { whole: "One source with its layers", apart: `${layers.length + 1} sources` },
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

/** Layers as they come in, under names that fit and are distinct. */
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
