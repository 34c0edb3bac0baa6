/** Changed art of a source: what it would do to its frames and clips, shown before it is taken in. */

import { frameLook, type Look, lookOf } from "@caravan/core/art";
import { type ChangedPicture, refreshSource } from "@caravan/core/edit";
import {
  comparedByDrawings,
  type Drawings,
  type FrameChanges,
  framesChanged,
  placeOf,
  strayedFrames,
  withFoundPlaces,
} from "@caravan/core/frame-identity";
import {
  CaravanError,
  type Clearing,
  clipsByFrame,
  type Frame,
  frameRef,
  naturalOrder,
  type Rect,
  type Source,
  type SourceId,
  sourceById,
} from "@caravan/core/model";
import type { Drawing } from "@caravan/core/raster";
import { create } from "zustand";
import { say } from "../ui/notices";
import { run } from "../workers/client";
import type { StoredPicture } from "../workers/jobs";
import { type Begun, begin } from "./begun";
import { useOpenProject } from "./open-project";
import { keepPicture, pictureBlob, pictureOfLook } from "./pictures";
import { useSeenArt } from "./seen-art";

export interface ChangedArt {
  readonly before: Source;
  readonly after: Source;
  readonly pictures: readonly ChangedPicture[];
  readonly changes: FrameChanges;
  /** What frames are recognised by when their drawing has moved. */
  readonly drawings: Drawings;
  /** Clips that show a frame that changed or is gone, by name. */
  readonly clips: readonly string[];
  /** The document that it was looked at in. */
  readonly work: Begun;
}

export const useChangedArt = create<{ readonly art: ChangedArt | null }>(() => ({ art: null }));

/** Called when the review that is shown has been decided on, or was given up with its project. */
let whenDecided: (byPerson: boolean) => void = () => {};

/** Ends the review: what the person decided is decided. */
export function endChangedArt(byPerson = true): void {
  useChangedArt.setState({ art: null });
  whenDecided(byPerson);
  whenDecided = () => {};
}

// A review of another project's art has no meaning any more.
useOpenProject.subscribe((open, before) => {
  if (open.id !== before.id && useChangedArt.getState().art) endChangedArt(false);
});

/**
 * Reads files as the new pictures of a source and shows what they would change, after what is being reviewed already. Ends when that is
 * decided on; false if it was given up with its project. Throws what is wrong with the files.
 */
export async function reviewChangedArt(id: SourceId, files: readonly File[]): Promise<boolean> {
  const work = begin();
  const { project } = work;
  const before = sourceById(project, id);
  const { missing } = useSeenArt.getState();
  const wasGone = before.pictures.some(({ sha256 }) => missing.has(sha256));
  const stored = (await Promise.all(files.toSorted((a, b) => naturalOrder(a.name, b.name)).map(readPictures))).flat();
  if (before.pictures.length === 1 && stored.length !== 1)
    throw new CaravanError(
      "bad-call",
      before.name,
      `It has one picture, and ${stored.length} were given.`,
      "Choose one, or add a series as a source.",
    );
  const pictures = stored.map(({ sha256, width, height }) => ({ sha256, width, height }));
  const looks = await Promise.all(pictures.map((picture) => pictureOfLook(lookOf(before, picture))));
  const coverages = looks.map(({ coverage }) => coverage);
  const next = refreshSource(project, id, pictures, coverages);
  if (next === project && wasGone) {
    say({ tone: "good", text: `The art of ${before.name} is there again.` });
    return true;
  }
  if (next === project) throw new CaravanError("bad-call", before.name, "This is the very art that it has.", "Nothing needs to change.");
  const drawings = await drawingsOf(before, sourceById(next, id), work);
  const after = sourceById(refreshSource(project, id, pictures, coverages, drawings), id);
  const changes = framesChanged(before, after, comparedByDrawings(drawings));
  const uses = clipsByFrame(project);
  const clips = new Set([...changes.changed, ...changes.gone].flatMap((ref) => uses.get(ref) ?? []));
  while (useChangedArt.getState().art) await new Promise<void>((next) => untilClosed(next));
  work.stillHas(before);
  useChangedArt.setState({ art: { before, after, pictures, changes, drawings, clips: [...clips], work } });
  return new Promise((decided) => {
    whenDecided = decided;
  });
}

