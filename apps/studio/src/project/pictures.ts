/** Pictures of the open project by look: bitmaps for drawing and what is known of them, read once and shared. */

import {
  frameLook,
  isOfPicture,
  type Look,
  layerLooks,
  lookOf,
  type PictureLook,
  picturesOfLook,
  sheetLook,
  wornLook,
} from "@caravan/core/art";
import { allPictures, type Clearing, isOfPieces, whyOf } from "@caravan/core/model";
import type { UsedColour } from "@caravan/core/palette";
import { useEffect } from "react";
import { create } from "zustand";
import { run } from "../workers/client";
import type { ReadPicture } from "../workers/jobs";
import { useOpenProject } from "./open-project";
import { filesOfLook, storePicture, whenStored } from "./picture-files";
import { sawColours, sawGrounds } from "./seen-art";

/** What a screen needs of a picture. */
export type Picture = ReadPicture & { readonly bytes: number };

type Entry =
  | { readonly state: "loading" }
  | { readonly state: "ready"; readonly picture: Picture }
  | { readonly state: "failed"; readonly reason: string };

export const usePictures = create<{ readonly entries: ReadonlyMap<Look, Entry> }>(() => ({ entries: new Map() }));

/** Resolves when the first visible pictures have loaded or failed; at the latest after `most` ms. */
export function firstPictures(most: number): Promise<void> {
  const isThere = () => {
    const { entries } = usePictures.getState();
    return entries.size > 0 && [...entries.values()].every(({ state }) => state !== "loading");
  };
  return new Promise((resolve) => {
    const end = () => {
      clearTimeout(timer);
      stop();
      resolve();
    };
    const timer = setTimeout(end, most);
    const stop = usePictures.subscribe(() => isThere() && end());
    if (isThere()) end();
  });
}

/** How many components show a look. */
const shown = new Map<Look, number>();

/** The picture of a look, read if it is not there; undefined meanwhile. Components that use it are drawn again when it is there. */
export function usePicture(look: Look | undefined): Picture | undefined {
  useEffect(() => {
    if (look === undefined) return;
    shown.set(look, (shown.get(look) ?? 0) + 1);
    loadPictures([look]);
    return () => {
      const left = (shown.get(look) ?? 1) - 1;
      if (left > 0) shown.set(look, left);
      else shown.delete(look);
    };
  }, [look]);
  return usePictures(({ entries }) => {
    const entry = look === undefined ? undefined : entries.get(look);
    return entry?.state === "ready" ? entry.picture : undefined;
  });
}

/** Whether the pictures of all looks are there; they are read if they are not, and stay while the component shows them. */
export function useAllPictures(looks: readonly Look[]): boolean {
  const key = looks.map((look) => look.key).join("\n");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the looks do
  useEffect(() => {
    for (const look of looks) shown.set(look, (shown.get(look) ?? 0) + 1);
    loadPictures(looks);
    return () => {
      for (const look of looks) {
        const left = (shown.get(look) ?? 1) - 1;
        if (left > 0) shown.set(look, left);
        else shown.delete(look);
      }
    };
  }, [key]);
  return usePictures(({ entries }) => looks.every((look) => entries.get(look)?.state === "ready"));
}

/** Why a picture cannot be shown, null while nothing is wrong. */
export function usePictureProblem(look: Look): string | null {
  return usePictures(({ entries }) => {
    const entry = entries.get(look);
    return entry?.state === "failed" ? entry.reason : null;
  });
}

/** The picture of a look for immediate drawing. One that was released is read again, and redrawn when it arrives. */
export function pictureNow(look: Look): Picture | undefined {
  const gone = letGoOf.has(look);
  // One requested again after its release is still visible: it is kept longer, so that it does not flicker.
  drawnAt.set(look, Math.max(drawnAt.get(look) ?? 0, performance.now() + (gone ? A_LONG_WHILE : 0)));
  const entry = usePictures.getState().entries.get(look) ?? arrived.get(look);
  if (!entry && gone) queueMicrotask(() => loadPictures([look]));
  return entry?.state === "ready" ? entry.picture : undefined;
}

