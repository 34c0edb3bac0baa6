export { frameBook, frameCalled } from "./clips";
export { type Described, unseen } from "./described";
export { groupAt, type MetadataRecord, type RecordGroup } from "./groups";
export { pathsOf, understood } from "./known";
export { millis, type ReadFrame, type ReadFrames, readFrames, type Unplaced } from "./read";
export { playbackOf, type ReadClip, readClips } from "./read-clips";
export { recognise } from "./recognise";
export {
  type Container,
  headOf,
  type Leaf,
  leafOf,
  leafOfQuoted,
  PAIR,
  type ParsedMetadata,
  parseMetadata,
  problem,
  REMARK,
  TABLE,
  type Tree,
  tableHeads,
} from "./tree";
export { lastPart, says, sideOf } from "./words";
