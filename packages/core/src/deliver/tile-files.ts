/** Writes a delivery's distinct tiles on a page, with a map of where each lies, for machines with few tiles. */
import Papa from "papaparse";
import { assembled, type LaidPiece } from "../assemble";
import { type NamedFile, type PngCodec, utf8 } from "../codec";
import { besidePath } from "../delivery-plan";
import { CaravanError, type Palette, type Size } from "../model";
import { clearPixels, crop, looksSame, type Pixels, paste } from "../raster";
import { inPalettes, type NamedPixels, type PlacedTile, tilesOf, worn } from "../tiles";
import { t } from "../words";
import type { Contents } from "./contents";

/** Tiles in a row of their page. */
const ACROSS = 16;

export interface TilesWanted {
  readonly tile: Size;
  readonly flips: boolean;
  /** Whether tiles that differ by their palette alone are one. */
  readonly palettes?: true | undefined;
}

/**
 * The page, and the placement as CSV and JSON. The placement is checked against the frames while the page is written: its tiles, flipped
 * and in their palettes, must restore the frames. Throws if they do not. Cost: O(pixels).
 */
export function tileFiles(
  contents: Contents,
  { tile, flips, palettes: inBase }: TilesWanted,
  palettes: readonly Palette[],
  stem: string,
  png: PngCodec,
): NamedFile[] {
  const frames = contents.frames.map(({ name, pixels, rect }) => ({ name, pixels: crop(pixels, rect) }));
  const turnsColours = inBase === true;
  const { pictures, wornAt } = inPalettes(frames, tile, palettes);
  const found = tilesOf(turnsColours ? pictures : frames, tile, flips);
  const { w, h } = tile;
  const page = clearPixels(ACROSS * w, Math.max(1, Math.ceil(found.distinct / ACROSS)) * h);
  for (let k = 0; k < found.distinct; k++)
    paste(page, found.pixelsOf(k), { x: 0, y: 0, w, h }, (k % ACROSS) * w, Math.floor(k / ACROSS) * h);
  const bytes = png.encode(page);
  const placed = found.placed.map(({ frame, x, y, tile: number, flip }) => ({
    frame: frames[frame]?.name as string,
    x,
    y,
    tile: number,
    flip: flip ?? null,
    palette: wornAt(frame, x, y),
  }));
  const laid = found.placed.map((each, k) => ({ ...each, palette: turnsColours ? (placed[k]?.palette ?? null) : null }));
  refuseUnlikeFrames(frames, laid, png.decode(bytes, "tiles"), tile, palettes);
  const table = Papa.unparse(
    [
      ["frame", "x", "y", "tile", "flip", "palette"],
      ...placed.map((each) => [each.frame, each.x, each.y, each.tile, each.flip ?? "", each.palette ?? ""]),
    ],
    { newline: "\n" },
  );
  const told = {
    tile,
    across: ACROSS,
    tiles: found.distinct,
    turnsColours,
    frames: frames.map(({ name, pixels: { width, height } }) => ({ name, width, height })),
  };
  // One line each: thousands of them spelled out would be most of the delivery.
  const lines = placed.map((each) => `  ${JSON.stringify(each)}`).join(",\n");
  const data = `${JSON.stringify(told, null, 1).slice(0, -2)},\n "placed": [\n${lines}\n ]\n}\n`;
  return [
    { path: besidePath(stem, "tiles"), bytes },
    { path: besidePath(stem, "tilesTable"), bytes: utf8(`${table}\n`) },
    { path: besidePath(stem, "tilesData"), bytes: utf8(data) },
  ];
}

function refuseUnlikeFrames(
  frames: readonly NamedPixels[],
  placed: readonly (PlacedTile & { readonly palette: string | null })[],
  page: Pixels,
  { w, h }: Size,
  palettes: readonly Palette[],
): void {
  const laid = frames.map((): LaidPiece[] => []);
  for (const { frame, x, y, tile, flip, palette } of placed) {
    const cut = crop(page, { x: (tile % ACROSS) * w, y: Math.floor(tile / ACROSS) * h, w, h });
    laid[frame]?.push({ pixels: worn(cut, palettes, palette), x, y, flip });
  }
  for (const [k, { name, pixels }] of frames.entries())
    if (!looksSame(assembled({ w: pixels.width, h: pixels.height }, laid[k] as LaidPiece[]), pixels))
      throw new CaravanError(
        "proof-failed",
        name,
        t("Internal error: its tiles do not restore the frame, so nothing was delivered."),
        t("Please report it with the project; until then, deliver without tiles."),
      );
}
