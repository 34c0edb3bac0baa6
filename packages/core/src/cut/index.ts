export { type Cell, type CutCells, cutByGrid } from "./cells";
export { cellAt, cellRect, type Grid, gridOf, MOST_CELLS } from "./grid";
export { type FoundIslands, findIslands, type Island, type IslandRecipe } from "./islands";
export { type CutPieces, cutSheet, type FindingCut, likenessOf, type Piece } from "./pieces";
export { type Levelled, levelRow, rowsOf } from "./rows";
export { cutOfSuggestion, type GridSuggestion, suggestGrids } from "./suggest";
export { cutInWords, sizesAreTold, traitsOf, type WayTraits } from "./ways";
