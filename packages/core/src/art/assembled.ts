/** Renders looks that combine several pictures: layers over one another, pieces on a canvas. */
import { assembled, hatched, layered } from "../assemble";
import { recoloured } from "../palette";
import type { Pixels } from "../raster";
import { framePixels } from "./frame-art";
import type { LaidLook, LayeredLook, PictureLook, PiecesLook, SheetLook } from "./look";

/** `pixelsOf` returns a treated picture. Cost: O(pixels × layers). */
export function layeredLook({ layers }: LayeredLook, pixelsOf: (look: PictureLook) => Pixels): Pixels {
  return layered(layers.map(({ look, blend }) => ({ pixels: pixelsOf(look), blend })));
}

/** `pixelsOf` returns a treated sheet. Cost: O(pixels of the pieces + of the canvas). */
export function assembledLook({ size, laid }: PiecesLook, pixelsOf: (look: SheetLook) => Pixels): Pixels {
  return assembled(
    size,
    laid.map((each) => ({ pixels: laidPixels(each, pixelsOf), x: each.x, y: each.y, flip: each.flip })),
  );
}

/** A piece on its canvas, before flipping; a hatched box if it is missing. */
export function laidPixels({ part, size, recolouring }: LaidLook, pixelsOf: (look: SheetLook) => Pixels): Pixels {
  if (!part) return hatched(size);
  const { look, scale, place } = part;
  // Recoloured before scaling: averaging pixels would make colours that no palette contains.
  if (!recolouring || recolouring.length === 0) return framePixels(pixelsOf(look), { scale }, place);
  const cut = recoloured(framePixels(pixelsOf(look), {}, place), recolouring);
  return framePixels(cut, { scale }, { rect: { x: 0, y: 0, w: cut.width, h: cut.height } });
}
