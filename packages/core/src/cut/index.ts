export { type Cell, type CutCells, cutByGrid } from "./cells";
export { cellAt, cellRect, type Grid, gridOf, MOST_CELLS } from "./grid";
