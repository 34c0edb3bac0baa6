/** Measures how much longer a delivery takes per layer, against the same art without layers. */
import { artFrom } from "@caravan/core/art";
import { deliver } from "@caravan/core/deliver";
import { addLayer, setDelivery } from "@caravan/core/edit";
import type { Delivery, Picture, Project, SourceId } from "@caravan/core/model";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { seeded } from "../examples/draw/canvas";
import { pngCodec } from "../packages/cli/src/png";
import { openProject } from "../packages/cli/src/project";
import { type Figure, median, print } from "./figures";

const { project, art } = openProject("examples/tamarisk-road");
const png = pngCodec();
const porter = project.sources.find(({ name }) => name === "porter-walk") as Project["sources"][number];
const sheet = porter.pictures[0] as Picture;
const drawn = art.picture({ key: "", sha256: sheet.sha256, clearing: null, recolouring: null });
const random = seeded(3);

/** As much drawn as in the art itself, in other colours here and there. */
function layerOf(below: Pixels): Pixels {
  const made = clearPixels(below.width, below.height);
  for (let at = 0; at < below.bytes.length; at += 4)
    if ((below.bytes[at + 3] as number) > 0) made.bytes.set([255, 200 * random(), 60 * random(), 90], at);
  return made;
}

const layers = [0, 1, 2].map((k) => ({ sha256: String(k).repeat(64), pixels: layerOf(drawn) }));
const withArt = artFrom(new Map([[sheet.sha256, drawn], ...layers.map(({ sha256, pixels }) => [sha256, pixels] as const)]), {
  sources: [],
});
const alone: Project = {
  ...project,
  sources: [{ ...porter, palette: undefined } as typeof porter],
  clips: [],
  actions: [],
  parts: [],
  behaviours: [],
  stages: [],
};

function layered(count: number): Project {
  let made = alone;
  for (const [k, { sha256 }] of layers.slice(0, count).entries()) {
    // Added uncut, because it is cut like the art below.
    const uncut: Project = { ...made, sources: made.sources.map((each) => ({ ...each, cut: null })) };
    const picture = { sha256, width: sheet.width, height: sheet.height };
    const next = addLayer(uncut, porter.id as SourceId, { name: `layer ${k}`, blend: "add", pictures: [picture] }, []);
    made = { ...next, sources: next.sources.map((each) => ({ ...each, cut: porter.cut })) };
  }
  return made;
}

const time = (count: number) => {
  const chosen = setDelivery(layered(count), 0, { packing: { effort: "normal" } });
  return median(() => deliver(chosen, chosen.deliveries[0] as Delivery, withArt, png), 7);
};
time(0);
const plain = { name: "64 frames without layers", ms: time(0) };
const figures: Figure[] = [1, 2, 3].map((count) => {
  const ms = time(count);
  return {
    name: `with ${count} ${count === 1 ? "layer" : "layers"}`,
    ms,
    against: plain,
    note: `each adds ${((ms / plain.ms - 1) / count).toFixed(2)} × of it`,
  };
});
print(figures);