/** When a look was last asked for by drawing, in ms since the page began. */
const drawnAt = new Map<Look, number>();
/** Looks of the open project whose bitmaps were let go of. */
const letGoOf = new Set<Look>();

/** Reads missing pictures, each once, however often requested. */
export function loadPictures(looks: readonly Look[]): void {
  for (const look of new Set(looks)) {
    if (arrived.has(look) || usePictures.getState().entries.has(look)) continue;
    letGoOf.delete(look);
    drawnAt.set(look, Math.max(drawnAt.get(look) ?? 0, performance.now()));
    setEntry(look, { state: "loading" });
    void load(look);
  }
}

/** The bytes of bitmaps kept although the open project does not show them: undone tries, replaced art. */
const MOST_IDLE = 128 * 1024 * 1024;
/** Bytes of bitmaps of the open project beyond which those go that have not been drawn for a while. */
const MOST_OWN = 512 * 1024 * 1024;
const A_WHILE = 10_000; // ms
const A_LONG_WHILE = 300_000; // ms
/** The delay after the last change before bitmaps are released. */
const REST = 2000; // ms

/** Running reads, by look: unwanted ones are stopped. */
const reading = new Map<Look, AbortController>();

/**
 * Releases bitmaps that the project does not show: all of them with `all`, otherwise the oldest beyond the limit. Of its own, releases
 * those drawn longest ago, beyond the limit; never one that is on the screen.
 */
function letGo(all: boolean): void {
  const { project } = useOpenProject.getState();
  const used = new Set<Look>(
    project.sources.flatMap((source) =>
      isOfPieces(source)
        ? source.frames.map((frame) => frameLook(project, source, frame))
        : [
            ...source.pictures.flatMap((_, k) => [
              wornLook(project, source, k),
              sheetLook(source, k),
              ...[project, null].flatMap((stock) => layerLooks(stock, source, k).map(({ look }) => look)),
            ]),
            ...allPictures(source).map((each) => lookOf({}, each)),
            ...source.pictures.map((_, picture) => frameLook(project, source, { picture })),
          ],
    ),
  );
  const entries = new Map(usePictures.getState().entries);
  const idle = [...entries].filter(([look]) => !used.has(look) && !shown.has(look));
  let bytes = idle.reduce((sum, [, entry]) => sum + bytesOf(entry), 0);
  let changed = false;
  const drop = (look: Look, entry: Entry) => {
    entries.delete(look);
    reading.get(look)?.abort();
    if (entry.state === "ready") {
      entry.picture.bitmap.close();
      entry.picture.overview?.bitmap.close();
    }
    changed = true;
  };
  for (const [look, entry] of idle) {
    if (!all && bytes <= MOST_IDLE) break;
    if (entry.state === "loading" && !all) continue;
    bytes -= bytesOf(entry);
    drop(look, entry);
  }
  if (all) {
    letGoOf.clear();
    drawnAt.clear();
  }
  const own = [...entries].filter(([look]) => used.has(look));
  let ownBytes = own.reduce((sum, [, entry]) => sum + bytesOf(entry), 0);
  const since = (look: Look) => drawnAt.get(look) ?? 0;
  for (const [look, entry] of own.sort(([a], [b]) => since(a) - since(b))) {
    if (ownBytes <= MOST_OWN) break;
    if (entry.state !== "ready" || shown.has(look) || performance.now() - since(look) < A_WHILE) continue;
    ownBytes -= bytesOf(entry);
    letGoOf.add(look);
    drop(look, entry);
  }
  if (changed) usePictures.setState({ entries });
  if (ownBytes > MOST_OWN) resting = setTimeout(() => letGo(false), A_WHILE);
}

function bytesOf(entry: Entry): number {
  return entry.state === "ready" ? entry.picture.width * entry.picture.height * 4 : 0;
}

let resting: ReturnType<typeof setTimeout> | undefined;

useOpenProject.subscribe((open, before) => {
  if (open.project === before.project) return;
  letGoSoon(open.id !== before.id);
});

