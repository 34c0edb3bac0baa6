/**
 * Edits layers over the pictures of sources. Layers with one name are one layer of the project: renamed and blended together everywhere.
 */
import { withAnchoredFrames } from "../marks";
import {
  type Blend,
  CaravanError,
  type Clearing,
  checkedLayerName,
  counted,
  type Layer,
  MOST_LAYERS,
  type Picture,
  type Project,
  refuseTooMany,
  type Source,
  type SourceId,
  sourceById,
} from "../model";
import type { Coverage } from "../raster";
import { t } from "../words";
import { layerFiles, type StoredPicture } from "./changed-art";
import { framesAgain } from "./cutting";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { withCut } from "./with-cut";
import { withSource } from "./with-source";

/** A layer that is to be, its pictures stored already. */
export interface NewLayer {
  readonly name: string;
  readonly blend: Blend;
  readonly clearing?: Clearing | undefined;
  /** One for each of the source's pictures, as large as that. */
  readonly pictures: readonly StoredPicture[];
}

/**
 * Adds a layer over a source's pictures, above the existing ones. `coverages` are of its pictures with all layers, including the new one:
 * its recipe runs again. A layer name that the project already uses gets the same spelling and blend mode. Throws `bad-name`, `name-taken`,
 * `picture-mismatch`, `bad-count`, `too-many-pictures`, `bad-call` for a source of pieces.
 */
export const addLayer = edit(
  (project, id: SourceId, { name }: NewLayer, _coverages: readonly Coverage[]) =>
    t("add the layer {name} to {source}", { name, source: sourceById(project, id).name }),
  (project, id, layer, coverages): Project => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    refuseTooMany(project, layer.pictures.length);
    return withCut(project, cutAgain(sourceWithLayer(project, source, layer), coverages));
  },
);

/** The source with a further layer, still with the frames of before. Throws as `addLayer` does. */
export function sourceWithLayer(project: Project, source: Source, layer: NewLayer): Source {
  return { ...source, layers: [...(source.layers ?? []), layerFor(project, source, layer)] };
}

/** The layer as the document has it. */
export function layerFor(project: Project, source: Pick<Source, "name" | "pictures" | "layers">, layer: NewLayer): Layer {
  const { layers = [] } = source;
  const { name, blend } = alikeInProject(project, { name: checkedLayerName(layer.name), blend: layer.blend });
  if (layers.some((each) => sameName(each.name, name)))
    throw new CaravanError(
      "name-taken",
      source.name,
      t('It has a layer "{name}" already.', { name }),
      t("Choose another name, or give that one's new art."),
    );
  if (layers.length >= MOST_LAYERS)
    throw new CaravanError(
      "bad-count",
      source.name,
      t("It has {layers}, which is the limit.", { layers: counted(MOST_LAYERS, "layer") }),
      t("Remove one first."),
    );
  if (layer.pictures.length !== source.pictures.length)
    throw new CaravanError(
      "picture-mismatch",
      source.name,
      t('The layer "{name}" has {pictures}, and below it are {below}.', {
        name,
        pictures: counted(layer.pictures.length, "picture"),
        below: source.pictures.length,
      }),
      t("Give as many, one over each."),
    );
  for (const [k, { width, height }] of layer.pictures.entries()) {
    const below = source.pictures[k] as Picture;
    if (width !== below.width || height !== below.height)
      throw new CaravanError(
        "picture-mismatch",
        source.name,
        t('The layer "{name}" is {width} × {height} px, and what is below it {belowW} × {belowH} px.', {
          name,
          width,
          height,
          belowW: below.width,
          belowH: below.height,
        }),
        t("Make them the same size: layers are combined pixel by pixel."),
      );
  }
  const files = layerFiles(project, source, name);
  return {
    ...{ name, blend },
    ...(layer.clearing ? { clearing: layer.clearing } : {}),
    pictures: layer.pictures.map(({ sha256, width, height }, k) => ({ file: files[k] as string, sha256, width, height })),
  };
}

/** A layer of a name that the project has is spelled and blended as there. */
function alikeInProject({ sources }: Pick<Project, "sources">, layer: { name: string; blend: Blend }): { name: string; blend: Blend } {
  const there = sources.flatMap(({ layers = [] }) => layers).find(({ name }) => sameName(name, layer.name));
  return there ? { name: there.name, blend: there.blend } : layer;
}

