export { type NamedPixels, type PlacedTile, type Tiles, tilesOf } from "./tiles";
