/** What is drawn in frames, found in workers: of a source as it was, and of its changed art. */
import { lookOf, type PictureLook, sheetLook } from "@caravan/core/art";
import type { ChangedPicture } from "@caravan/core/edit";
import { type Drawings, placeOf, strayedFrames, withFoundPlaces } from "@caravan/core/frame-identity";
import { type Clearing, type Frame, pictureOf, type Rect, type Source } from "@caravan/core/model";
import type { Drawing } from "@caravan/core/raster";
import { run } from "../../workers/client";
import type { Begun } from "../begun";
import { pictureBlob } from "../pictures";

/** Where the drawings of a sheet's frames stand in its changed art. */
export async function placesOf(before: Source, changed: ChangedPicture, { signal }: Begun): Promise<readonly (readonly Rect[])[]> {
  const [from, to] = [await blobOfLook(sheetLook(before)), await blobOfLook(lookOf(before, changed))];
  if (!from || !to) return [];
  return run("findDrawings", { before: from, after: to, rects: before.frames.map(({ rect }) => rect) }, { signal });
}

/** What is drawn in a source's frames, under the names given; nothing of art that is gone. */
export async function drawingsIn(source: Source, nameOf: (frame: Frame) => string, { signal }: Begun): Promise<Map<string, Drawing>> {
  const drawings = new Map<string, Drawing>();
  for (const [look, frames] of framesByLook(source)) {
    const picture = await blobOfLook(look);
    const found = picture ? await run("drawings", { picture, rects: frames.map(({ rect }) => rect) }, { signal }) : [];
    for (const [k, drawing] of found.entries()) if (drawing) drawings.set(nameOf(frames[k] as Frame), drawing);
  }
  return drawings;
}

/** What is drawn in the frames as they were, and in the pieces of the changed art. */
export async function drawingsOf(before: Source, after: Source, work: Begun): Promise<Drawings> {
  const { signal } = work;
  const drawings = { before: await drawingsIn(before, ({ key }) => key, work), after: await drawingsIn(after, placeOf, work) };
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

function framesByLook(source: Source): Map<PictureLook, Frame[]> {
  const byLook = new Map<PictureLook, Frame[]>();
  for (const frame of source.frames) {
    const look = lookOf(source, pictureOf(source, frame));
    const frames = byLook.get(look);
    if (frames) frames.push(frame);
    else byLook.set(look, [frame]);
  }
  return byLook;
}

async function blobOfLook(look: PictureLook): Promise<{ blob: Blob; clearing: Clearing | null } | null> {
  const { sha256, clearing } = look;
  const blob = await pictureBlob(sha256);
  return blob ? { blob, clearing } : null;
}
