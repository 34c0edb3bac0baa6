/** Opens folders of this computer through the browser (File System Access; the private file system works the same way). */
import { isArtFile, isPassedBy, isTextFile } from "@caravan/core/intake";
import { t } from "../../ui/words";

/** Art is only read; the game's folder is written to as well. */
export type FolderUse = "read" | "readwrite";

/** What a page may do with a folder that it was handed, where the browser asks people about that. */
interface Permissions {
  queryPermission?(wanted: { mode: FolderUse }): Promise<PermissionState>;
  requestPermission?(wanted: { mode: FolderUse }): Promise<PermissionState>;
}
interface Entries {
  values(): AsyncIterableIterator<FileSystemDirectoryHandle | FileSystemFileHandle>;
}
type Picker = { showDirectoryPicker?: (options: { id: string; mode: FolderUse }) => Promise<FileSystemDirectoryHandle> };

/** A folder may be a whole disk by a slip; more files than this are not looked at. */
const MOST_FILES = 25_000;

export function canLinkFolders(): boolean {
  return "showDirectoryPicker" in globalThis;
}

/** What a folder is chosen for; the browser begins each time where it was for this. */
export type FolderFor = "art" | "game" | "project";

/** The folder that a person chooses, null if they choose none. */
export async function chosenFolder(what: FolderFor): Promise<FileSystemDirectoryHandle | null> {
  try {
    const mode = what === "art" ? "read" : "readwrite";
    return (await (globalThis as Picker).showDirectoryPicker?.({ id: `caravan-${what}`, mode })) ?? null;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") return null;
    throw error;
  }
}

/** Whether the folder may be used for this; with `ask`, which needs a click or key, the user is asked. */
export async function mayUse(folder: FileSystemDirectoryHandle, use: FolderUse, ask: boolean): Promise<boolean> {
  const { queryPermission, requestPermission } = folder as Permissions;
  if (!queryPermission) return true;
  if ((await queryPermission.call(folder, { mode: use })) === "granted") return true;
  return ask && (await requestPermission?.call(folder, { mode: use })) === "granted";
}

/** Its PNG pictures by their paths from it, folders within opened. Throws when there are more files than anyone's art has. */
export function picturesIn(folder: FileSystemDirectoryHandle): Promise<Map<string, File>> {
  return filesIn(folder, (name) => /\.png$/i.test(name));
}

/** As `picturesIn`, with everything that can be imported as art, and texts that may describe it. */
export function artFilesIn(folder: FileSystemDirectoryHandle): Promise<Map<string, File>> {
  return filesIn(folder, (name) => isArtFile(name) || isTextFile(name));
}

async function filesIn(folder: FileSystemDirectoryHandle, isWanted: (name: string) => boolean): Promise<Map<string, File>> {
  const found = new Map<string, File>();
  let seen = 0;
  const walk = async (from: FileSystemDirectoryHandle, path: string): Promise<void> => {
    for await (const entry of (from as unknown as Entries).values()) {
      const own = path + entry.name;
      if (isPassedBy(own)) continue;
      if (++seen > MOST_FILES)
        throw new Error(
          t("The folder {name} holds more than {most} files. Link the one with the art.", { name: folder.name, most: MOST_FILES }),
        );
      if (entry.kind === "directory") await walk(entry, `${own}/`);
      else if (isWanted(entry.name)) found.set(own, await entry.getFile());
    }
  };
  await walk(folder, "");
  return found;
}
