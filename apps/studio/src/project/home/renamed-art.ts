/** Follows art that somebody renamed or moved in the project's folder. */
import { picturesOf } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { followFiles } from "@caravan/core/edit";
import { type Project, withDistinctPaths } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { listInWords, t } from "../../ui/words";
import { picturesIn } from "../linked/folder";
import { type HashedFile, renamedFiles } from "../linked/match";
import { edit, useOpenProject } from "../open-project";
import { pictureBlob } from "../pictures";
import { type StoredHome, storage } from "../storage";

/** So many files are named. */
const MOST_NAMED = 3;

/**
 * If files that were there are gone, and others with their content are there under names that no picture has, the project takes these names
 * as an undoable edit. `found` are the paths at which the project's pictures are. Returns whether anything was followed.
 */
export async function followRenamedArt(home: StoredHome, project: Project, found: ReadonlyMap<string, string>): Promise<boolean> {
  const pictures = picturesOf(withDistinctPaths(project));
  const gone = pictures.filter(({ file }) => !found.has(file) && Object.hasOwn(home.art, file));
  if (gone.length === 0) return false;
  const renamed = renamedFiles(gone, await othersLike(home.folder, gone, new Set(pictures.map(({ file }) => file))));
  const now = useOpenProject.getState();
  if (renamed.size === 0 || now.project !== project || now.id !== home.project) return false;
  const error = edit(followFiles, renamed);
  if (error) throw error;
  // Followed once: if that is undone, the files are written again where they were.
  const rest = Object.entries(home.art).filter(([path]) => !renamed.has(path));
  await storage.homes.update(home.project, { art: Object.fromEntries(rest) });
  const listed = [...renamed].map(([from, to]) => `${from} → ${to}`);
  say({
    tone: "plain",
    text: t("Art was renamed in {folder}, and the project follows it: {listed}.", {
      folder: home.folder.name,
      listed: listInWords(listed, MOST_NAMED),
    }),
  });
  return true;
}

/** Files of the sizes of these pictures, at paths that are not the project's. A folder with very many files is not searched. */
async function othersLike(
  folder: FileSystemDirectoryHandle,
  pictures: readonly { readonly sha256: string }[],
  own: ReadonlySet<string>,
): Promise<HashedFile[]> {
  const sizes = new Set<number | undefined>();
  for (const { sha256 } of pictures) sizes.add((await pictureBlob(sha256))?.size);
  const others: HashedFile[] = [];
  for (const [path, file] of await picturesIn(folder).catch(() => new Map<string, File>()))
    if (!own.has(path) && sizes.has(file.size)) others.push({ path, sha256: sha256Hex(new Uint8Array(await file.arrayBuffer())) });
  return others;
}
