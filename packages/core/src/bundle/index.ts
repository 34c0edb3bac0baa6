export { type Bundle, bundleFiles, PROJECT_FILE, readBundle, readProjectFile, writeBundle } from "./bundle";
export { picturesOf } from "./pictures-of";
