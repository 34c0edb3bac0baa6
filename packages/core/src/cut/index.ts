export { cutByGrid } from "./cells";
export { cellAt, cellRect, type Grid, gridOf } from "./grid";

export { type CutPieces, cutSheet, type FindingCut, likenessOf, type Piece } from "./pieces";

export { cutOfSuggestion, type GridSuggestion, suggestGrids } from "./suggest";
export { cutInWords, sizesAreTold, traitsOf } from "./ways";
