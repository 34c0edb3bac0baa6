export {
  drawPage,
  type FrameToPack,
  frameFromPage,
  type PackedFrame,
  type PackedFrames,
  type PackedPage,
  packFrames,
  type StoredFrame,
} from "./frames";
export { type OnProgress, type Packed, type PageOptions, type Place, packPages } from "./pages";
