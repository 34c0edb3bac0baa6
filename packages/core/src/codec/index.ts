export { type Animation, type AnimationFrame, UNSAID_DELAY } from "./animation";
export { readApng } from "./apng";
export { looksLikeGif, readGif } from "./gif";
export { sha256Hex } from "./hash";
export { type Layer, type LayeredPicture, looksLikeOpenRaster, readOpenRaster } from "./open-raster";
export { createPngCodec, type PngCodec } from "./png";
export type { WasmModule } from "./png-engine";
export { inspectPng, LONGEST_SIDE, looksLikePng, MOST_PIXELS, type PngHeader } from "./png-structure";
export { type NamedFile, readZip, textFromUtf8, utf8, writeZip } from "./zip";
