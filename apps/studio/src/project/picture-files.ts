/** The files of pictures, by hash: in storage, or in memory as long as storage refuses them. */
import { type Look, picturesOfLook } from "@caravan/core/art";
import { allPictures, type Project } from "@caravan/core/model";
import { t } from "../ui/words";
import { useOpenProject } from "./open-project";
import { failedSaving } from "./saving-failed";
import { sawAgain, sawMissing } from "./seen-art";
import { storage } from "./storage";

/** Blobs that storage refused: work continues from memory and can still be saved to a file. */
const unsaved = new Map<string, Blob>();

/** Pictures read from storage. A browser keeps a file while it is referenced, even after its row was deleted elsewhere. */
const held = new Map<string, Blob>();

/** Copies of pictures in memory, null without room: a person who clears what the browser stores deletes the files too, referenced or not. */
const copies = new Map<string, Blob | null>();

/** Bytes: most projects' files are smaller; of larger ones, the first are copied. */
const MOST_COPIED = 32 * 1_048_576;

/** ms: Chromium never answers who reads a file that was deleted. */
const READING = 5000;

/** How many pictures are in memory only. */
export function picturesWaiting(): number {
  return unsaved.size;
}

/** Retries storing what is only in memory. Throws storage's error at the first that does not fit; the others keep waiting. */
export async function storeWaiting(): Promise<void> {
  for (const [sha256, blob] of [...unsaved]) {
    await storage.pictures.put({ sha256, blob });
    unsaved.delete(sha256);
  }
}

/** Pictures that nobody will need: cancelled by the user, or of a project left without saving. */
export function forgetWaiting(hashes?: Iterable<string>): void {
  if (!hashes) unsaved.clear();
  else for (const sha256 of hashes) unsaved.delete(sha256);
}

/** The file of a picture that is no longer stored, in memory, if this page still has it; null otherwise. */
export async function heldPicture(sha256: string): Promise<Blob | null> {
  const copy = copies.get(sha256);
  if (copy) return copy;
  // Read completely: a file whose row is gone may disappear as well.
  const reading = held.get(sha256)?.arrayBuffer();
  const late = new Promise<null>((end) => setTimeout(() => end(null), READING));
  const bytes = reading ? await Promise.race([reading.catch(() => null), late]) : null;
  return bytes && new Blob([bytes], { type: "image/png" });
}

/** Copies the files of a project that is stored, one after the other, so that all of it can be stored again if storage is emptied. */
export async function holdPictures({ sources }: Project): Promise<void> {
  const { id } = useOpenProject.getState();
  const hashes = new Set(sources.flatMap(allPictures).map(({ sha256 }) => sha256));
  for (const sha256 of copies.keys()) if (!hashes.has(sha256)) copies.delete(sha256);
  let room = [...copies.values()].reduce((left, copy) => left - (copy?.size ?? 0), MOST_COPIED);
  for (const sha256 of hashes) {
    if (copies.has(sha256)) continue;
    const blob = room > 0 ? await pictureBlob(sha256) : undefined;
    const bytes = blob && blob.size <= room ? await blob.arrayBuffer().catch(() => null) : null;
    if (useOpenProject.getState().id !== id) return;
    copies.set(sha256, bytes && new Blob([bytes], { type: "image/png" }));
    room -= bytes?.byteLength ?? 0;
  }
}

useOpenProject.subscribe((open, before) => {
  if (open.id === before.id) return;
  held.clear();
  copies.clear();
});

const storedHere = new Set<string>();

/** Whether this page has stored a picture: documents that refer to it may not be stored yet. */
export function wasStoredHere(sha256: string): boolean {
  return storedHere.has(sha256);
}

/** Stores a picture's bytes; if there is no room, keeps them in memory, says that not all is saved, and returns false. */
export async function storePicture(sha256: string, blob: Blob): Promise<boolean> {
  storedHere.add(sha256);
  sawAgain(sha256);
  let stored = true;
  try {
    await storage.pictures.put({ sha256, blob });
    unsaved.delete(sha256);
    // It may have been missing before.
    if (copies.get(sha256) === null) copies.delete(sha256);
  } catch (error) {
    unsaved.set(sha256, blob);
    stored = false;
    useOpenProject.setState({ saving: failedSaving(error) });
  }
  for (const then of afterStored) then(sha256);
  return stored;
}

const afterStored: ((sha256: string) => void)[] = [];

/** Calls `then` for each picture as it is stored, or kept in memory: what could not be read without it can be read now. */
export function whenStored(then: (sha256: string) => void): void {
  afterStored.push(then);
}

/** The file's bytes. */
export async function pictureBlob(sha256: string): Promise<Blob | undefined> {
  const blob = unsaved.get(sha256) ?? (await storage.pictures.get(sha256))?.blob;
  if (blob && !unsaved.has(sha256)) held.set(sha256, blob);
  return blob;
}

/** The picture files of a look, by hash. Throws if one is missing. */
export async function filesOfLook(look: Look): Promise<ReadonlyMap<string, Blob>> {
  const files = new Map<string, Blob>();
  for (const { sha256 } of picturesOfLook(look)) {
    const blob = await pictureBlob(sha256);
    if (!blob) {
      sawMissing([sha256]);
      throw new Error(t("It is not in this browser's storage any more."));
    }
    files.set(sha256, blob);
  }
  return files;
}
