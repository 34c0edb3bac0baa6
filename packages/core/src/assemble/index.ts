export { assembled, hatched, type LaidPiece } from "./assemble";
export { type BlendedPicture, layered } from "./layered";
