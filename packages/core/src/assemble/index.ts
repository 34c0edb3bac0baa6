export { assembled, hatched, type LaidPiece } from "./assemble";
export { layered } from "./layered";
