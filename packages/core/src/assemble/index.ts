export { assembled, hatched, type LaidPiece } from "./assemble";
