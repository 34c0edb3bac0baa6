import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { promisify } from "node:util";
import { crc32, createInflate, deflateSync, inflate, inflateSync, type ZlibOptions } from "node:zlib";
import {
  createPngCodec,
  damagedData,
  hasPlainRows,
  inspectPng,
  looksLikePng,
  type PngCodec,
  type PngHeader,
  pictureDataOf,
  type RowsRestored,
  restoringRows,
  type WasmModule,
} from "@caravan/core/codec";
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
      if (!seemsPlain(bytes)) {
        // First, because what the coder says of a damaged file says more.
        const pixels = plainCodec().decode(bytes, where);
        unpackedAtOnce(bytes, where);
        return pixels;
      }
      const { rows, pixels } = roomFor(inspectPng(bytes, where, crc32));
      return rows.add(unpackedAtOnce(bytes, where)) && rows.isWhole() ? pixels : plainCodec().decode(bytes, where);
    },
  };
  return codec;
}

/**
 * As the coder's `decode`, with the data unpacked and its checksum verified by a thread of the system meanwhile: four times as fast as by
 * the coder. For most large sheets that is nearly all of the work.
 */
export async function decodePng(bytes: Uint8Array, where: string): Promise<Pixels> {
  if (!seemsPlain(bytes)) return decodedAndVerified(bytes, where);
  const { rows, pixels } = roomFor(inspectPng(bytes, where, crc32));
  const unpacking = createInflate({ chunkSize: PART });
  unpacking.end(dataOf(bytes));
  try {
    for await (const part of unpacking) if (!rows.add(part as Uint8Array)) return decodedAndVerified(bytes, where);
  } catch (cause) {
    throw damagedData(where, cause);
  }
  return rows.isWhole() ? pixels : decodedAndVerified(bytes, where);
}

/** Throws `damaged-picture` if the checksum of the data does not fit. */
function unpackedAtOnce(bytes: Uint8Array, where: string): Uint8Array {
  try {
    return inflateSync(dataOf(bytes), unpackingOf(bytes));
  } catch (cause) {
    throw damagedData(where, cause);
  }
}

/** For pictures that only the coder can read, or about which it has something to say. */
async function decodedAndVerified(bytes: Uint8Array, where: string): Promise<Pixels> {
  const verified = inflated(dataOf(bytes), unpackingOf(bytes));
  // What the coder says of a damaged file says more.
  verified.catch(() => {});
  const pixels = plainCodec().decode(bytes, where);
  try {
    await verified;
  } catch (cause) {
    throw damagedData(where, cause);
  }
  return pixels;
}

function roomFor({ width, height }: PngHeader): { readonly rows: RowsRestored; readonly pixels: Pixels } {
  const bytes = pixelMemory(width * height * 4);
  return { rows: restoringRows(width, height, bytes), pixels: { width, height, bytes } };
}

/**
 * Encodes many small pictures: indexed ones are packed by the system's zlib, four times as fast as by the coder that gives the same bytes on
 * every machine. Not for deliveries, which are the same wherever they are built.
 */
export function framesCodec(): Pick<PngCodec, "encode"> {
  frames ??= createPngCodec(new WebAssembly.Module(readWasm()), undefined, (data) => deflateSync(data));
  return frames;
}

const inflated = promisify<Uint8Array, ZlibOptions, Uint8Array>(inflate);

/** Without the test of the checksum. Its WebAssembly lies beside the bundle, in development in its package. */
function plainCodec(): PngCodec {
  plain ??= createPngCodec(new WebAssembly.Module(readWasm()), pixelMemory);
  return plain;
}

function pixelMemory(length: number): Uint8Array {
  return new Uint8Array(length < WORTH_SHARING ? new ArrayBuffer(length) : new SharedArrayBuffer(length));
}

function dataOf(bytes: Uint8Array): Uint8Array {
  const parts = pictureDataOf(bytes);
  return parts.length === 1 ? (parts[0] as Uint8Array) : Buffer.concat(parts);
}

/** Whether its header names the kind whose rows are restored here; the rest of the file may be damaged. */
function seemsPlain(bytes: Uint8Array): boolean {
  if (!looksLikePng(bytes) || bytes.length < HEADER_END) return false;
  return hasPlainRows({ bitDepth: bytes[24] as number, colourType: bytes[25] as number, interlaced: bytes[28] !== 0 });
}

/** px: as many as a PNG's header says; 0 for other files. */
export function pixelsIn(bytes: Uint8Array): number {
  if (!looksLikePng(bytes) || bytes.length < HEADER_END) return 0;
  const view = new DataView(bytes.buffer, bytes.byteOffset, HEADER_END);
  return view.getUint32(16) * view.getUint32(20);
}

/**
 * A buffer of the length that the header gives holds all at once, so that nothing is put together afterwards. Interlaced data is longer, but
 * never twice as long; what goes on beyond that is damaged, and could fill the memory.
 */
function unpackingOf(bytes: Uint8Array): ZlibOptions {
  const length = unpackedLength(bytes);
  return { chunkSize: length, maxOutputLength: 2 * length + SHORTEST_LIMIT };
}

/** bytes: as its header says. */
function unpackedLength(bytes: Uint8Array): number {
  const [smallest, largest] = [64, 2 ** 29];
  if (bytes.length < HEADER_END) return smallest;
  const view = new DataView(bytes.buffer, bytes.byteOffset, HEADER_END);
  const channels = CHANNELS[view.getUint8(25)] ?? 4;
  const row = Math.ceil((view.getUint32(16) * view.getUint8(24) * channels) / 8) + 1;
  // Compression cannot make data more than 1,032 times smaller.
  return Math.min(Math.max(row * view.getUint32(20), smallest), bytes.length * 1032, largest);
}

/** bytes: unpacked at a time, while the rows before are restored. */
const PART = 1_048_576;
/** bytes: enough for the filters of any small interlaced picture. */
const SHORTEST_LIMIT = 65_536;
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