/** Removes a layer from a source. `coverages` are of the rest. Throws `not-found`. */
export const removeLayer = edit(
  (project, id: SourceId, name: string, _coverages: readonly Coverage[]) =>
    t("remove the layer {name} from {source}", { name, source: sourceById(project, id).name }),
  (project, id, name, coverages): Project => {
    const { layers: before, ...source } = sourceById(project, id);
    layerNamed(project, id, name);
    const layers = (before ?? []).filter((each) => each.name !== name);
    return withCut(project, cutAgain(layers.length > 0 ? { ...source, layers } : source, coverages));
  },
);

/** Clears the opaque ground of a layer's pictures, or leaves it. `coverages` are of all layers afterwards. Throws `not-found`. */
export const setLayerClearing = edit(
  (project, id: SourceId, name: string, clearing: Clearing | null, _coverages: readonly Coverage[]) =>
    clearing
      ? t("clear the background of {name} of {source}", { name, source: sourceById(project, id).name })
      : t("restore the background of {name} of {source}", { name, source: sourceById(project, id).name }),
  (project, id, name, clearing, coverages): Project => {
    const source = sourceById(project, id);
    const { clearing: before, ...layer } = layerNamed(project, id, name);
    if (JSON.stringify(before) === JSON.stringify(clearing ?? undefined)) return project;
    const changed: Layer = clearing ? { ...layer, clearing } : layer;
    return withCut(project, cutAgain({ ...source, layers: replaced(source.layers, changed) }, coverages));
  },
);

/** Sets the blend mode of all layers with a name. Throws `not-found`. */
export const blendLayer = edit(
  (_project, name: string, blend: Blend) => `${blend === "normal" ? "paint" : blend} ${name}`,
  (project, name, blend) => withLayers(project, name, (layer) => ({ ...layer, blend })),
);

/** Throws `not-found`, `bad-name`, `name-taken` if a source with it also has a layer with the new name. */
export const renameLayer = edit(
  (_project, name: string, to: string) => t("rename the layer {name} to {to}", { name, to: to.trim() }),
  (project, name, to) => {
    const others = {
      sources: project.sources.map((source) => ({ ...source, layers: source.layers?.filter((each) => each.name !== name) })),
    };
    const checked = checkedLayerName(to);
    const twice = others.sources.find(
      (source, k) =>
        source.layers?.some((each) => sameName(each.name, checked)) && project.sources[k]?.layers?.some((each) => each.name === name),
    );
    if (twice)
      throw new CaravanError("name-taken", twice.name, t('It has a layer "{name}" already.', { name: checked }), t("Choose another name."));
    return withLayers(project, name, (layer) => ({
      ...layer,
      ...alikeInProject(others as Project, { name: checked, blend: layer.blend }),
    }));
  },
);

/** Moves a layer of a source by a number of places, up if positive. Throws `not-found`. */
export const moveLayer = edit(
  (project, id: SourceId, name: string, by: number) =>
    by > 0
      ? t("move {name} up in {source}", { name, source: sourceById(project, id).name })
      : t("move {name} down in {source}", { name, source: sourceById(project, id).name }),
  (project, id, name, by) => {
    const source = sourceById(project, id);
    const layer = layerNamed(project, id, name);
    const { layers = [] } = source;
    const from = layers.indexOf(layer);
    const to = Math.min(layers.length - 1, Math.max(0, from + by));
    return to === from ? project : withSource(project, { ...source, layers: layers.toSpliced(from, 1).toSpliced(to, 0, layer) });
  },
);

function sameName(a: string, b: string): boolean {
  return a.toLowerCase() === b.toLowerCase();
}

function layerNamed(project: Project, id: SourceId, name: string): Layer {
  const source = sourceById(project, id);
  const layer = source.layers?.find((each) => each.name === name);
  if (!layer) throw new CaravanError("not-found", source.name, t('It has no layer "{name}".', { name }), t("Choose one that it has."));
  return layer;
}

function replaced(layers: readonly Layer[] = [], layer: Layer): Layer[] {
  return layers.map((each) => (each.name === layer.name ? layer : each));
}

function withLayers(project: Project, name: string, change: (layer: Layer) => Layer): Project {
  let found = false;
  const sources = project.sources.map((source): Source => {
    if (!source.layers?.some((each) => each.name === name)) return source;
    found = true;
    const layers = source.layers.map((each) => (each.name === name ? change(each) : each));
    return JSON.stringify(layers) === JSON.stringify(source.layers) ? source : { ...source, layers };
  });
  if (!found)
    throw new CaravanError("not-found", t('layer "{name}"', { name }), t("No source has such a layer."), t("Choose an existing one."));
  return sources.every((source, k) => source === project.sources[k]) ? project : { ...project, sources };
}

function cutAgain(source: Source, coverages: readonly Coverage[]): Source {
  return source.cut ? withAnchoredFrames(source, framesAgain(source, source.cut, coverages)) : source;
}
