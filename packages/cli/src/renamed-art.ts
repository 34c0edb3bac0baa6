/** Finds pictures of a project whose files were renamed or moved in its folder. */
import { type Dirent, readdirSync } from "node:fs";
import { join, relative, sep } from "node:path";
import { sha256Hex } from "@caravan/core/codec";
import { isPassedBy } from "@caravan/core/intake";
import { CaravanError, type Picture } from "@caravan/core/model";
import { readFile } from "./files";

/** A project's folder may be a whole game's: more pictures than this are not read for one that is missing. */
const MOST_READ = 5000;

/** The error for a picture whose file is gone: it names a file that has the picture, if there is one. */
export function goneFrom(folder: string, { file, sha256 }: Pick<Picture, "file" | "sha256">): CaravanError {
  const path = join(folder, file);
  const now = placeOf(folder, sha256);
  if (now === null) return new CaravanError("not-found", path, "There is no such file or folder.", "Check the path.");
  const what = `There is no such file, but ${now} is this picture.`;
  return new CaravanError("not-found", path, what, "Correct the path in caravan.json, or open the folder in the studio, which follows it.");
}

function placeOf(folder: string, sha256: string): string | null {
  return placesOf(folder, new Set([sha256])).get(sha256) ?? null;
}

/** Where pictures with these hashes are below the folder; those found nowhere are left out. */
export function placesOf(folder: string, hashes: ReadonlySet<string>): Map<string, string> {
  const places = new Map<string, string>();
  if (hashes.size === 0) return places;
  for (const path of picturesIn(folder).slice(0, MOST_READ)) {
    const sha256 = hashAt(join(folder, path));
    if (sha256 !== null && hashes.has(sha256) && !places.has(sha256)) places.set(sha256, path);
    if (places.size === hashes.size) break;
  }
  return places;
}

/** Null for a file that cannot be read. */
function hashAt(path: string): string | null {
  try {
    return sha256Hex(readFile(path));
  } catch {
    return null;
  }
}

/** With `/`; what is nobody's art is passed by, and what cannot be read. */
function picturesIn(folder: string): string[] {
  let entries: Dirent[];
  try {
    entries = readdirSync(folder, { withFileTypes: true, recursive: true });
  } catch {
    return [];
  }
  return entries
    .filter((entry) => entry.isFile() && /\.png$/i.test(entry.name))
    .map(({ parentPath, name }) => relative(folder, join(parentPath, name)).split(sep).join("/"))
    .filter((path) => !isPassedBy(path));
}
