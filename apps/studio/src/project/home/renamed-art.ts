/** Follows art that somebody renamed or moved in the project's folder. */
import { picturesOf } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { followFiles } from "@caravan/core/edit";
import { PicturePath, type Project, withDistinctPaths } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { listInWords, t } from "../../ui/words";
import { type HashedFile, renamedFiles } from "../linked/renamed";
import { edit, useOpenProject } from "../open-project";
import { pictureBlob } from "../picture-files";
import { type StoredHome, storage } from "../storage";
import { type ArtFolder, artIn } from "./art-folder";

/** So many files are named. */
const MOST_NAMED = 3;

/** Where pictures are now, by where the document has them. */
type Renamed = ReadonlyMap<string, string>;

/**
 * If files that were there are gone, and others with their content are there under names that no picture has, the project takes these names
 * as an undoable edit. `found` are the paths at which the project's pictures are. Returns whether anything was followed.
 */
export async function followRenamedArt(home: StoredHome, project: Project, found: ReadonlyMap<string, string>): Promise<boolean> {
  const renamed = await renamedIn(artIn(home.folder), project, (file) => !found.has(file) && Object.hasOwn(home.art, file));
  const now = useOpenProject.getState();
  if (renamed.size === 0 || now.project !== project || now.id !== home.project) return false;
  const error = edit(followFiles, renamed);
  if (error) throw error;
  // Followed once: if that is undone, the files are written again where they were.
  const rest = Object.entries(home.art).filter(([path]) => !renamed.has(path));
  await storage.homes.update(home.project, { art: Object.fromEntries(rest) });
  sayFollowed(renamed, home.folder.name);
  return true;
}

/** Pictures of a document whose files are gone, and which the folder has under names that no picture of it has. */
export async function renamedIn(folder: ArtFolder, document: Project, isGone: (file: string) => boolean): Promise<Renamed> {
  const pictures = picturesOf(withDistinctPaths(document));
  const gone = pictures.filter(({ file }) => isGone(file));
  if (gone.length === 0) return new Map();
  return renamedFiles(gone, await othersLike(folder, gone, new Set(pictures.map(({ file }) => file))));
}

export function sayFollowed(renamed: Renamed, folder: string): void {
  if (renamed.size === 0) return;
  const listed = [...renamed].map(([from, to]) => `${from} → ${to}`);
  say({
    tone: "plain",
    text: t("Art was renamed in {folder}, and the project follows it: {listed}.", { folder, listed: listInWords(listed, MOST_NAMED) }),
  });
}

/** Files that may be one of these pictures, at paths that are not the project's. A folder with very many files is not searched. */
async function othersLike(
  folder: ArtFolder,
  pictures: readonly { readonly sha256: string }[],
  own: ReadonlySet<string>,
): Promise<HashedFile[]> {
  const blobs = await Promise.all(pictures.map(({ sha256 }) => pictureBlob(sha256)));
  // Of pictures that this browser does not have, the size is unknown.
  const sizes = blobs.every((blob) => blob !== undefined) ? new Set(blobs.map(({ size }) => size)) : null;
  const others: HashedFile[] = [];
  for (const [path, file] of await folder.pictures().catch(() => new Map<string, File>()))
    if (!own.has(path) && PicturePath.safeParse(path).success && (sizes === null || sizes.has(file.size)))
      others.push({ path, sha256: sha256Hex(new Uint8Array(await file.arrayBuffer())) });
  return others;
}
