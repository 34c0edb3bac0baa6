import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { inflateSync } from "node:zlib";
import { createPngCodec, damagedData, type PngCodec, pictureDataOf, type WasmModule } from "@caravan/core/codec";

/** Types of Node 20 leave out WebAssembly; compiling is all that is needed of it here. */
declare const WebAssembly: { Module: new (bytes: Uint8Array) => WasmModule };

let codec: PngCodec | null = null;

/** The PNG coder, compiled on first use. Its WebAssembly lies beside the bundle, in development in its package. */
export function pngCodec(): PngCodec {
  codec ??= withChecksums(createPngCodec(new WebAssembly.Module(readWasm())));
  return codec;
}

/** The coder, which refuses pictures whose compressed data has a wrong checksum. */
function withChecksums(plain: PngCodec): PngCodec {
  return {
    ...plain,
    decode(bytes, where) {
      const pixels = plain.decode(bytes, where);
      try {
        inflateSync(Buffer.concat(pictureDataOf(bytes)));
      } catch (cause) {
        throw damagedData(where, cause);
      }
      return pixels;
    },
  };
}

function readWasm(): Uint8Array {
  try {
    return readFileSync(new URL("./squoosh_png_bg.wasm", import.meta.url));
  } catch {
    return readFileSync(createRequire(import.meta.url).resolve("@jsquash/png/codec/pkg/squoosh_png_bg.wasm"));
  }
}
