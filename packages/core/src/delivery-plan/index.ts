/** Selects and names a delivery's frames and files, without reading pixels. */
export { chosenOf } from "./choice";
export { type ChosenFrames, chosenFrames } from "./chosen-frames";
export { checkFileNames, type PathTrouble, troubleWithPaths } from "./file-names";
export { framesNamed, paddedPattern } from "./frame-names";
export { type DeliveredLayer, layersOf } from "./layers";
export { mirroredFilms } from "./mirrored-films";
export {
  besidePath,
  contactPath,
  type ForeseenFile,
  filmPath,
  foreseenFiles,
  isContactPath,
  layerPath,
  pagePath,
  placesPath,
  singlePath,
  stemOf,
  stripPath,
} from "./paths";
export { matches, matchesOne } from "./wildcard";
