import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { promisify } from "node:util";
import { deflateSync, inflate, inflateSync, type ZlibOptions } from "node:zlib";
import { createPngCodec, damagedData, type PngCodec, pictureDataOf, type WasmModule } from "@caravan/core/codec";
import type { Pixels } from "@caravan/core/raster";

/** Types of Node 20 leave out WebAssembly; compiling is all that is needed of it here. */
declare const WebAssembly: { Module: new (bytes: Uint8Array) => WasmModule };

/** bytes: pixels of at least this length are decoded into memory that threads share, so that a large sheet is not copied for them. */
const WORTH_SHARING = 4_194_304;

let plain: PngCodec | null = null;
let codec: PngCodec | null = null;
let frames: PngCodec | null = null;

/** The PNG coder, compiled on first use; it refuses pictures whose compressed data has a wrong checksum. */
export function pngCodec(): PngCodec {
  codec ??= {
    encode: (pixels) => plainCodec().encode(pixels),
    encodeFull: (pixels) => plainCodec().encodeFull(pixels),
    decode(bytes, where) {
      const pixels = plainCodec().decode(bytes, where);
      try {
        inflateSync(dataOf(bytes), { chunkSize: unpackedLength(bytes) });
      } catch (cause) {
        throw damagedData(where, cause);
      }
      return pixels;
    },
  };
  return codec;
}

/** As the coder's `decode`, with the checksum verified by a thread of the system meanwhile: a third less time for a large sheet. */
export async function decodePng(bytes: Uint8Array, where: string): Promise<Pixels> {
  const verified = unpacked(dataOf(bytes), { chunkSize: unpackedLength(bytes) });
  // What decoding says of a damaged file says more.
  verified.catch(() => {});
  const pixels = plainCodec().decode(bytes, where);
  try {
    await verified;
  } catch (cause) {
    throw damagedData(where, cause);
  }
  return pixels;
}

/**
 * Encodes many small pictures: indexed ones are packed by the system's zlib, four times as fast as by the coder that gives the same bytes on
 * every machine. Not for deliveries, which are the same wherever they are built.
 */
export function framesCodec(): Pick<PngCodec, "encode"> {
  frames ??= createPngCodec(new WebAssembly.Module(readWasm()), undefined, (data) => deflateSync(data));
  return frames;
}

const unpacked = promisify<Uint8Array, ZlibOptions, Uint8Array>(inflate);

/** Without the test of the checksum. Its WebAssembly lies beside the bundle, in development in its package. */
function plainCodec(): PngCodec {
  plain ??= createPngCodec(
    new WebAssembly.Module(readWasm()),
    (length) => new Uint8Array(length < WORTH_SHARING ? new ArrayBuffer(length) : new SharedArrayBuffer(length)),
  );
  return plain;
}

function dataOf(bytes: Uint8Array): Uint8Array {
  const parts = pictureDataOf(bytes);
  return parts.length === 1 ? (parts[0] as Uint8Array) : Buffer.concat(parts);
}

/** bytes: as its header says; a buffer of this length holds all at once, so that nothing is put together afterwards. */
function unpackedLength(bytes: Uint8Array): number {
  const [smallest, largest] = [64, 2 ** 29];
  if (bytes.length < HEADER_END) return smallest;
  const view = new DataView(bytes.buffer, bytes.byteOffset, HEADER_END);
  const channels = CHANNELS[view.getUint8(25)] ?? 4;
  const row = Math.ceil((view.getUint32(16) * view.getUint8(24) * channels) / 8) + 1;
  // Compression cannot make data more than 1,032 times smaller.
  return Math.min(Math.max(row * view.getUint32(20), smallest), bytes.length * 1032, largest);
}

/** bytes: where the header of a PNG file ends. */
const HEADER_END = 33;
/** By colour type (specification, table 11.1). */
const CHANNELS: Record<number, number> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

function readWasm(): Uint8Array {
  try {
    return readFileSync(new URL("./squoosh_png_bg.wasm", import.meta.url));
  } catch {
    return readFileSync(createRequire(import.meta.url).resolve("@jsquash/png/codec/pkg/squoosh_png_bg.wasm"));
  }
}
