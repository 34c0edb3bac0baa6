/** Writes a project that a command made: as a folder, or as one file if the path ends with `.caravan`. */
import { existsSync, readFileSync } from "node:fs";
import { bundleFiles, writeBundle } from "@caravan/core/bundle";
import { sha256Hex, utf8 } from "@caravan/core/codec";
import { CaravanError, type Project } from "@caravan/core/model";
import { writeSet } from "./delivered-set";
import { isProjectFile, writeWhole } from "./files";

/** `pictures` are PNG files by hash; `texts` metadata files, of which a single file has those that cut its sources. Throws `not-ours` if something is in the way that Caravan did not write, unless `replace`. */
export function writeProject(
  path: string,
  project: Project,
  pictures: ReadonlyMap<string, Uint8Array>,
  by: string,
  replace: boolean,
  texts: readonly string[] = [],
): void {
  if (!isProjectFile(path)) {
    writeSet(path, bundleFiles({ project, pictures }), by, replace);
    return;
  }
  const bytes = writeBundle({ project, pictures, texts: new Map(texts.map((text) => [sha256Hex(utf8(text)), text])) });
  if (existsSync(path) && !replace && !Buffer.from(bytes).equals(readFileSync(path)))
    throw new CaravanError("not-ours", path, "There is already a different file with this name.", "Add --replace, or give another name.");
  writeWhole(path, bytes);
}
