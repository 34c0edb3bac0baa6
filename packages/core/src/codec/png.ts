import { CaravanError } from "../model";
import type { Pixels } from "../raster";
import { t } from "../words";
import { chunksOf } from "./png-chunks";
import { linkPngEngine, type PixelMemory, type PngEngine, type WasmModule } from "./png-engine";
import { type Deflate, deflateAlike, encodeIndexed } from "./png-indexed";
import { inspectPng, type PngHeader } from "./png-structure";

/** Reads and writes PNG losslessly: half-transparent colours and colours under alpha 0 are preserved. */
export interface PngCodec {
  /**
   * Every valid PNG becomes RGBA, 8 bits a channel; 16-bit samples keep their high byte, colour-correction chunks are not
   * applied. `where` names the file in errors. Throws `empty-file`, `not-a-picture`, `damaged-picture`, `picture-too-large`.
   */
  decode(bytes: Uint8Array, where: string): Pixels;
  /**
   * Same pixels, same bytes, on every machine, unless `deflate` was given. Pictures of at most 256 colours are written indexed, which is far
   * smaller.
   */
  encode(pixels: Pixels): Uint8Array;
  /** As `encode`, but always in full colour, as pictures that share a header must be. */
  encodeFull(pixels: Pixels): Uint8Array;
}

/**
 * `module` is the compiled WebAssembly of @jsquash/png; who runs us knows how to load it. `memory` is where pixels are decoded into.
 * `deflate` packs indexed pictures.
 */
export function createPngCodec(
  module: WasmModule,
  memory: PixelMemory = (length) => new Uint8Array(length),
  deflate: Deflate = deflateAlike,
): PngCodec {
  const engine = linkPngEngine(module, memory);
  return {
    decode(bytes, where) {
      const header = inspectPng(bytes, where);
      return checked(decoded(engine, bytes, where), header, where);
    },
    encode: (pixels) => encodeIndexed(pixels, deflate) ?? engine.encode(pixels),
    encodeFull: (pixels) => engine.encode(pixels),
  };
}

function decoded(engine: PngEngine, bytes: Uint8Array, where: string): Pixels {
  try {
    return engine.decode(bytes);
  } catch (cause) {
    throw damagedData(where, cause);
  }
}

/** The error for picture data that cannot be unpacked, or whose own checksum does not fit. */
export function damagedData(where: string, cause: unknown): CaravanError {
  return new CaravanError(
    "damaged-picture",
    where,
    t("The PNG file's picture data is damaged and cannot be unpacked."),
    t("Export the picture again or use another copy of it."),
    { cause },
  );
}

/**
 * The compressed data of a PNG's picture, in its original parts: one zlib stream with a checksum that the decoder ignores. The caller has a
 * fast way to unpack and so verify it.
 */
export function pictureDataOf(bytes: Uint8Array): Uint8Array[] {
  return chunksOf(bytes).flatMap(({ type, data }) => (type === "IDAT" ? [data] : []));
}

function checked(pixels: Pixels, { width, height }: PngHeader, where: string): Pixels {
  if (pixels.width !== width || pixels.height !== height || pixels.bytes.length !== width * height * 4)
    throw new CaravanError(
      "damaged-picture",
      where,
      t("The PNG file's data is too short for its picture."),
      t("Export the picture again."),
    );
  return pixels;
}
