export { shiftsWithin, withAnchoredFrames } from "./anchored";
export { carriedBox, carriedOutline, carriedPoint, changedBox } from "./carried";
export { jumpsOf, type Standing, standingFrom, standingOf } from "./drift";
export {
  boxesIn,
  frameWithMarks,
  hasMark,
  marksWith,
  marksWithout,
  mirroredAngle,
  mirroredMarks,
  outlinesIn,
  pointIn,
  scaledMarks,
  shiftedMarks,
} from "./frame-marks";
export {
  commonOrigin,
  DRAWN_WAYS,
  type DrawnWay,
  drawnBox,
  drawnOrigin,
  halves,
  type OriginPlace,
  originAtPlace,
  PLACES,
  pointAtShare,
  sameSizes,
  shareOf,
} from "./origin";
export {
  type FrameOutlines,
  type OutlineFacts,
  outlineFacts,
  outlineKinds,
  outlinesOf,
  type SteadyGroup,
  steadied,
  withOutlines,
  withTracedOutlines,
} from "./outlines";
export { facingOfClip, hostClips, partsOfProject } from "./parts-of-project";
export { pointPath } from "./point-path";
export { STEADY_AXES, type SteadyAxes, steadyOrigins, type Unsteady } from "./steady";
