export { type Drawings, followDrawings, strayedFrames, withFoundPlaces } from "./follow";
export { followPlaces } from "./follow-places";
export { type Compared, comparedByDrawings, type FrameChanges, framesChanged, movesInWords } from "./frame-changes";
export { BY_OUTLINE, identified, type Said, withIdentity } from "./identity";
export { type NewFrame, placeOf } from "./new-frame";
export { onPicture } from "./on-picture";
export { foundAgain, gridInWords, hasWhatIsLeft, mostAreFound, notFound, recipesFor, wayOnSheet } from "./recipes";
