/** Encodes pictures that were made or read in a worker, with the facts that are stored about them. */
import { type PngCodec, sha256Hex } from "@caravan/core/codec";
import { coloursIn } from "@caravan/core/palette";
import { factsOf, findBlocks, findGround, type Pixels, sheetCoverageOf } from "@caravan/core/raster";
import { viewOf } from "./bitmaps";
import type { ReadPicture } from "./jobs";

/** A picture made here, encoded for storage and viewing. */
export async function encoded(pixels: Pixels, png: PngCodec): Promise<{ picture: ReadPicture; png: Blob }> {
  const bytes = png.encode(pixels);
  const blob = new Blob([bytes as BlobPart], { type: "image/png" });
  return { picture: await pictureOf(pixels, bytes, blob), png: blob };
}

export async function pictureOf(pixels: Pixels, bytes: Uint8Array, blob: Blob): Promise<ReadPicture> {
  return { ...knownOf(pixels, bytes), ...(await viewOf(blob, pixels.width, pixels.height)) };
}

/** Facts about a picture without a view of it. Colours are those as `drawn`, whatever palette it wears. */
export function knownOf(pixels: Pixels, bytes: Uint8Array, drawn = pixels) {
  const { width, height } = pixels;
  const facts = factsOf(pixels);
  const ground = facts.ground === "opaque" ? findGround(pixels) : null;
  const coverage = sheetCoverageOf(pixels);
  const blocks = ground ? null : findBlocks(pixels, coverage);
  return { sha256: sha256Hex(bytes), width, height, coverage, facts, ground, blocks, colours: coloursIn([drawn]) };
}
