/** Matches the files of a folder with the pictures of sources. Pure, and tested. */
import { allPictures, naturalOrder, type Picture, type Source, type SourceId } from "@caravan/core/model";

/** For every source with a matching file, the files of its pictures and its layers' pictures; null for missing ones. */
export type Matches = ReadonlyMap<SourceId, readonly (string | null)[]>;

/**
 * Matches by file name; if a name occurs in several folders, the folder path decides, and if that does not either, none is used: a wrong
 * picture would be worse than none. Cost: O(pictures + paths).
 */
export function matchFiles(sources: readonly Source[], paths: readonly string[]): Matches {
  const byName = new Map<string, string[]>();
  for (const path of paths) {
    const name = lastPart(path);
    byName.set(name, [...(byName.get(name) ?? []), path]);
  }
  const matches = new Map<SourceId, (string | null)[]>();
  for (const source of sources) {
    const found = allPictures(source).map(({ file }) => bestOf(file, byName.get(lastPart(file)) ?? []));
    if (found.some((path) => path !== null)) matches.set(source.id, found);
  }
  return matches;
}

/** A file as read: its path in the folder, and its hash. */
export interface HashedFile {
  readonly path: string;
  readonly sha256: string;
}

/**
 * Pictures that the folder has under another name now: by a picture's path in the project the path there. `missing` are pictures whose files
 * are gone, `found` files that no picture has. Of several with the same content the first is the first, in their natural order, if there are
 * as many files as pictures; otherwise nothing says which is which.
 */
export function renamedFiles(missing: readonly Pick<Picture, "file" | "sha256">[], found: readonly HashedFile[]): Map<string, string> {
  const renamed = new Map<string, string>();
  for (const sha256 of new Set(missing.map((picture) => picture.sha256))) {
    const gone = [...new Set(missing.filter((picture) => picture.sha256 === sha256).map(({ file }) => file))].sort(naturalOrder);
    const there = found.flatMap((file) => (file.sha256 === sha256 ? [file.path] : [])).sort(naturalOrder);
    if (gone.length === there.length) for (const [k, file] of gone.entries()) renamed.set(file, there[k] as string);
  }
  return renamed;
}

/** Pictures of which the folder has no file of that name at all. */
export function missingFrom(sources: readonly Source[], paths: readonly string[]): Picture[] {
  const there = new Set(paths.map(lastPart));
  return sources.flatMap(allPictures).filter(({ file }) => !there.has(lastPart(file)));
}

/** A picture's path in the project, with the name that its file has in the folder. */
export function withNameOf(file: string, path: string): string {
  return file.slice(0, file.lastIndexOf("/") + 1) + path.slice(path.lastIndexOf("/") + 1);
}

function bestOf(file: string, candidates: readonly string[]): string | null {
  if (candidates.length < 2) return candidates[0] ?? null;
  const alike = candidates.map((path) => ({ path, parts: commonTail(file, path) })).sort((a, b) => b.parts - a.parts);
  return alike[0]?.parts === alike[1]?.parts ? null : (alike[0]?.path ?? null);
}

/** How many parts two paths share, counted from the end. */
function commonTail(a: string, b: string): number {
  const [own, other] = [a.split("/").reverse(), b.split("/").reverse()];
  let count = 0;
  while (count < own.length && own[count] === other[count]) count++;
  return count;
}

function lastPart(path: string): string {
  return path.slice(path.lastIndexOf("/") + 1).toLowerCase();
}
