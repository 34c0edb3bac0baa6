/** Writes a project's palettes as a picture and as text, for games that use them. */
import { type NamedFile, type PngCodec, utf8 } from "../codec";
import { besidePath } from "../delivery-plan";
import type { Palette } from "../model";
import { clearPixels, type Pixels, rgbOf } from "../raster";

/** A colour in the picture is a square of this many px. */
const SWATCH = 8;

/** None where there are no palettes. */
export function paletteFiles(palettes: readonly Palette[], stem: string, png: PngCodec): NamedFile[] {
  if (palettes.length === 0) return [];
  return [
    { path: besidePath(stem, "palettes"), bytes: png.encode(palettePicture(palettes)) },
    {
      path: besidePath(stem, "palettesText"),
      bytes: utf8(palettes.map((each) => `${each.name}: ${each.colours.join(" ")}\n`).join("")),
    },
  ];
}

/** A row for each palette, a square for each of its colours. */
function palettePicture(palettes: readonly Palette[]): Pixels {
  const picture = clearPixels(Math.max(...palettes.map(({ colours }) => colours.length)) * SWATCH, palettes.length * SWATCH);
  for (const [row, { colours }] of palettes.entries())
    for (const [column, colour] of colours.entries()) {
      const rgb = rgbOf(colour as Parameters<typeof rgbOf>[0]);
      for (let y = 0; y < SWATCH; y++)
        for (let x = 0; x < SWATCH; x++) picture.bytes.set([...rgb, 255], ((row * SWATCH + y) * picture.width + column * SWATCH + x) * 4);
    }
  return picture;
}
