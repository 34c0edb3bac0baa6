export { findBlocks } from "./blocks";
export { clearGround } from "./clear-ground";
export { hexOf, type Rgb, rgbOf } from "./colour";
export type { SideColours } from "./colours";
export {
  bitsSet,
  type Coverage,
  countDrawn,
  coverageOf,
  cropCoverage,
  drawnPart,
  isClear,
  isDrawn,
  isSoft,
  joinedCoverage,
  middleOfDrawn,
  scaledCoverage,
  sheetCoverageOf,
  turnedCoverage,
} from "./coverage";
export { type Difference, differenceOf } from "./difference";
export { type Drawing, drawingsIn } from "./drawing";
export { COLOUR_LIMIT, factsOf, type PictureFacts } from "./facts";
export { findDrawings } from "./find-drawings";
export { findGround, type Ground, opaqueGround } from "./ground";
export { lay } from "./lay";
export { firstAlike, type Part } from "./likeness";
export { overlapOf } from "./overlap";

export {
  clearPixels,
  crop,
  extrude,
  looksSame,
  mirrored,
  type Pixels,
  paste,
  pixelWords,
  samePixels,
  turnClockwise,
  turnCounterClockwise,
} from "./pixels";
export { scaled } from "./scale";
export { findSpecks } from "./specks";
