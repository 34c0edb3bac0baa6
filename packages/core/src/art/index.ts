export { type Art, artFrom } from "./art";
export { type Drawn, drawnIn, drawnPixels, type FramePlace, framePixels, isNearest } from "./frame-art";
export { asSeen, frameLook, type Look, lookOf, looksOf, sheetLook } from "./look";
export { type Figures, type ProposedScale, proposedScales, scaleInWords } from "./scale";
