/** Changed art of a source: what it would do to its frames and clips, shown before it is taken in. */
import { type ChangedPicture, type FrameChanges, framesChanged, refreshSource } from "@caravan/core/edit";
import {
  CaravanError,
  type Clearing,
  clipsByFrame,
  type Frame,
  frameLook,
  frameRef,
  type Look,
  lookOf,
  naturalOrder,
  partsOfLook,
  type Source,
  type SourceId,
  sourceById,
} from "@caravan/core/model";
import { create } from "zustand";
import { say } from "../ui/notices";
import { run } from "../workers/client";
import type { StoredPicture } from "../workers/jobs";
import { type Begun, begin } from "./begun";
import { keepPicture, pictureBlob, pictureOfLook } from "./pictures";
import { useSeenArt } from "./seen-art";

export interface ChangedArt {
  readonly before: Source;
  readonly after: Source;
  readonly pictures: readonly ChangedPicture[];
  readonly changes: FrameChanges;
  /** Clips that show a frame that changed or is gone, by name. */
  readonly clips: readonly string[];
  /** The document that it was looked at in. */
  readonly work: Begun;
}

export const useChangedArt = create<{ readonly art: ChangedArt | null }>(() => ({ art: null }));

/** Reads files as the new pictures of a source and shows what they would change. Throws what is wrong with them. */
export async function reviewChangedArt(id: SourceId, files: readonly File[]): Promise<void> {
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
  const next = refreshSource(
    project,
    id,
    pictures,
    looks.map(({ coverage }) => coverage),
  );
  if (next === project && wasGone) {
    say({ tone: "good", text: `The art of ${before.name} is there again.` });
    return;
  }
  if (next === project) throw new CaravanError("bad-call", before.name, "This is the very art that it has.", "Nothing needs to change.");
  const after = sourceById(next, id);
  const same = await sameLooking(before, after);
  const changes = framesChanged(before, after, (_old, frame) => same.has(frame.key));
  const uses = clipsByFrame(project);
  const clips = new Set([...changes.changed, ...changes.gone].flatMap((ref) => uses.get(ref) ?? []));
  work.stillHas(before);
  useChangedArt.setState({ art: { before, after, pictures, changes, clips: [...clips], work } });
}

/** Takes in what is being reviewed. Clips keep their steps; frames that are gone show as missing until someone decides. */
export async function takeInChangedArt({ before, pictures, work }: ChangedArt): Promise<CaravanError | null> {
  const looks = await Promise.all(pictures.map((picture) => pictureOfLook(lookOf(before, picture))));
  const error = work.edit(
    refreshSource,
    before.id,
    pictures,
    looks.map(({ coverage }) => coverage),
  );
  useChangedArt.setState({ art: null });
  return error;
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

/** Keys of frames that both have and that look the same, pixel by pixel. */
async function sameLooking(before: Source, after: Source): Promise<Set<string>> {
  const old = new Map(before.frames.map((frame) => [frame.key, frame]));
  const both = after.frames.flatMap((frame): [Frame, Frame][] => {
    const known = old.get(frame.key);
    return known ? [[known, frame]] : [];
  });
  const same = new Set<string>();
  const byLooks = new Map<string, [Frame, Frame][]>();
  for (const pair of both) {
    const key = `${frameLook(before, pair[0])}\n${frameLook(after, pair[1])}`;
    byLooks.set(key, [...(byLooks.get(key) ?? []), pair]);
  }
  for (const [key, pairs] of byLooks) {
    const [from, to] = key.split("\n") as [Look, Look];
    const answer = from === to ? pairs.map(([a, b]) => JSON.stringify(a.rect) === JSON.stringify(b.rect)) : await compared(from, to, pairs);
    pairs.forEach(([, frame], k) => {
      if (answer[k]) same.add(frame.key);
    });
  }
  return same;
}

/** Whether frames of two pictures look the same, pair by pair; what is gone looks like nothing. */
async function compared(from: Look, to: Look, pairs: readonly (readonly [Frame, Frame])[]): Promise<readonly boolean[]> {
  const [before, after] = await Promise.all([blobOfLook(from), blobOfLook(to)]);
  return before && after ? run("compareFrames", { before, after, pairs }) : pairs.map(() => false);
}

async function blobOfLook(look: Look): Promise<{ blob: Blob; clearing: Clearing | null } | null> {
  const { sha256, clearing } = partsOfLook(look);
  const blob = await pictureBlob(sha256);
  return blob ? { blob, clearing } : null;
}

/** The first refs of a list and how many there are. */
export function framesByRef(source: Source, refs: readonly string[]): Frame[] {
  const wanted = new Set(refs);
  return source.frames.filter((frame) => wanted.has(frameRef(source, frame)));
}
