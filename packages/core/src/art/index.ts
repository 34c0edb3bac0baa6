export { type Art, artFrom } from "./art";
export { assembledLook, laidPixels } from "./assembled";
export { type Drawn, drawnIn, drawnPixels, type FramePlace, framePixels, isNearest } from "./frame-art";
export {
  asSeen,
  frameLook,
  isOfPicture,
  type LaidLook,
  type Look,
  lookOf,
  looksOf,
  type PictureLook,
  pictureLook,
  picturesOfLook,
  type Stock,
  sheetLook,
} from "./look";
export { type Figures, type ProposedScale, proposedScales, scaleInWords } from "./scale";
