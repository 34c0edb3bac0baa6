/** Matches the files of a folder with the pictures of sources. Pure, and tested. */
import { allPictures, type Source, type SourceId } from "@caravan/core/model";

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
