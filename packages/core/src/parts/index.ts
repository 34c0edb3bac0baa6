export { type PartHost, type PartsWorld, type PlacedPart, placedParts } from "./placed";
export { type DrawnPlace, placeTurned } from "./turned";
