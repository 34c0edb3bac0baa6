/** Collects everything that a person hands over at once: files, whole folders, pasted images. */

import { isPassedBy } from "@caravan/core/intake";
import type { SourceId } from "@caravan/core/model";

/** A file with its path in the drop, so that folders keep their meaning. */
export interface HandedFile {
  readonly file: File;
  readonly path: string;
  /** The sources whose art or metadata it is, where that is known otherwise than by names. */
  readonly of?: readonly SourceId[];
}

export function handed(files: readonly File[]): HandedFile[] {
  return files.map((file) => ({ file, path: file.webkitRelativePath || file.name }));
}

/** What of a drop is read. */
export interface Drop {
  readonly items: Iterable<{ webkitGetAsEntry?(): FileSystemEntry | null }>;
  readonly files: Iterable<File>;
}

/** The files of a drop, folders opened. To be called in the event itself: the list is empty afterwards. */
export async function handedByDrop(transfer: Drop): Promise<HandedFile[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry?.() ?? null);
  // Files that were made by a page have no entry.
  const loose = [...transfer.files];
  if (entries.every((entry) => entry === null || entry.isFile)) return handed(loose);
  return (await Promise.all(entries.map((entry) => (entry ? filesOf(entry) : [])))).flat();
}

async function filesOf(entry: FileSystemEntry): Promise<HandedFile[]> {
  const path = entry.fullPath.replace(/^\//, "");
  // Here already: a game's folder may have a hundred thousand files that nobody drew.
  if (isPassedBy(path)) return [];
  if (entry.isFile) {
    const file = await new Promise<File>((answer, refuse) => (entry as FileSystemFileEntry).file(answer, refuse));
    return [{ file, path }];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: HandedFile[] = [];
  // A browser lists a folder a hundred entries at a time.
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((answer, refuse) => reader.readEntries(answer, refuse));
    if (some.length === 0) return found;
    for (const each of some) found.push(...(await filesOf(each)));
  }
}
