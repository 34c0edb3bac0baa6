/**
 * Writes a set of files into a folder through the browser. All files are staged beside the others first, with a list; then each is moved
 * into place; then list and copies are removed. If the page is closed in between, the next visit finishes the list.
 */

import { type NamedFile, sha256Hex } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";
import { RECEIPT, type Receipt, readReceipt, receiptAfter, writeReceipt } from "@caravan/core/receipt";
import { t } from "../../ui/words";
import { fileAt, isMissing, parentOf, writeWhole } from "../linked/folder-files";

/** Where the files of a delivery wait until all of them are there. */
const STAGED = ".caravan-staged";
/** Written when all staged files are complete: lists their final places by the names of the copies. */
const LIST = "list.json";

/**
 * Writes files whose bytes are not there already; returns the paths written. `ours` are the paths of an earlier delivery of this project;
 * `by` is the delivery's name in the folder's list. A file in the way that neither lists belongs to somebody else: then nothing is written.
 * Throws `not-ours`.
 */
export async function replaceFiles(
  folder: FileSystemDirectoryHandle,
  files: readonly NamedFile[],
  ours: ReadonlySet<string>,
  by: string,
): Promise<string[]> {
  await finishDelivery(folder);
  const receipt = await receiptIn(folder);
  const changed: NamedFile[] = [];
  for (const file of files) {
    const there = await fileAt(folder, file.path);
    if (there && (await holds(there, file.bytes))) continue;
    if (there && !ours.has(file.path) && receipt.get(file.path)?.sha256 !== (await hashOf(there))) throw notOurs(file.path);
    changed.push(file);
  }
  const made = files.map(({ path, bytes }) => ({ path, sha256: sha256Hex(bytes) }));
  const noted = writeReceipt(receiptAfter(receipt, made, by).receipt);
  if (changed.length === 0) {
    await noteReceipt(folder, noted);
    return [];
  }
  const staged = await folder.getDirectoryHandle(STAGED, { create: true });
  const list: StagedFile[] = [];
  for (const [k, { path, bytes }] of changed.entries()) {
    await writeWhole(await staged.getFileHandle(String(k), { create: true }), bytes);
    list.push({ copy: String(k), path, sha256: sha256Hex(bytes) });
  }
  await writeWhole(await staged.getFileHandle(LIST, { create: true }), new TextEncoder().encode(JSON.stringify(list)));
  await putInPlace(folder, staged, list);
  await noteReceipt(folder, noted);
  return changed.map(({ path }) => path);
}

interface StagedFile {
  readonly copy: string;
  readonly path: string;
  readonly sha256: string;
}

async function receiptIn(folder: FileSystemDirectoryHandle): Promise<Receipt> {
  const handle = await fileAt(folder, RECEIPT);
  return readReceipt(handle ? new Uint8Array(await (await handle.getFile()).arrayBuffer()) : null);
}

async function noteReceipt(folder: FileSystemDirectoryHandle, bytes: Uint8Array): Promise<void> {
  const handle = await folder.getFileHandle(RECEIPT, { create: true });
  if (!(await holds(handle, bytes))) await writeWhole(handle, bytes);
}

async function hashOf(handle: FileSystemFileHandle): Promise<string> {
  return sha256Hex(new Uint8Array(await (await handle.getFile()).arrayBuffer()));
}

/** Completes a delivery that was staged entirely; otherwise removes its copies. */
export async function finishDelivery(folder: FileSystemDirectoryHandle): Promise<void> {
  let staged: FileSystemDirectoryHandle;
  try {
    staged = await folder.getDirectoryHandle(STAGED);
  } catch {
    return;
  }
  const list = await readList(staged);
  if (list) await putInPlace(folder, staged, list);
  else await folder.removeEntry(STAGED, { recursive: true });
}

async function readList(staged: FileSystemDirectoryHandle): Promise<StagedFile[] | null> {
  try {
    const text = await (await (await staged.getFileHandle(LIST)).getFile()).text();
    return JSON.parse(text) as StagedFile[];
  } catch {
    return null;
  }
}

async function putInPlace(
  folder: FileSystemDirectoryHandle,
  staged: FileSystemDirectoryHandle,
  list: readonly StagedFile[],
): Promise<void> {
  for (const { copy, path, sha256 } of list) {
    const bytes = new Uint8Array(await (await (await staged.getFileHandle(copy)).getFile()).arrayBuffer());
    // Someone may have cleaned up in between; an incomplete set is not delivered.
    if (sha256Hex(bytes) !== sha256) continue;
    const { parent, name } = await parentOf(folder, path, true);
    await writeWhole(await parent.getFileHandle(name, { create: true }), bytes);
  }
  await folder.removeEntry(STAGED, { recursive: true });
}

function notOurs(path: string): CaravanError {
  return new CaravanError(
    "not-ours",
    path,
    t("A file of this name is there that Caravan did not deliver."),
    t("Move it or rename the delivery; nothing was written."),
  );
}

/** Deletes files; missing ones are ignored. */
export async function removeFiles(folder: FileSystemDirectoryHandle, paths: readonly string[]): Promise<void> {
  for (const path of paths)
    try {
      const { parent, name } = await parentOf(folder, path, false);
      await parent.removeEntry(name);
    } catch (error) {
      if (!isMissing(error)) throw error;
    }
}

async function holds(handle: FileSystemFileHandle, bytes: Uint8Array): Promise<boolean> {
  const file = await handle.getFile();
  if (file.size !== bytes.length) return false;
  const there = new Uint8Array(await file.arrayBuffer());
  return there.every((byte, k) => byte === bytes[k]);
}
