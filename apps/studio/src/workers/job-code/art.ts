/** Jobs on pictures for display: decode, clear, recolour, assemble, search. */
import { asSeen, framePixels } from "@caravan/core/art";
import { sha256Hex } from "@caravan/core/codec";
import { drawingsIn, factsOf, findDrawings as findAgain, mirrored, sheetCoverageOf } from "@caravan/core/raster";
import { viewOf } from "../bitmaps";
import { encoded, knownOf } from "../encoded";
import type { Answer, Ask } from "../jobs";
import { bytesOf, pixelsOfLook, pngCodec } from "../pictures-in-hand";

export async function readPicture({ name, blob, clearing, recolouring = null }: Ask<"readPicture">): Promise<Answer<"readPicture">> {
  const png = await pngCodec();
  const bytes = await bytesOf(blob);
  const decoded = png.decode(bytes, name);
  const drawn = asSeen(decoded, { clearing });
  const pixels = asSeen(drawn, { clearing: null, recolouring });
  const { width, height } = pixels;
  const look = clearing || recolouring ? new ImageData(new Uint8ClampedArray(pixels.bytes), width, height) : blob;
  return { ...knownOf(pixels, bytes, drawn), ...(await viewOf(look, width, height)) };
}

export async function assemble(of: Ask<"assemble">): Promise<Answer<"assemble">> {
  const pixels = await pixelsOfLook(of, await pngCodec(), "a frame of pieces");
  const { width, height, bytes } = pixels;
  const known = {
    sha256: sha256Hex(bytes),
    width,
    height,
    coverage: sheetCoverageOf(pixels),
    facts: factsOf(pixels),
    ground: null,
    blocks: null,
    colours: null,
  };
  return { ...known, ...(await viewOf(new ImageData(new Uint8ClampedArray(bytes), width, height), width, height)) };
}

export async function drawings({ of, rects }: Ask<"drawings">): Promise<Answer<"drawings">> {
  return drawingsIn(await pixelsOfLook(of, await pngCodec(), "art"), rects);
}

export async function findDrawings({ before, after, rects }: Ask<"findDrawings">): Promise<Answer<"findDrawings">> {
  const png = await pngCodec();
  return findAgain(await pixelsOfLook(before, png, "art"), rects, await pixelsOfLook(after, png, "changed art"));
}

export async function mirrorFrames({ of, frames, scale }: Ask<"mirrorFrames">): Promise<Answer<"mirrorFrames">> {
  const png = await pngCodec();
  const pixels = await pixelsOfLook(of, png, "art to mirror");
  return Promise.all(frames.map((frame) => encoded(mirrored(framePixels(pixels, { scale }, frame)), png)));
}
