/**
 * Writes pictures of palette indexes for games that recolour by themselves: beside each page, a picture that gives the palette and the
 * index of each pixel's colour.
 */
import type { NamedFile, PngCodec } from "../codec";
import { placesPath } from "../delivery-plan";
import { CaravanError, type Palette } from "../model";
import { clearPixels, type Pixels, rgbOf } from "../raster";
import { t } from "../words";

/** Written for a colour in no drawn palette: the pixel keeps the page's colour. */
const NONE = 255;

/**
 * Red is the index in the palette, green the palette's row in the picture of palettes, alpha the page's; a game draws another robe by
 * looking the index up in another row. Read back and compared with the pages. Throws `bad-number` for more palettes than there are rows,
 * `proof-failed`. Cost: O(pixels).
 */
export function placesFiles(pages: readonly { image: string; pixels: Pixels }[], palettes: readonly Palette[], png: PngCodec): NamedFile[] {
  if (palettes.length > NONE)
    throw new CaravanError(
      "bad-number",
      t("palettes"),
      t("A picture of palette indexes can hold {none} palettes.", { none: NONE }),
      t("Remove some, or deliver without it."),
    );
  const placeOf = new Map<number, readonly [place: number, row: number]>();
  for (const [row, { of, colours }] of palettes.entries())
    if (of === undefined)
      for (const [place, colour] of colours.entries()) if (!placeOf.has(numberOf(colour))) placeOf.set(numberOf(colour), [place, row]);
  return pages.map(({ image, pixels }) => {
    const bytes = png.encode(placesOf(pixels, placeOf));
    refuseUnlike(png.decode(bytes, placesPath(image)), pixels, palettes, image);
    return { path: placesPath(image), bytes };
  });
}

function placesOf({ width, height, bytes }: Pixels, placeOf: ReadonlyMap<number, readonly [number, number]>): Pixels {
  const made = clearPixels(width, height);
  for (let k = 0; k < bytes.length; k += 4) {
    const alpha = bytes[k + 3] as number;
    if (alpha === 0) continue;
    const found = placeOf.get(((bytes[k] as number) << 16) | ((bytes[k + 1] as number) << 8) | (bytes[k + 2] as number));
    made.bytes.set(found ? [found[0], found[1], 0, alpha] : [NONE, NONE, NONE, alpha], k);
  }
  return made;
}

function refuseUnlike(places: Pixels, page: Pixels, palettes: readonly Palette[], image: string): void {
  for (let k = 0; k < page.bytes.length; k += 4) {
    const [place, row, , alpha] = places.bytes.subarray(k, k + 4);
    const same = alpha === page.bytes[k + 3];
    if (same && (alpha === 0 || row === NONE)) continue;
    const colour = palettes[row as number]?.colours[place as number];
    const here = ((page.bytes[k] as number) << 16) | ((page.bytes[k + 1] as number) << 8) | (page.bytes[k + 2] as number);
    if (!same || colour === undefined || numberOf(colour) !== here)
      throw new CaravanError(
        "proof-failed",
        image,
        t("Internal error: its picture of palette indexes does not restore its colours, so nothing was delivered."),
        t("Please report it with the project; until then, deliver without it."),
      );
  }
}

function numberOf(colour: string): number {
  const [red, green, blue] = rgbOf(colour as Parameters<typeof rgbOf>[0]);
  return (red << 16) | (green << 8) | blue;
}
