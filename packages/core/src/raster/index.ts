export { type Coverage, coverageOf, drawnPart, isClear } from "./coverage";
export { COLOUR_LIMIT, factsOf, type PictureFacts } from "./facts";
export { firstAlike, type Part } from "./likeness";
export { clearPixels, crop, extrude, looksSame, type Pixels, paste, samePixels, turnClockwise, turnCounterClockwise } from "./pixels";
