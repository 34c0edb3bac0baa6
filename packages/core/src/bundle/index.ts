export { type Bundle, bundleFiles, PROJECT_FILE, picturesOf, readBundle, readProjectFile, writeBundle } from "./bundle";
