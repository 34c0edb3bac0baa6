export { type AtlasFiles, buildAtlasFiles, type DeliveredPage } from "./atlas-files";
export type { AtlasInput, FrameToDeliver } from "./atlas-input";
export { deliver } from "./project";
export type { Proof } from "./proof";
