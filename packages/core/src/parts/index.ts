export { type PartHost, type PartsWorld, type PlacedPart, placedParts } from "./placed";
export { placeTurned } from "./turned";
