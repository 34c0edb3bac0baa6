/** A folder with a project's art, to read from: one of this computer, or one that was dropped or unpacked. */
import { picturesIn } from "../linked/folder";
import { fileAt } from "../linked/folder-files";

export interface ArtFolder {
  readonly name: string;
  /** Whether it is looked at again: art that is newer than the document is reviewed then. */
  readonly isWatched: boolean;
  /** The file at a path; null if there is none. */
  fileAt(path: string): Promise<File | null>;
  /** PNG files by path. Throws when there are more files than anyone's art has. */
  pictures(): Promise<ReadonlyMap<string, File>>;
}

export function artIn(folder: FileSystemDirectoryHandle): ArtFolder {
  return {
    name: folder.name,
    isWatched: true,
    fileAt: async (path) => (await (await fileAt(folder, path))?.getFile()) ?? null,
    pictures: () => picturesIn(folder),
  };
}

export function artOf(name: string, files: ReadonlyMap<string, File>): ArtFolder {
  const pictures = new Map([...files].filter(([path]) => /\.png$/i.test(path)));
  return { name, isWatched: false, fileAt: async (path) => files.get(path) ?? null, pictures: async () => pictures };
}
