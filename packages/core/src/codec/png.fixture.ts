/** The PNG coder for tests. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { clearPixels, type Pixels } from "../raster";
import { createPngCodec } from "./png";
import type { WasmModule } from "./png-engine";

declare const WebAssembly: { Module: new (bytes: Uint8Array) => WasmModule };
const wasm = createRequire(import.meta.url).resolve("@jsquash/png/codec/pkg/squoosh_png_bg.wasm");

export const png = createPngCodec(new WebAssembly.Module(readFileSync(wasm)));

/** A block of its own colour, moving along. */
export function still(k: number, width = 12, height = 9): Pixels {
  const pixels = clearPixels(width, height);
  for (let y = 2; y < 7; y++)
    for (let x = k; x < k + 4; x++) pixels.bytes.set([40 * k, 200 - 30 * k, (x * y) % 90, 255], (y * width + x) * 4);
  return pixels;
}
