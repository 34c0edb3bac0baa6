import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { createPngCodec, type PngCodec, type WasmModule } from "@caravan/core/codec";

/** Types of Node 20 leave out WebAssembly; compiling is all that is needed of it here. */
declare const WebAssembly: { Module: new (bytes: Uint8Array) => WasmModule };

let codec: PngCodec | null = null;

/** The PNG coder, compiled at first use. In the bundle its WebAssembly lies beside it, in development in its package. */
export function pngCodec(): PngCodec {
  codec ??= createPngCodec(new WebAssembly.Module(readWasm()));
  return codec;
}

function readWasm(): Uint8Array {
  try {
    return readFileSync(new URL("./squoosh_png_bg.wasm", import.meta.url));
  } catch {
    return readFileSync(createRequire(import.meta.url).resolve("@jsquash/png/codec/pkg/squoosh_png_bg.wasm"));
  }
}
