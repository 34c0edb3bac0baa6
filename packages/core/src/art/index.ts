export { drawnPixels, type FramePlace, frameCoverage, framePixels, isNearest } from "./frame-art";
export { type Figures, type ProposedScale, proposedScales, scaleInWords } from "./scale";
