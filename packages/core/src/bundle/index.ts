export { type Bundle, bundleFiles, PROJECT_FILE, readBundle, readProjectFile, writeBundle, writeProjectFile } from "./bundle";
