import { layerPath, pagePath } from "../delivery-plan";
import type { Packing } from "../model";
import { drawPage, type OnProgress, packFrames } from "../pack";
import { clearPixels, crop } from "../raster";
import type { Contents } from "./contents";
import type { Layout } from "./layout";

/** Frames packed on pages as small as a search finds. Throws what `packFrames` throws. */
export function atlasPages(contents: Contents, packing: Packing, stem: string, onProgress: OnProgress): Layout {
  const { frames, clips, groups, layers } = contents;
  const packed = packFrames(frames, packing, groups, onProgress);
  const splitUp = new Set(packed.split);
  const names = new Set(frames.flatMap(({ name }, k) => (splitUp.has(groups?.[k] ?? -1) ? [name] : [])));
  const parted = clips.filter(([, { steps }]) => steps.some(({ frame }) => names.has(frame))).map(([name]) => name);
  return {
    pages: packed.pages.map(({ occupancy }, k) => {
      const image = pagePath(stem, k, packed.pages.length);
      const over = layers.map(({ name }, layer) => {
        const pixels = drawPage(k, packed, frames, packing.extrudePx, layer + 1);
        return pixels.bytes.every((each) => each === 0) ? null : { image: layerPath(image, name), pixels };
      });
      return { image, pixels: drawPage(k, packed, frames, packing.extrudePx), occupancy, ...(over.length > 0 ? { layers: over } : {}) };
    }),
    frames: packed.frames.map((place, k) => {
      const frame = frames[k] as (typeof frames)[number];
      const whole = () => crop(frame.pixels, frame.rect);
      const wholeOn = (layer: number) => {
        const part = frame.layers?.[layer];
        return part ? crop(part.pixels, part.rect) : clearPixels(frame.rect.w, frame.rect.h);
      };
      return { ...place, name: frame.name, origin: frame.origin, marks: frame.marks, whole, wholeOn };
    }),
    copies: [],
    notes:
      parted.length === 0
        ? []
        : [`No page takes ${parted.join(", ")} as a whole: ${parted.length === 1 ? "it lies" : "they lie"} on several.`],
  };
}
