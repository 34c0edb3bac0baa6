/** Reads any file that may be art, identified by its first bytes and not by its name. */
import {
  type Animation,
  type AwaitedAnimation,
  changedAsText,
  damagedData,
  inspectPng,
  looksLikeGif,
  looksLikeOpenRaster,
  looksLikePng,
  looksLikeWebp,
  type PngCodec,
  pictureDataOf,
  readAnimatedWebp,
  readApng,
  readGif,
  readOpenRaster,
  readText,
  readTga,
  refuseStandIn,
  seemsText,
} from "@caravan/core/codec";
import { isArtFile, type LayerOfFile } from "@caravan/core/intake";
import { CaravanError } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { t } from "@caravan/core/words";
import { encoded, pictureOf } from "./encoded";
import type { ReadArt, StoredLayer } from "./jobs";
import { pixelsOfStill } from "./still";

/** Throws what is wrong with the file. `where` names it. */
export async function readArt(blob: Blob, where: string, png: PngCodec): Promise<ReadArt> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  if (bytes.length === 0) throw new CaravanError("empty-file", where, t("The file is empty (0 bytes)."), t("Export it again."));
  refuseStandIn(bytes, where);
  if (looksLikePng(bytes) || changedAsText(bytes) !== null) {
    inspectPng(bytes, where);
    await refuseWrongChecksum(bytes, where);
    const animation = readApng(bytes, where, png);
    if (animation && animation.count > 1) return animationOf(animation, where, png);
    return { kind: "still", picture: { picture: await pictureOf(png.decode(bytes, where), bytes, blob), png: null } };
  }
  if (looksLikeGif(bytes)) return animationOf(readGif(bytes, where), where, png);
  if (looksLikeOpenRaster(bytes, where)) {
    const { layers, ...told } = readOpenRaster(bytes, where, png, "flatten");
    const parted = told.groups > 0 ? readOpenRaster(bytes, where, png, "apart") : null;
    const apart = parted && { layers: await encodedLayers(parted.layers, png), unlikeMerged: parted.unlikeMerged };
    return { kind: "layers", layers: await encodedLayers(layers, png), apart, ...told };
  }
  // Nothing at its beginning says what it is, so its name does.
  if (/\.tga$/i.test(where)) return { kind: "still", picture: await encoded(readTga(bytes, where), png) };
  if (seemsText(bytes)) {
    if (!isArtFile(where)) return { kind: "text", ...readText(bytes) };
    throw new CaravanError(
      "not-a-picture",
      where,
      t("This is not a picture but text."),
      t("Choose the picture itself, or name the file as what it is."),
    );
  }
  const moving = looksLikeWebp(bytes) ? readAnimatedWebp(bytes, where, pixelsOfWebp) : null;
  if (moving) return animationOf(moving, where, png);
  if (isMovingAvif(bytes))
    throw new CaravanError(
      "not-a-picture",
      where,
      t("This is an animation in AVIF, of which only the first picture could be read."),
      t("Save it as animated PNG, WebP or GIF, or as a film."),
    );
  return { kind: "still", picture: await encoded(await pixelsOfStill(blob, where), png) };
}

function pixelsOfWebp(file: Uint8Array, where: string): Promise<Pixels> {
  return pixelsOfStill(new Blob([file as BlobPart], { type: "image/webp" }), where);
}

/** Its file type is that of image sequences (AV1 Image File Format, section 6.3). */
function isMovingAvif(bytes: Uint8Array): boolean {
  return String.fromCharCode(...bytes.subarray(4, 12)) === "ftypavis";
}

/** The browser unpacks the picture's data quickly, and looks at its checksum, which the decoder does not. */
async function refuseWrongChecksum(bytes: Uint8Array, where: string): Promise<void> {
  const unpacking = new Blob(pictureDataOf(bytes) as BlobPart[]).stream().pipeThrough(new DecompressionStream("deflate")).getReader();
  try {
    while (!(await unpacking.read()).done);
  } catch (cause) {
    // Bytes behind the end of the data do no harm.
    if (!/junk|trailing/i.test(String(cause))) throw damagedData(where, cause);
  }
}

async function animationOf(animation: Animation | AwaitedAnimation, where: string, png: PngCodec): Promise<ReadArt> {
  const broken: { index: number; why: string }[] = [];
  const pictures = [];
  for await (const { pixels, ms } of animation.frames((index, why) => broken.push({ index, why })))
    pictures.push({ ms, ...(await encoded(pixels, png)) });
  if (pictures.length === 0)
    throw new CaravanError(
      "damaged-picture",
      where,
      t("None of its {count} pictures is whole. {why}", { count: animation.count, why: broken[0]?.why ?? "" }),
      t("Export it again."),
    );
  return { kind: "animation", pictures, plays: animation.plays, broken };
}

async function encodedLayers(layers: readonly (LayerOfFile & { pixels: Pixels })[], png: PngCodec): Promise<StoredLayer[]> {
  const stored = [];
  for (const { name, blend, pixels } of layers) stored.push({ name, blend, ...(await encoded(pixels, png)) });
  return stored;
}
