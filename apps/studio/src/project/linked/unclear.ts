/** Decides between files that fit a source equally well: by what they have in them, or as the person says. */
import { artStem, pathKey, type Source } from "@caravan/core/model";
import { type StoredLink, storage } from "../storage";
import { stampOf } from "./compare";
import { type Chosen, type Matching, matchFiles } from "./match";
import { isSameArt } from "./one-file";

/**
 * Matches files with sources. Of several that fit one, those with just its art are chosen, and remembered: when they change they are still
 * its. `stamp` begins what identifies a file of this link.
 */
export async function matchedByContent(
  sources: readonly Source[],
  art: ReadonlyMap<string, File>,
  link: StoredLink,
  stamp: string,
): Promise<Matching> {
  const paths = [...art.keys()];
  const { name } = link.folder;
  const matching = matchFiles(sources, paths, name, link.chosen);
  const found: Record<string, readonly string[]> = {};
  for (const source of sources) {
    const same: string[] = [];
    for (const path of matching.unclear.get(source.id) ?? []) {
      const file = art.get(path);
      if (file && (await isSameArt(source, file, `${stamp} ${path} ${stampOf(file)}`))) same.push(path);
    }
    if (same.length > 0) found[artStem(source)] = same;
  }
  if (Object.keys(found).length === 0) return matching;
  const sure = matchFiles(sources, paths, name, { ...link.chosen, ...found });
  if (sure.unclear.size < matching.unclear.size) await remember(link.project, found);
  return sure;
}

export async function remember(project: string, chosen: Chosen): Promise<void> {
  await storage.links.where({ project }).modify((link, row) => {
    row.value = { ...link, chosen: { ...link.chosen, ...chosen } };
  });
}

/** Of files that fit a source, those that fit the same picture as the first, as far as their names tell; otherwise all. */
export function alternatives(unclear: readonly string[]): readonly string[] {
  const alike = unclear.filter((path) => nameOf(path) === nameOf(unclear[0] as string));
  return alike.length > 1 ? alike : unclear;
}

/** A chosen file with what else fits in its folder: a series is chosen with one of its stills. */
export function withOthersBeside(path: string, unclear: readonly string[]): string[] {
  return unclear.filter((each) => each === path || (folderOf(each) === folderOf(path) && nameOf(each) !== nameOf(path)));
}

function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf("/") + 1);
}

/** A file's name without folders, ending and capitals. */
function nameOf(path: string): string {
  return pathKey(path.slice(path.lastIndexOf("/") + 1).replace(/\.[^.]*$/, ""));
}
