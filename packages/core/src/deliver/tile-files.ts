/** For machines of few tiles: the distinct tiles of a delivery's frames on a page, where each lies, and the project's palettes. */
import Papa from "papaparse";
import { type NamedFile, type PngCodec, utf8 } from "../codec";
import { besidePath } from "../delivery-plan";
import type { Palette, Size } from "../model";
import { clearPixels, crop, looksSame, type Pixels, paste, rgbOf } from "../raster";
import { tilesOf } from "../tiles";
import type { Contents } from "./contents";

/** Tiles in a row of their page. */
const ACROSS = 16;
/** A colour of the palettes' picture is a square of so many px. */
const SWATCH = 8;

export interface TilesWanted {
  readonly tile: Size;
  readonly flips: boolean;
}

/**
 * The page, the placement as CSV and JSON, and the palettes as picture and text where there are some. What a frame is drawn from is held against
 * the page as it is written: tiles put back where they lie are the frame again. Cost: O(pixels).
 */
export function tileFiles(
  contents: Contents,
  { tile, flips }: TilesWanted,
  palettes: readonly Palette[],
  stem: string,
  png: PngCodec,
): NamedFile[] {
  const frames = contents.frames.map(({ name, pixels, rect }) => ({ name, pixels: crop(pixels, rect) }));
  const found = tilesOf(frames, tile, flips);
  const { w, h } = tile;
  const page = clearPixels(ACROSS * w, Math.max(1, Math.ceil(found.distinct / ACROSS)) * h);
  for (let k = 0; k < found.distinct; k++)
    paste(page, found.pixelsOf(k), { x: 0, y: 0, w, h }, (k % ACROSS) * w, Math.floor(k / ACROSS) * h);
  const bytes = png.encode(page);
  if (!looksSame(png.decode(bytes, "tiles"), page)) throw new Error("The page of tiles is not what was drawn.");
  const placed = found.placed.map(({ frame, x, y, tile: number, flip }) => ({
    frame: frames[frame]?.name as string,
    x,
    y,
    tile: number,
    flip: flip ?? null,
  }));
  const table = Papa.unparse(
    [["frame", "x", "y", "tile", "flip"], ...placed.map((each) => [each.frame, each.x, each.y, each.tile, each.flip ?? ""])],
    {
      newline: "\n",
    },
  );
  const told = {
    tile,
    across: ACROSS,
    tiles: found.distinct,
    frames: frames.map(({ name, pixels: { width, height } }) => ({ name, width, height })),
    placed,
  };
  return [
    { path: besidePath(stem, "tiles"), bytes },
    { path: besidePath(stem, "tilesTable"), bytes: utf8(`${table}\n`) },
    { path: besidePath(stem, "tilesData"), bytes: utf8(`${JSON.stringify(told, null, 1)}\n`) },
    ...(palettes.length === 0
      ? []
      : [
          { path: besidePath(stem, "palettes"), bytes: png.encode(palettePicture(palettes)) },
          {
            path: besidePath(stem, "palettesText"),
            bytes: utf8(palettes.map((each) => `${each.name}: ${each.colours.join(" ")}\n`).join("")),
          },
        ]),
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
