/** Decodes picture files inside a worker; pictures that were just used for pieces stay cached. */
import {
  asSeen,
  assembledLook,
  isLayered,
  isOfPicture,
  layeredLook,
  type PictureLook,
  picturesOfLook,
  type SheetLook,
} from "@caravan/core/art";
import { createPngCodec, type PngCodec, type WasmModule } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { t } from "@caravan/core/words";
import type { LookFile, LookFiles } from "./jobs";

let codec: Promise<PngCodec> | null = null;

export function pngCodec(): Promise<PngCodec> {
  codec ??= WebAssembly.compileStreaming(fetch(new URL("@jsquash/png/codec/pkg/squoosh_png_bg.wasm", import.meta.url))).then((module) =>
    createPngCodec(module as unknown as WasmModule),
  );
  return codec;
}

export async function decodedOf(pictures: ReadonlyMap<string, Blob>, where: string): Promise<Map<string, Pixels>> {
  const png = await pngCodec();
  const decoded = new Map<string, Pixels>();
  for (const [sha256, blob] of pictures) decoded.set(sha256, png.decode(await bytesOf(blob), where));
  return decoded;
}

async function pixelsOf({ blob, clearing, recolouring = null }: LookFile, png: PngCodec, where: string): Promise<Pixels> {
  const pixels = png.decode(await bytesOf(blob), where);
  return asSeen(pixels, { clearing, recolouring });
}

/** Recently used pictures with pieces: a walk through many frames requests the same few repeatedly. */
const parts = new Map<PictureLook["key"], Pixels>();
/** Bytes of them that are kept at most. */
const MOST_PARTS = 64 * 1024 * 1024;

export async function pixelsOfLook({ look, files }: LookFiles, png: PngCodec, where: string): Promise<Pixels> {
  const wanted = new Map<string, Pixels>();
  for (const each of picturesOfLook(look)) {
    let pixels = parts.get(each.key);
    if (!pixels) {
      const blob = files.get(each.sha256);
      if (!blob)
        throw new CaravanError("missing-picture", where, t("A picture that it is taken from is not there."), t("Give the art again."));
      pixels = await pixelsOf({ blob, clearing: each.clearing, recolouring: each.recolouring }, png, where);
    }
    parts.delete(each.key);
    parts.set(each.key, pixels);
    wanted.set(each.key, pixels);
  }
  let bytes = [...parts.values()].reduce((sum, each) => sum + each.bytes.length, 0);
  for (const [key, each] of parts) {
    if (bytes <= MOST_PARTS || wanted.has(key)) continue;
    bytes -= each.bytes.length;
    parts.delete(key);
  }
  const pixelsAt = ({ key }: PictureLook) => wanted.get(key) as Pixels;
  const sheetAt = (each: SheetLook): Pixels => (isLayered(each) ? layeredLook(each, pixelsAt) : pixelsAt(each));
  return isOfPicture(look) || isLayered(look) ? sheetAt(look) : assembledLook(look, sheetAt);
}

export async function bytesOf(blob: Blob): Promise<Uint8Array> {
  return new Uint8Array(await blob.arrayBuffer());
}
