export { type Correction, correctionsOf, isMeaning, MEANINGS, recogniseAs } from "./corrected";
export { type Described, unseen } from "./described";
export { type Grade, gradeOf } from "./grade";
export { groupAt, type RecordGroup } from "./groups";
export { pathsOf, understood } from "./known";
export { millis, type ReadClip, type ReadFrame, readFrames, type Unplaced } from "./read";
export { playbackOf, readClips } from "./read-clips";
export { recognise } from "./recognise";
export { lastPart, says, sideOf } from "./words";
