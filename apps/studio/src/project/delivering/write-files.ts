/** Files into a folder of this computer, through the browser: each appears whole or not at all. */
import type { NamedFile } from "@caravan/core/codec";

/** Writes those files whose bytes are not there already; answers with the paths that were written. */
export async function writeChanged(folder: FileSystemDirectoryHandle, files: readonly NamedFile[]): Promise<string[]> {
  const written: string[] = [];
  for (const { path, bytes } of files) {
    const { parent, name } = await parentOf(folder, path, true);
    const handle = await parent.getFileHandle(name, { create: true });
    if (await holds(handle, bytes)) continue;
    // What is written goes into a file beside it, which takes its place when it is closed.
    const stream = await handle.createWritable();
    try {
      await stream.write(bytes as Uint8Array<ArrayBuffer>);
      await stream.close();
    } catch (error) {
      await stream.abort().catch(() => {});
      throw error;
    }
    written.push(path);
  }
  return written;
}

/** Takes files away that are there; those that are gone already do no harm. */
export async function removeFiles(folder: FileSystemDirectoryHandle, paths: readonly string[]): Promise<void> {
  for (const path of paths)
    try {
      const { parent, name } = await parentOf(folder, path, false);
      await parent.removeEntry(name);
    } catch (error) {
      if (!(error instanceof DOMException && error.name === "NotFoundError")) throw error;
    }
}

async function parentOf(
  folder: FileSystemDirectoryHandle,
  path: string,
  create: boolean,
): Promise<{ parent: FileSystemDirectoryHandle; name: string }> {
  const parts = path.split("/");
  let parent = folder;
  for (const part of parts.slice(0, -1)) parent = await parent.getDirectoryHandle(part, { create });
  return { parent, name: parts.at(-1) as string };
}

async function holds(handle: FileSystemFileHandle, bytes: Uint8Array): Promise<boolean> {
  const file = await handle.getFile();
  if (file.size !== bytes.length) return false;
  const there = new Uint8Array(await file.arrayBuffer());
  return there.every((byte, k) => byte === bytes[k]);
}
