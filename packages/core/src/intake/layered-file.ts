/** Proposals for layered files: they become one source with its layers, or one for each layer. */
import type { Arrival } from "../edit";
import { artStem, counted, MOST_LAYERS, pathKey, type Source } from "../model";
import { t } from "../words";
import { fileOf, type LayerOfFile, type TakenArt, type TakenItem, type TakenPicture } from "./drop-contents";
import { newLayers } from "./layers";
import { type Choices, type Proposal, type ProposedLayer, picturesOf, shortList, USUAL_CHOICES } from "./proposal";

/**
 * The layers of a file as stills, if at least half of them are sources of their own already, and none is called like the file: that is how
 * it was imported earlier.
 */
export function layersAsSheets(
  { path, art }: TakenItem,
  name: string,
  sources: readonly Source[],
): { readonly still: TakenItem; readonly called: string; readonly notes: readonly string[] }[] {
  if (art.kind !== "layers") return [];
  const single = sources.filter(({ pictures }) => pictures.length === 1);
  const taken = new Set(single.flatMap((each) => [each.name, fileOf(artStem(each))]).map(pathKey));
  if (taken.has(pathKey(name))) return [];
  const there = (list: readonly LayerOfFile[]) => list.filter((layer) => taken.has(pathKey(nameOfLayer(name, layer)))).length;
  const [list] = [art.layers, ...(art.apart ? [art.apart.layers] : [])].toSorted((a, b) => there(b) / b.length - there(a) / a.length);
  if (!list || there(list) * 2 < list.length) return [];
  // Which of two layers of one name a source came from is not known.
  if (new Set(list.map((layer) => pathKey(layer.name))).size < list.length) return [];
  return list.map((layer, k) => ({
    still: { path: `${path}/${k}`, art: { kind: "still", picture: layer } },
    called: `${nameOfLayer(name, layer)}.png`,
    notes: k === 0 ? notesOfLayers(art) : [],
  }));
}

/** What the source of a layer is called, if each layer is one. */
function nameOfLayer(file: string, { name }: LayerOfFile): string {
  return `${file}-${name.replaceAll("/", "-")}`;
}

type LayersOfFile = Extract<TakenArt, { kind: "layers" }>;

/** What of the file's layers is left out or blended otherwise. */
function notesOfLayers({ hidden, unlike, damaged, unread }: LayersOfFile): string[] {
  return [
    ...(hidden > 0 ? [t("{layers} left out.", { layers: counted(hidden, "hidden layer") })] : []),
    ...unlike.map((each) =>
      t("The layer {name} is blended by {blended}, which Caravan does not support: it is imported as painted over.", {
        name: each.name,
        blended: each.blended,
      }),
    ),
    ...damaged.map((each) => t("The layer {name} is damaged and left out. {why}", { name: each.name, why: each.why })),
    ...unread.map((each) => t('The layer {name} has the {field} "{text}", which is no number: {used} is used instead.', { ...each })),
  ];
}

export function layersProposal({ path, art }: TakenItem, name: string): Proposal {
  if (art.kind !== "layers") throw new Error("Not layered.");
  const { layers: taken, apart, groups, unlike, damaged, unread, unlikeMerged } = art;
  const first = taken[0] as TakenPicture;
  const listOf = (choices: Choices) => (choices.apart && apart ? apart.layers : taken);
  const over = (list: typeof taken): ProposedLayer[] =>
    list.slice(1).map((each) => ({ name: each.name, blend: each.blend, pictures: [each] }));
  const fits = (list: readonly unknown[]) => list.length > 1 && list.length <= MOST_LAYERS + 1;
  const unlikeApart = apart && fits(apart.layers) ? apart.unlikeMerged : null;
  const parted = unlikeMerged !== null && unlikeApart !== null && unlikeApart < unlikeMerged;
  const left = parted ? unlikeApart : unlikeMerged;
  return {
    id: path,
    name,
    what: t("{layers} of {width} × {height} px: {shortList}", {
      layers: counted(taken.length, "layer"),
      width: first.width,
      height: first.height,
      shortList: shortList(taken.map((each) => each.name)),
    }),
    notes: [
      ...notesOfLayers(art),
      ...(parted
        ? [
            t("Its groups are taken apart: as one layer each, {pixels} would look different from the merged picture in the file.", {
              pixels: counted(unlikeMerged, "pixel"),
            }),
          ]
        : []),
      // Otherwise the notes above say why.
      ...(left && unlike.length + damaged.length + unread.length === 0
        ? [
            t(
              "Composed of its layers, {pixels} look different from the merged picture in the file: its program blends them in another way. If they must look the same, export it as one picture.",
              {
                pixels: counted(left, "pixel"),
              },
            ),
          ]
        : []),
    ],
    shows: taken,
    kind: "layers",
    ground: null,
    usual: { ...USUAL_CHOICES, layers: parted || fits(taken), apart: parted },
    clips: () => [],
    ...(fits(taken) || (apart && fits(apart.layers))
      ? { layering: { whole: t("One source with its layers"), apart: t("One source per layer") } }
      : {}),
    ...(apart
      ? {
          parting: {
            whole: t("{groups} as one", { groups: counted(groups, "group") }),
            apart: t("{apart} layers apart", { apart: apart.layers.length }),
          },
        }
      : {}),
    arrivals: (choices) => {
      const list = listOf(choices);
      if (list.length === 1) return [{ name, pictures: picturesOf(list) }];
      if (!choices.layers || !fits(list))
        return list.map((each) => ({ name: `${nameOfLayer(name, each)}.png`, pictures: picturesOf([each]) }));
      return [{ name, pictures: picturesOf([list[0] as TakenPicture]), layers: newLayers(over(list), choices) }];
    },
  };
}

/**
 * How a layered file is one source: with its groups as one layer each or taken apart, whichever has more of the source's layers by their names.
 * Null if it has too many layers for one source.
 */
export function wayAsOneSource(
  { usual, parting, arrivals }: Proposal,
  source: Source,
): { readonly apart: boolean; readonly arrival: Arrival } | null {
  const ways = (parting ? [usual.apart, !usual.apart] : [usual.apart]).flatMap((apart) => {
    const [arrival, ...others] = arrivals({ ...usual, layers: true, apart });
    return arrival && others.length === 0 ? [{ apart, arrival }] : [];
  });
  const [best] = ways.toSorted((a, b) => unlikeLayers(source, a.arrival) - unlikeLayers(source, b.arrival));
  return best ?? null;
}

/** How many layers only one of both has, by name. */
function unlikeLayers(source: Source, arrival: Arrival): number {
  const [own, theirs] = [source, arrival].map(({ layers = [] }) => new Set(layers.map(({ name }) => pathKey(name))));
  const lacks = (a: Set<string> | undefined, b: Set<string> | undefined) => [...(a ?? [])].filter((name) => !b?.has(name)).length;
  return lacks(own, theirs) + lacks(theirs, own);
}

/** A layered file as new art of a source, as `wayAsOneSource`. */
export function layeredArt(item: TakenItem, source: Source): Arrival | null {
  return wayAsOneSource(layersProposal(item, source.name), source)?.arrival ?? null;
}
