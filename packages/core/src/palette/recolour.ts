/** Applies palettes that replace the colours of another palette. */
import type { Palette } from "../model";
import { type Pixels, rgbOf } from "../raster";

/** Colours by what they become, each as 0xrrggbb; the order of the list is that of the palette. */
export type Recolouring = readonly (readonly [from: number, to: number])[];

/**
 * The colour map of a palette; null if it changes nothing: it is missing, a palette to draw in, or the one that it replaces is missing. Of
 * equal colours the first counts; indexes that only one of the two has are unchanged.
 */
export function recolouringOf(palettes: readonly Palette[], name: string | undefined): Recolouring | null {
  const palette = name === undefined ? undefined : palettes.find((each) => each.name === name);
  const base = palette?.of === undefined ? undefined : palettes.find((each) => each.name === palette.of);
  if (!palette || !base || base === palette) return null;
  const seen = new Set<number>();
  return base.colours.flatMap((colour, place) => {
    const [from, wanted] = [numberOf(colour), palette.colours[place]];
    if (seen.has(from)) return [];
    seen.add(from);
    return wanted === undefined || wanted === colour ? [] : [[from, numberOf(wanted)] as const];
  });
}

function numberOf(colour: string): number {
  const [red, green, blue] = rgbOf(colour);
  return (red << 16) | (green << 8) | blue;
}

/** The same pixels in other colours, compared exactly; alpha is kept, and clear pixels are left as they are. Cost: O(pixels). */
export function recoloured(pixels: Pixels, recolouring: Recolouring): Pixels {
  if (recolouring.length === 0) return pixels;
  const to = new Map(recolouring);
  const bytes = pixels.bytes.slice();
  // Runs of one colour are the usual case.
  let [last, becomes] = [-1, -1];
  for (let k = 0; k < bytes.length; k += 4) {
    if (bytes[k + 3] === 0) continue;
    const colour = ((bytes[k] as number) << 16) | ((bytes[k + 1] as number) << 8) | (bytes[k + 2] as number);
    if (colour !== last) {
      last = colour;
      becomes = to.get(colour) ?? -1;
    }
    if (becomes === -1) continue;
    bytes[k] = becomes >> 16;
    bytes[k + 1] = (becomes >> 8) & 255;
    bytes[k + 2] = becomes & 255;
  }
  return { ...pixels, bytes };
}
