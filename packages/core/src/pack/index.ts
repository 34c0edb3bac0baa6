export {
  drawPage,
  type FrameToPack,
  frameFromPage,
  packFrames,
  type StoredFrame,
} from "./frames";
export { type OnProgress, packPages } from "./pages";
