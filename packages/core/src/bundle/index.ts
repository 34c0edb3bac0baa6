export { type Bundle, bundleFiles, PROJECT_FILE, readBundle, readProjectFile, writeBundle, writeProjectFile } from "./bundle";
export { picturesOf } from "./pictures-of";
export { salvagedBundle } from "./salvage-bundle";
