/** Finds what is drawn in frames, in workers: for a source as it was, and for its changed art. */
import { type SheetLook, sheetLook } from "@caravan/core/art";
import { type Drawings, placeOf, strayedFrames, withFoundPlaces } from "@caravan/core/frame-identity";
import type { Frame, Rect, Source } from "@caravan/core/model";
import type { Drawing } from "@caravan/core/raster";
import { run } from "../../workers/client";
import type { LookFiles } from "../../workers/jobs";
import type { Begun } from "../begun";
import { filesOfLook } from "../picture-files";

/** The positions of a sheet's drawings, those of `frames`, in its changed art. */
export async function placesOf(
  before: Source,
  after: Source,
  { signal }: Begun,
  frames: readonly Frame[] = before.frames,
): Promise<readonly (readonly Rect[])[]> {
  if (frames.length === 0) return [];
  const [from, to] = [await filesOf(sheetLook(before)), await filesOf(sheetLook(after))];
  if (!from || !to) return [];
  return run("findDrawings", { before: from, after: to, rects: frames.map(({ rect }) => rect) }, { signal });
}

/** Prints of a source's frames, by the given names; none for missing art. */
export async function drawingsIn(source: Source, nameOf: (frame: Frame) => string, { signal }: Begun): Promise<Map<string, Drawing>> {
  const drawings = new Map<string, Drawing>();
  for (const [look, frames] of framesByLook(source)) {
    const of = await filesOf(look);
    const found = of ? await run("drawings", { of, rects: frames.map(({ rect }) => rect) }, { signal }) : [];
    for (const [k, drawing] of found.entries()) if (drawing) drawings.set(nameOf(frames[k] as Frame), drawing);
  }
  return drawings;
}

/** Prints of the earlier frames, and of the pieces of the changed art. */
export async function drawingsOf(before: Source, after: Source, work: Begun): Promise<Drawings> {
  const { signal } = work;
  const drawings = { before: await drawingsIn(before, ({ key }) => key, work), after: await drawingsIn(after, placeOf, work) };
  const strayed = strayedFrames(before, drawings);
  const places = new Map<Frame, readonly Rect[]>();
  for (const k of before.pictures.keys()) {
    const frames = strayed.filter((frame) => (frame.picture ?? 0) === k);
    if (frames.length === 0 || !after.pictures[k]) continue;
    const [from, to] = [await filesOf(sheetLook(before, k)), await filesOf(sheetLook(after, k))];
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

function framesByLook(source: Source): Map<SheetLook, Frame[]> {
  const byLook = new Map<SheetLook, Frame[]>();
  for (const frame of source.frames) {
    const look = sheetLook(source, frame.picture);
    const frames = byLook.get(look);
    if (frames) frames.push(frame);
    else byLook.set(look, [frame]);
  }
  return byLook;
}

/** A look with its files; null for missing art. */
async function filesOf(look: SheetLook): Promise<LookFiles | null> {
  return filesOfLook(look)
    .then((files) => ({ look, files }))
    .catch(() => null);
}
