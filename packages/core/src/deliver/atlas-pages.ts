import { pagePath } from "../delivery-plan";
import type { Packing } from "../model";
import { drawPage, type OnProgress, packFrames } from "../pack";
import { t } from "../words";
import type { Contents } from "./contents";
import { layerPages, pixelsOn } from "./frame-layers";
import type { Layout } from "./layout";

/** Packs frames on pages as small as a search finds. Throws what `packFrames` throws. */
export function atlasPages(contents: Contents, packing: Packing, stem: string, onProgress: OnProgress): Layout {
  const { frames, clips, groups, layers } = contents;
  const packed = packFrames(frames, packing, groups, onProgress);
  const splitUp = new Set(packed.split);
  const names = new Set(frames.flatMap(({ name }, k) => (splitUp.has(groups?.[k] ?? -1) ? [name] : [])));
  const parted = clips.filter(([, { steps }]) => steps.some(({ frame }) => names.has(frame))).map(([name]) => name);
  return {
    pages: packed.pages.map(({ occupancy }, k) => {
      const image = pagePath(stem, k, packed.pages.length);
      const draw = (layer: number) => drawPage(k, packed, frames, packing.extrudePx, layer);
      return { image, pixels: draw(0), occupancy, ...layerPages(image, layers, draw) };
    }),
    frames: packed.frames.map((place, k) => {
      const frame = frames[k] as (typeof frames)[number];
      return { ...place, name: frame.name, origin: frame.origin, marks: frame.marks, wholeOn: (layer) => pixelsOn(frame, layer) };
    }),
    copies: [],
    notes:
      parted.length === 0
        ? []
        : [
            parted.length === 1
              ? t("No page can hold {parted} together: it lies on several.", { parted: parted.join(", ") })
              : t("No page can hold {parted} together: they lie on several.", { parted: parted.join(", ") }),
          ],
  };
}
