/** Adds, removes and replaces layers of a source, including the pixel work that this takes. */
import { addLayer, removeLayer, setLayerClearing, sourceWithLayer } from "@caravan/core/edit";
import { withoutEnding } from "@caravan/core/intake";
import { blendOfName } from "@caravan/core/metadata";
import { type CaravanError, type Clearing, type Layer, type Source, sourceById } from "@caravan/core/model";
import { sayTrouble, sayUnlessDone } from "../ui/notices";
import { type Begun, begin } from "./begun";
import { coveragesOf } from "./changed-art/coverages";
import { readInOrder } from "./changed-art/read-pictures";
import { reviewLayerArt } from "./changed-art/review";

/** Makes a change that needs the pixels of all layers; reports problems as notices. */
async function change(work: Begun, make: () => Promise<CaravanError | null>): Promise<void> {
  try {
    const error = await make();
    work.still();
    sayUnlessDone(error);
  } catch (error) {
    sayTrouble(error);
  }
}

/** Lays the pictures of files over a source's, called and blended as the files are called. */
export function layOver(source: Source, files: readonly File[]): Promise<void> {
  const work = begin();
  return change(work, async () => {
    const taken = await readInOrder(files);
    const name = nameOfLayer(source, files[0]?.name ?? "layer");
    const ground = taken.every((each) => each.ground) ? (taken[0]?.ground ?? null) : null;
    const layer = {
      ...{ name, blend: blendOfName(name) ?? "normal" },
      ...(ground ? { clearing: ground.clearing } : {}),
      pictures: taken.map(({ sha256, width, height }) => ({ sha256, width, height })),
    };
    const coverages = await coveragesOf(sourceWithLayer(work.project, source, layer));
    work.stillHas(source);
    return work.edit(addLayer, source.id, layer, coverages);
  });
}

/** "light" of `camp_light.png` over `camp`, or over the picture `art/camp.png`; the file's own name where it begins otherwise. */
function nameOfLayer(source: Source, file: string): string {
  const stem = withoutEnding(file).replace(/[\s_.-]*\d+$/, "");
  const stems = [source.name, ...source.pictures.map((each) => withoutEnding(each.file))];
  const below = stems.find((each) => stem.toLowerCase().startsWith(each.toLowerCase()) && stem.length > each.length);
  const rest = below === undefined ? stem : stem.slice(below.length).replace(/^[\s_.-]+/, "");
  return (rest || stem || "layer").slice(0, 60);
}

export function takeOff(source: Source, layer: Layer): Promise<void> {
  const work = begin();
  return change(work, async () => {
    const { layers = [], ...bare } = source;
    const left = layers.filter((each) => each !== layer);
    const coverages = await coveragesOf(left.length > 0 ? { ...bare, layers: left } : bare);
    work.stillHas(source);
    return work.edit(removeLayer, source.id, layer.name, coverages);
  });
}

export function clearLayer(source: Source, layer: Layer, clearing: Clearing | null): Promise<void> {
  const work = begin();
  return change(work, async () => {
    const { clearing: _before, ...bare } = layer;
    const next: Layer = clearing ? { ...bare, clearing } : bare;
    const layers = (source.layers ?? []).map((each) => (each === layer ? next : each));
    const coverages = await coveragesOf({ ...source, layers });
    work.stillHas(source);
    return work.edit(setLayerClearing, source.id, layer.name, clearing, coverages);
  });
}

/** New art of one layer, without its source's; reviewed like all changed art. */
export function replaceLayer(source: Source, layer: Layer, files: readonly File[]): Promise<void> {
  const work = begin();
  return change(work, async () => {
    const taken = await readInOrder(files);
    const now = sourceById(work.project, source.id);
    const pictures = now.pictures.map((picture, k) => ({
      ...picture,
      layers: taken[k] ? [{ name: layer.name, sha256: taken[k].sha256, width: taken[k].width, height: taken[k].height }] : [],
    }));
    await reviewLayerArt(work, source.id, pictures);
    return null;
  });
}
