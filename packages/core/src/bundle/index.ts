export { type Bundle, bundleFiles, PROJECT_FILE, picturesOf, readBundle, readProjectFile, writeBundle, writeProjectFile } from "./bundle";
