export { inPalettes, type PaletteUse, worn } from "./in-palettes";
export { type NearPair, nearTiles } from "./near";
export { type Parted, partedIntoTiles } from "./parted";
export { type NamedPixels, type PlacedTile, tilesOf } from "./tiles";
