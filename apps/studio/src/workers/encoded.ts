/** Pictures that are made or read in a worker -> what is stored of them and known about them. */
import { type PngCodec, sha256Hex } from "@caravan/core/codec";
import { coloursIn } from "@caravan/core/palette";
import { factsOf, findGround, type Pixels, sheetCoverageOf } from "@caravan/core/raster";
import { viewOf } from "./bitmaps";
import type { ReadPicture } from "./jobs";

/** A picture made here, as it is stored and looked at. */
export async function encoded(pixels: Pixels, png: PngCodec): Promise<{ picture: ReadPicture; png: Blob }> {
  const bytes = png.encode(pixels);
  const blob = new Blob([bytes as BlobPart], { type: "image/png" });
  return { picture: await pictureOf(pixels, bytes, blob), png: blob };
}

export async function pictureOf(pixels: Pixels, bytes: Uint8Array, blob: Blob): Promise<ReadPicture> {
  const { width, height } = pixels;
  const facts = factsOf(pixels);
  const ground = facts.ground === "opaque" ? findGround(pixels) : null;
  return {
    sha256: sha256Hex(bytes),
    width,
    height,
    coverage: sheetCoverageOf(pixels),
    facts,
    ground,
    colours: coloursIn([pixels]),
    ...(await viewOf(blob, width, height)),
  };
}
