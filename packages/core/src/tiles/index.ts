export { type Parted, partedIntoTiles } from "./parted";
export { type NamedPixels, tilesOf } from "./tiles";
