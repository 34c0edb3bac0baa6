export type { Described } from "./described";
export { pathsOf, understood } from "./known";
export { type ReadFrame, type ReadFrames, readFrames, type Unplaced } from "./read";
export { type ReadClip, readClips } from "./read-clips";
export { recognise } from "./recognise";
export { type Container, type ParsedMetadata, parseMetadata } from "./tree";
