import { existsSync, realpathSync } from "node:fs";
import { basename, dirname, join, resolve } from "node:path";
import { PROJECT_FILE } from "@caravan/core/bundle";
import type { NamedFile } from "@caravan/core/codec";
import { allPictures, CaravanError, type Project, pathKey } from "@caravan/core/model";
import { isFolder } from "./files";

/** Throws `not-ours` if a delivery would be written over the project's own document or art, whatever else was allowed. */
export function refuseOverArt(path: string, { sources }: Project, out: string, files: readonly Pick<NamedFile, "path">[]): void {
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  const own = new Set<string>();
  if (folder === null) own.add(placeOf(path));
  else for (const file of [PROJECT_FILE, ...sources.flatMap(allPictures).map((each) => each.file)]) own.add(placeOf(join(folder, file)));
  const struck = files.find((file) => own.has(placeOf(join(out, file.path))));
  if (struck)
    throw new CaravanError(
      "not-ours",
      join(out, struck.path),
      "It is this project's own file, and the delivery would be written over it. Nothing was written.",
      "Deliver into another folder, or rename the delivery.",
    );
}

/** Where a path leads, the same for every way of writing it; links are followed as far as they exist. */
function placeOf(path: string): string {
  const whole = resolve(path);
  let there = whole;
  while (!existsSync(there)) there = dirname(there);
  return pathKey(realpathSync(there) + whole.slice(there.length));
}
