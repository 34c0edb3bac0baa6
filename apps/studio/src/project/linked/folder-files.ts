/** Reads and writes files of a folder by path. Each file is written whole: if the page is closed meanwhile, the previous file stays. */

/** The file at a path in the folder, null if there is none. */
export async function fileAt(folder: FileSystemDirectoryHandle, path: string): Promise<FileSystemFileHandle | null> {
  try {
    const { parent, name } = await parentOf(folder, path, false);
    return await parent.getFileHandle(name);
  } catch (error) {
    if (isMissing(error)) return null;
    throw error;
  }
}

export function isMissing(error: unknown): boolean {
  return error instanceof DOMException && error.name === "NotFoundError";
}

/** The folder of a path's file, and the file's own name; with `create`, missing folders are made. */
export async function parentOf(
  folder: FileSystemDirectoryHandle,
  path: string,
  create: boolean,
): Promise<{ parent: FileSystemDirectoryHandle; name: string }> {
  const parts = path.split("/");
  let parent = folder;
  for (const part of parts.slice(0, -1)) parent = await parent.getDirectoryHandle(part, { create });
  return { parent, name: parts.at(-1) as string };
}

/** Writes a file through a copy beside it, which replaces it when complete. */
export async function writeWhole(handle: FileSystemFileHandle, bytes: Uint8Array): Promise<void> {
  const stream = await handle.createWritable();
  try {
    await stream.write(bytes as Uint8Array<ArrayBuffer>);
    await stream.close();
  } catch (error) {
    await stream.abort().catch(() => {});
    throw error;
  }
}
