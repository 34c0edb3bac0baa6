/**
 * Pictures of the open project by hash: the file's bytes from storage, and what screens draw from, decoded once and shared.
 */
import { create } from "zustand";
import { run } from "../workers/client";
import type { ReadPicture } from "../workers/jobs";
import { storage } from "./storage";

/** What a screen needs of a picture. */
export type Picture = ReadPicture & { readonly bytes: number };

type Entry =
  | { readonly state: "loading" }
  | { readonly state: "ready"; readonly picture: Picture }
  | { readonly state: "failed"; readonly reason: string };

export const usePictures = create<{ readonly entries: ReadonlyMap<string, Entry> }>(() => ({ entries: new Map() }));

/** Blobs that storage could not take: the work goes on from memory and can still be saved to a file. */
const unsaved = new Map<string, Blob>();

/** The picture of a hash, undefined while it is being read; components that use it are drawn again when it is there. */
export function usePicture(sha256: string | undefined): Picture | undefined {
  return usePictures(({ entries }) => {
    const entry = sha256 === undefined ? undefined : entries.get(sha256);
    return entry?.state === "ready" ? entry.picture : undefined;
  });
}

/** Why a picture cannot be shown, null while nothing is wrong. */
export function usePictureProblem(sha256: string): string | null {
  return usePictures(({ entries }) => {
    const entry = entries.get(sha256);
    return entry?.state === "failed" ? entry.reason : null;
  });
}

export function pictureNow(sha256: string): Picture | undefined {
  const entry = usePictures.getState().entries.get(sha256);
  return entry?.state === "ready" ? entry.picture : undefined;
}

/** Reads pictures that are not yet there; each once, however often it is asked for. */
export function loadPictures(hashes: readonly string[]): void {
  for (const sha256 of new Set(hashes)) {
    if (usePictures.getState().entries.has(sha256)) continue;
    setEntry(sha256, { state: "loading" });
    void load(sha256);
  }
}

async function load(sha256: string): Promise<void> {
  try {
    const blob = await pictureBlob(sha256);
    if (!blob) throw new Error("It is not in this browser's storage any more.");
    const read = await run("readPicture", { name: "picture", blob });
    keepReady(read, blob);
  } catch (error) {
    setEntry(sha256, { state: "failed", reason: error instanceof Error ? error.message : String(error) });
  }
}

/** Takes in a picture that a worker has read: stores its bytes, makes it ready to draw. Returns whether storage took it. */
export async function keepPicture(read: ReadPicture, blob: Blob): Promise<boolean> {
  if (!pictureNow(read.sha256)) keepReady(read, blob);
  return storePicture(read.sha256, blob);
}

/** Stores a picture's bytes; if there is no room, keeps them in memory and returns false. */
export async function storePicture(sha256: string, blob: Blob): Promise<boolean> {
  try {
    await storage.pictures.put({ sha256, blob });
    unsaved.delete(sha256);
    return true;
  } catch {
    unsaved.set(sha256, blob);
    return false;
  }
}

/** The file's bytes. */
export async function pictureBlob(sha256: string): Promise<Blob | undefined> {
  return unsaved.get(sha256) ?? (await storage.pictures.get(sha256))?.blob;
}

function keepReady(read: ReadPicture, blob: Blob): void {
  setEntry(read.sha256, { state: "ready", picture: { ...read, bytes: blob.size } });
}

function setEntry(sha256: string, entry: Entry): void {
  usePictures.setState(({ entries }) => ({ entries: new Map(entries).set(sha256, entry) }));
}
