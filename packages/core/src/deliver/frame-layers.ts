/** Gives a frame's layers, separately or blended. */
import { layered } from "../assemble";
import { type DeliveredLayer, layerPath } from "../delivery-plan";
import type { FrameToPack } from "../pack";
import { clearPixels, crop, type Part, type Pixels } from "../raster";
import type { FrameToDeliver } from "./contents";
import type { LaidPage } from "./layout";

/** A frame on one layer, the lowest being 0; clear where it has nothing on it. */
export function pixelsOn({ pixels, rect, layers = [] }: FrameToPack, layer: number): Pixels {
  const part: Part | null | undefined = layer === 0 ? { pixels, rect } : layers[layer - 1];
  return part ? crop(part.pixels, part.rect) : clearPixels(rect.w, rect.h);
}

/** All layers of a frame over one another. */
export function blendedFrame(frame: FrameToDeliver, layers: readonly DeliveredLayer[]): FrameToDeliver {
  const over = layers.flatMap(({ blend }, k) => (frame.layers?.[k] ? [{ pixels: pixelsOn(frame, k + 1), blend }] : []));
  if (over.length === 0) return frame;
  const pixels = layered([{ pixels: pixelsOn(frame, 0), blend: "normal" }, ...over]);
  const { layers: _layers, ...rest } = frame;
  return { ...rest, pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } };
}

/** The pictures of a page's further layers; a layer with nothing on the page has none. */
export function layerPages(image: string, layers: readonly DeliveredLayer[], draw: (layer: number) => Pixels): Pick<LaidPage, "layers"> {
  if (layers.length === 0) return {};
  return {
    layers: layers.map(({ name }, k) => {
      const pixels = draw(k + 1);
      return pixels.bytes.every((each) => each === 0) ? null : { image: layerPath(image, name), pixels };
    }),
  };
}
