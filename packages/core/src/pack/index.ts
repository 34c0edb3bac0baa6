export { drawPage, type FrameToPack, frameFromPage, type PackedFrame, type PackedFrames, type PackedPage, packFrames } from "./frames";
export { type BinLayout, type BinPlace, fillBin, type PlacingRule } from "./max-rects";
export { type OnProgress, type Packed, type PageOptions, type Place, packPages } from "./pages";