/** Takes in what is being reviewed. Clips keep their steps; frames that are gone show as missing until someone decides. */
export async function takeInChangedArt({ before, pictures, drawings, work }: ChangedArt): Promise<CaravanError | null> {
  const looks = await Promise.all(pictures.map((picture) => pictureOfLook(lookOf(before, picture))));
  const error = work.edit(
    refreshSource,
    before.id,
    pictures,
    looks.map(({ coverage }) => coverage),
    drawings,
  );
  endChangedArt();
  return error;
}

function untilClosed(next: () => void): void {
  const stop = useChangedArt.subscribe(({ art }) => {
    if (art) return;
    stop();
    next();
  });
}

async function readPictures(file: File): Promise<ChangedPicture[]> {
  const art = await run("readArt", { name: file.name, blob: file });
  const keep = async ({ picture, png }: StoredPicture): Promise<ChangedPicture> => {
    await keepPicture(picture, png ?? new Blob([await file.arrayBuffer()], { type: "image/png" }));
    return picture;
  };
  switch (art.kind) {
    case "still":
      return [await keep(art.picture)];
    case "animation":
      return Promise.all(art.pictures.map(keep));
    default:
      throw new CaravanError(
        "not-a-picture",
        file.name,
        "It is no picture that could take another's place.",
        "Choose a picture or an animation.",
      );
  }
}

/** What is drawn in the frames as they were, and in the pieces of the changed art; nothing of art that is gone. */
async function drawingsOf(before: Source, after: Source, { signal }: Begun): Promise<Drawings> {
  const olds = new Map<string, Drawing>();
  const news = new Map<string, Drawing>();
  for (const [source, note] of [
    [before, (frame: Frame, drawing: Drawing) => olds.set(frame.key, drawing)],
    [after, (frame: Frame, drawing: Drawing) => news.set(placeOf(frame), drawing)],
  ] as const)
    for (const [look, frames] of framesByLook(source)) {
      const picture = await blobOfLook(look);
      const found = picture ? await run("drawings", { picture, rects: frames.map(({ rect }) => rect) }, { signal }) : [];
      for (const [k, drawing] of found.entries()) if (drawing) note(frames[k] as Frame, drawing);
    }
  const drawings = { before: olds, after: news };
  const strayed = strayedFrames(before, drawings);
  const places = new Map<Frame, readonly Rect[]>();
  for (const [k, picture] of before.pictures.entries()) {
    const frames = strayed.filter((frame) => (frame.picture ?? 0) === k);
    const changed = after.pictures[k];
    if (frames.length === 0 || !changed) continue;
    const [from, to] = [await blobOfLook(lookOf(before, picture)), await blobOfLook(lookOf(after, changed))];
    if (!from || !to) continue;
    const found = await run("findDrawings", { before: from, after: to, rects: frames.map(({ rect }) => rect) }, { signal });
    for (const [n, frame] of frames.entries()) places.set(frame, found[n] ?? []);
  }
  return withFoundPlaces(
    drawings,
    strayed,
    strayed.map((frame) => places.get(frame) ?? []),
  );
}

function framesByLook(source: Source): Map<Look, Frame[]> {
  const byLook = new Map<Look, Frame[]>();
  for (const frame of source.frames) {
    const look = frameLook(source, frame);
    const frames = byLook.get(look);
    if (frames) frames.push(frame);
    else byLook.set(look, [frame]);
  }
  return byLook;
}

async function blobOfLook(look: Look): Promise<{ blob: Blob; clearing: Clearing | null } | null> {
  const { sha256, clearing } = look;
  const blob = await pictureBlob(sha256);
  return blob ? { blob, clearing } : null;
}

/** The first refs of a list and how many there are. */
export function framesByRef(source: Source, refs: readonly string[]): Frame[] {
  const wanted = new Set(refs);
  return source.frames.filter((frame) => wanted.has(frameRef(source, frame)));
}
