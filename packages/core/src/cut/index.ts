export { cutByGrid } from "./cells";
export { cellAt, cellRect, type Grid, gridOf, leavesBorderOnly, pitchOf } from "./grid";
export { type CutPieces, cutSheet, type FindingCut, likenessOf, type Piece } from "./pieces";
export { suggestGrids } from "./suggest";
export { type OutlineSuggestion, suggestOutlines, USUAL_OUTLINES } from "./suggest-outlines";
export { cutOfSuggestion, type GridSuggestion } from "./suggestion";
export { cutInWords, sizesAreTold, traitsOf } from "./ways";
