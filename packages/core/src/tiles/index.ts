export { type NamedPixels, tilesOf } from "./tiles";
