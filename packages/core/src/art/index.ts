export { type Art, artFrom, type PartOfPicture } from "./art";
export { assembledLook, laidPixels, layeredLook } from "./assembled";
export { type Drawn, drawnIn, drawnPixels, type FramePlace, framePixels, isNearest } from "./frame-art";
export {
  asSeen,
  frameLook,
  isLayered,
  isOfPicture,
  type LaidLook,
  type LayerLook,
  type Look,
  layerLooks,
  lookOf,
  looksOf,
  type PictureLook,
  picturesOfLook,
  type SheetLook,
  type Stock,
  sheetLook,
  singleLooks,
  wornLook,
} from "./look";
export { type Figures, type ProposedScale, proposedScales, scaleInWords } from "./scale";