/** A moment later: whatever is being drawn now still uses the old ones. */
function letGoSoon(all: boolean): void {
  if (all) {
    setTimeout(() => letGo(true), 50);
    return;
  }
  clearTimeout(resting);
  resting = setTimeout(() => letGo(false), REST);
}

/** The picture of a look, once available. Throws why it is not. */
export async function pictureOfLook(look: Look): Promise<Picture> {
  for (;;) {
    // Again, if it was released before it was there.
    loadPictures([look]);
    const entry = usePictures.getState().entries.get(look);
    if (entry?.state === "ready") return entry.picture;
    if (entry?.state === "failed") throw new Error(entry.reason);
    await new Promise<void>((changed) => {
      const stop = usePictures.subscribe(() => {
        stop();
        changed();
      });
    });
  }
}

async function load(look: Look): Promise<void> {
  const stopping = new AbortController();
  reading.set(look, stopping);
  const { signal } = stopping;
  try {
    const files = await filesOfLook(look);
    const bytes = [...files.values()].reduce((sum, { size }) => sum + size, 0);
    let read: ReadPicture;
    if (isOfPicture(look)) {
      const { sha256, clearing, recolouring } = look;
      read = await run("readPicture", { name: "picture", blob: files.get(sha256) as Blob, clearing, recolouring }, { signal });
      if (read.ground && !clearing && !recolouring) sawGrounds(new Map([[sha256, read.ground]]));
    } else read = await run("assemble", { look, files }, { signal });
    if (stopping.signal.aborted) return;
    setEntry(look, { state: "ready", picture: { ...read, bytes } });
    // Each try of a tolerance makes a new look, without a change of the project.
    letGoSoon(false);
  } catch (error) {
    if (!stopping.signal.aborted) setEntry(look, { state: "failed", reason: whyOf(error) });
  } finally {
    if (reading.get(look) === stopping) reading.delete(look);
  }
}

/** Adds a picture read by a worker: stores its bytes and prepares it for drawing. Returns whether storage accepted it. */
export async function keepPicture(read: ReadPicture, blob: Blob): Promise<boolean> {
  const look = lookOf({}, read);
  if (!arrived.has(look) && !pictureNow(look)) keepReady(look, { ...read, bytes: blob.size });
  return storePicture(read.sha256, blob);
}

/** Pictures of a drop, shown together every so often: there may be thousands, and each change of the entries copies all of them. */
const arrived = new Map<Look, Entry>();
const SHOWN_AFTER = 60; // ms

function keepReady(look: Look, picture: Picture): void {
  if (arrived.size === 0) setTimeout(showArrived, SHOWN_AFTER);
  arrived.set(look, { state: "ready", picture });
}

function showArrived(): void {
  const added = [...arrived];
  arrived.clear();
  setEntries(added);
}

/** Looks of a picture that could not be read while it was missing. */
whenStored((sha256) => {
  if (failures === 0) return;
  for (const [look, { state }] of usePictures.getState().entries)
    if (state === "failed" && picturesOfLook(look).some((each) => each.sha256 === sha256)) {
      setEntry(look, { state: "loading" });
      void load(look);
    }
});

/** How often reading a picture failed. */
let failures = 0;

function setEntry(look: Look, entry: Entry): void {
  setEntries([[look, entry]]);
}

function setEntries(added: readonly (readonly [look: Look, entry: Entry])[]): void {
  const colours = new Map<string, readonly UsedColour[]>();
  for (const [look, entry] of added) {
    if (entry.state === "failed") failures++;
    if (entry.state === "ready" && isOfPicture(look) && entry.picture.colours)
      colours.set(lookOf(clearingOf(look), look).key, entry.picture.colours);
  }
  sawColours(colours);
  usePictures.setState(({ entries }) => {
    const next = new Map(entries);
    for (const [look, entry] of added) next.set(look, entry);
    return { entries: next };
  });
}

function clearingOf({ clearing }: PictureLook): { clearing?: Clearing } {
  return clearing ? { clearing } : {};
}
