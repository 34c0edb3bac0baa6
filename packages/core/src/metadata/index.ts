export { type Described, unseen } from "./described";
export { groupAt, type RecordGroup } from "./groups";
export { pathsOf, understood } from "./known";
export { millis, type ReadFrame, readFrames, type Unplaced } from "./read";
export { playbackOf, type ReadClip, readClips } from "./read-clips";
export { recognise } from "./recognise";
export {
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
