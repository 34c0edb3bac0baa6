export { sha256Hex } from "./hash";
export { createPngCodec, type PngCodec } from "./png";
export type { WasmModule } from "./png-engine";
export { inspectPng, LONGEST_SIDE, looksLikePng, MOST_PIXELS, type PngHeader } from "./png-structure";
export { type NamedFile, readZip, textFromUtf8, utf8, writeZip } from "./zip";
