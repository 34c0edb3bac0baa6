/** The files of a linked folder that may concern the project. */
import { allPictures, type Source } from "@caravan/core/model";
import type { HandedFile } from "../importing/collect";
import type { StoredLink } from "../storage";
import { artFilesIn } from "./folder";
import { fileAt } from "./folder-files";

/** The files to look at: all there are, or those of the sources of a project that is kept there, which may be a whole game's folder. */
export async function filesOf({ folder, home }: StoredLink, sources: readonly Source[]): Promise<Map<string, File>> {
  if (!home) return artFilesIn(folder);
  const files = new Map<string, File>();
  for (const file of sources.flatMap((source) => [...allPictures(source).map((each) => each.file), ...metadataBeside(source)])) {
    const there = await fileAt(folder, file);
    if (there) files.set(file, await there.getFile());
  }
  return files;
}

function metadataBeside({ cut, pictures }: Source): string[] {
  const [art] = pictures;
  return cut?.by === "metadata" && art ? [art.file.slice(0, art.file.lastIndexOf("/") + 1) + cut.file] : [];
}

/** A file by its path with the folder's own name, as if that was dropped: so named is what two folders have of one name. */
export function handedFrom({ name }: FileSystemDirectoryHandle, [path, file]: readonly [path: string, file: File]): HandedFile {
  return { path: `${name}/${path}`, file };
}
