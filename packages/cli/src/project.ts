/** Opens a project in any of its forms and brings its art up to date. */
import { basename, dirname, join } from "node:path";
import { PROJECT_FILE, readBundle, readProjectFile } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { refreshSource } from "@caravan/core/edit";
import type { Project, SourceId } from "@caravan/core/model";
import { coverageOf, type Pixels } from "@caravan/core/raster";
import { isFolder, readFile } from "./files";
import { pngCodec } from "./png";

/** Reads the document alone, from a folder, its caravan.json, or a `*.caravan` file. */
export function openDocument(path: string): Project {
  if (isFolder(path)) return readProjectFile(readFile(join(path, PROJECT_FILE)), join(path, PROJECT_FILE));
  if (basename(path) === PROJECT_FILE) return readProjectFile(readFile(path), path);
  return readBundle(readFile(path), path).project;
}

export interface OpenProject {
  readonly project: Project;
  readonly pictures: ReadonlyMap<SourceId, Pixels>;
  /** Sources whose art changed since the document was saved and was cut again by its recipe. */
  readonly refreshed: readonly string[];
}

/** Opens a project with its pictures decoded. In folder form, art that was overwritten is cut again by its recipe. */
export function openProject(path: string): OpenProject {
  const png = pngCodec();
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  if (folder === null) {
    const { project, pictures } = readBundle(readFile(path), path);
    const decoded = project.sources.map(({ id, file, sha256 }): [SourceId, Pixels] => [
      id,
      png.decode(pictures.get(sha256) as Uint8Array, `${path}, ${file}`),
    ]);
    return { project, pictures: new Map(decoded), refreshed: [] };
  }
  let project = openDocument(path);
  const pictures = new Map<SourceId, Pixels>();
  const refreshed: string[] = [];
  for (const source of project.sources) {
    const file = join(folder, source.file);
    const bytes = readFile(file);
    const pixels = png.decode(bytes, file);
    pictures.set(source.id, pixels);
    const sha256 = sha256Hex(bytes);
    if (sha256 === source.sha256) continue;
    refreshed.push(source.name);
    project = refreshSource(project, source.id, { sha256, width: pixels.width, height: pixels.height }, coverageOf(pixels));
  }
  return { project, pictures, refreshed };
}
