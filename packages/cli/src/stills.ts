/** Decodes any still picture file: PNG, JPEG, WebP or TGA, recognised by its first bytes. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { looksLikePng, looksLikeTga, looksLikeWebp, readAnimatedWebp, readTga } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { readFile } from "./files";
import { decodePng } from "./png";
import { calledInWords } from "./standard";

/** Endings of the files that `readStill` reads. */
export const STILL_ENDING = /\.(png|jpe?g|webp|tga)$/i;

/** Throws `not-found`, `empty-file`, `not-a-picture` or `damaged-picture`, with what is wrong and what to do. */
export async function readStill(path: string): Promise<Pixels> {
  return decodeStill(readFile(path), calledInWords(path));
}

/** As `readStill`, of bytes that were read; `where` names the file. */
export async function decodeStill(bytes: Uint8Array, where: string): Promise<Pixels> {
  if (looksLikePng(bytes) || bytes.length === 0) return decodePng(bytes, where);
  if (isJpeg(bytes)) return pixelsOfJpeg(bytes, where);
  if (looksLikeWebp(bytes)) return pixelsOfWebp(bytes, where);
  if (/\.tga$/i.test(where) || looksLikeTga(bytes)) return readTga(bytes, where);
  // Says what it is not, in the words for PNG.
  return decodePng(bytes, where);
}

/** The decoder knows grey and RGB only. */
async function pixelsOfJpeg(bytes: Uint8Array, where: string): Promise<Pixels> {
  if (channelsOf(bytes) === 4)
    throw new CaravanError(
      "not-a-picture",
      where,
      "This JPEG is in the four colours of print (CMYK), which cannot be read exactly.",
      "Save it as PNG, or as JPEG in RGB.",
    );
  return pixelsBy(jpegDecoder, bytes, where, "JPEG");
}

/** As its frame header says (ITU-T T.81, section B.2.2); 0 if that is missing. */
function channelsOf(bytes: Uint8Array): number {
  for (let at = 2; at + 9 < bytes.length; ) {
    const marker = bytes[at + 1] as number;
    const isFrame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;
    if (bytes[at] !== 0xff) return 0;
    if (isFrame) return bytes[at + 9] as number;
    // A marker may be preceded by any number of fill bytes.
    at += marker === 0xff ? 1 : 2 + 256 * (bytes[at + 2] as number) + (bytes[at + 3] as number);
  }
  return 0;
}

/** The decoder knows stills only. */
async function pixelsOfWebp(bytes: Uint8Array, where: string): Promise<Pixels> {
  const moving = readAnimatedWebp(bytes, where, decodeStill);
  if (!moving) return pixelsBy(webpDecoder, bytes, where, "WebP");
  if (moving.count > 1)
    throw new CaravanError(
      "not-a-picture",
      where,
      `This is an animation of ${moving.count} pictures, not a single one.`,
      "Make a project of it with caravan new, or save the picture that you need as PNG.",
    );
  for await (const { pixels } of moving.frames(() => {})) return pixels;
  throw new CaravanError("damaged-picture", where, "Its picture is damaged.", "Export it again, or copy the file again.");
}

interface Decoder {
  /** Its code, which most commands never need. */
  load(): Promise<Loaded>;
  readonly wasm: readonly [beside: string, inPackage: string];
  /** Why bytes are cut off, where the decoder would fill up with grey. */
  readonly isWhole: (bytes: Uint8Array) => boolean;
}

interface Loaded {
  start(module: unknown, options: typeof QUIET): Promise<unknown>;
  decode(bytes: ArrayBuffer): Promise<{ readonly data: Uint8ClampedArray; readonly width: number; readonly height: number }>;
}

// What the decoders say of damaged files is said here in words.
const QUIET = { print: () => {}, printErr: () => {} };

const jpegDecoder: Decoder = {
  async load() {
    const jpeg = await import("@jsquash/jpeg/decode.js");
    return { start: jpeg.init as unknown as Loaded["start"], decode: (bytes) => jpeg.default(bytes, { preserveOrientation: true }) };
  },
  wasm: ["mozjpeg_dec.wasm", "@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm"],
  isWhole: (bytes) => Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).lastIndexOf(Uint8Array.of(0xff, 0xd9)) > 0,
};

const webpDecoder: Decoder = {
  async load() {
    const webp = await import("@jsquash/webp/decode.js");
    return { start: webp.init as unknown as Loaded["start"], decode: (bytes) => webp.default(bytes) };
  },
  wasm: ["webp_dec.wasm", "@jsquash/webp/codec/dec/webp_dec.wasm"],
  isWhole: (bytes) => bytes.length >= new DataView(bytes.buffer, bytes.byteOffset).getUint32(4, true) + 8,
};

async function pixelsBy(decoder: Decoder, bytes: Uint8Array, where: string, kind: string): Promise<Pixels> {
  const damaged = (why: string, cause?: unknown) =>
    new CaravanError("damaged-picture", where, `The ${kind} picture ${why}.`, "Export it again, or copy the file again.", { cause });
  if (!decoder.isWhole(bytes)) throw damaged("is cut off");
  // A decoder that met a damaged file may be unfit for the next: each gets its own.
  Object.assign(globalThis, { ImageData: DecodedImage });
  const { start, decode } = await decoder.load();
  await start(new WebAssembly.Module(wasm(...decoder.wasm)), QUIET);
  let decoded: Awaited<ReturnType<Loaded["decode"]>>;
  try {
    decoded = await decode(Uint8Array.from(bytes).buffer);
  } catch (cause) {
    throw damaged("is damaged", cause);
  }
  const { data, width, height } = decoded;
  return { width, height, bytes: new Uint8Array(data.buffer, data.byteOffset, data.length) };
}

/** What the decoders hand their pixels over in. */
class DecodedImage {
  constructor(
    readonly data: Uint8ClampedArray,
    readonly width: number,
    readonly height: number,
  ) {}
}

/** Node 20's types lack WebAssembly; only compiling is needed here. */
declare const WebAssembly: { Module: new (bytes: Uint8Array) => object };

/** A decoder's WebAssembly: beside the bundle, in development in its package. */
function wasm(beside: string, inPackage: string): Uint8Array {
  try {
    return readFileSync(new URL(`./${beside}`, import.meta.url));
  } catch {
    return readFileSync(createRequire(import.meta.url).resolve(inPackage));
  }
}

function isJpeg(bytes: Uint8Array): boolean {
  return bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff;
}
