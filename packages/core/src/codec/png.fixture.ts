/** The PNG coder for tests. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { createPngCodec } from "./png";
import type { WasmModule } from "./png-engine";

declare const WebAssembly: { Module: new (bytes: Uint8Array) => WasmModule };
const wasm = createRequire(import.meta.url).resolve("@jsquash/png/codec/pkg/squoosh_png_bg.wasm");

export const png = createPngCodec(new WebAssembly.Module(readFileSync(wasm)));
