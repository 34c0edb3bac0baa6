/**
 * Origins and marks are numbers within a frame, but mean a pixel of the picture: what one side marked keeps its pixel where the other side
 * moved the frame's rectangle.
 */
import { withAnchoredFrames } from "../marks";
import type { Frame, Project, Source } from "../model";
import { same } from "../three-way";
import { sourcesById, type Versions } from "./versions";

/** All three with rectangles that one side moved where that side has them, and what stands in those frames moved with them. */
export function withRectanglesOfBoth({ base, ours, theirs }: Versions): Versions {
  const [mine, hers] = [sourcesById(ours), sourcesById(theirs)];
  const moved = new Map<string, ReadonlyMap<string, Place>>();
  for (const before of base.sources) {
    const [own, other] = [mine.get(before.id), hers.get(before.id)];
    if (!own || !other || (own.frames === before.frames && other.frames === before.frames)) continue;
    const places = movedByOne(before, own, other);
    if (places.size > 0) moved.set(before.id, places);
  }
  if (moved.size === 0) return { base, ours, theirs };
  const laid = (project: Project): Project => ({
    ...project,
    sources: project.sources.map((source) => {
      const places = moved.get(source.id);
      return places
        ? withAnchoredFrames(
            source,
            source.frames.map((frame) => withPlace(frame, places.get(frame.key))),
          )
        : source;
    }),
  });
  return { base: laid(base), ours: laid(ours), theirs: laid(theirs) };
}

/** Where a frame lies on the art. */
type Place = Pick<Frame, "rect" | "picture" | "turned" | "inset">;

function placeOf({ rect, picture, turned, inset }: Frame): Place {
  return { rect, ...(picture === undefined ? {} : { picture }), ...(turned ? { turned } : {}), ...(inset ? { inset } : {}) };
}

function withPlace(frame: Frame, place: Place | undefined): Frame {
  if (!place || same(placeOf(frame), place)) return frame;
  const { rect: _r, picture: _p, turned: _t, inset: _i, ...others } = frame;
  return { ...others, ...place };
}

/** The new places of frames that all three have and exactly one side moved, by key. */
function movedByOne(base: Source, ours: Source, theirs: Source): Map<string, Place> {
  const [own, other] = [byKey(ours), byKey(theirs)];
  const places = new Map<string, Place>();
  for (const frame of base.frames) {
    const [mine, hers] = [own.get(frame.key), other.get(frame.key)];
    if (!mine || !hers) continue;
    const [was, is, theirPlace] = [placeOf(frame), placeOf(mine), placeOf(hers)];
    const [weDid, theyDid] = [!same(was, is), !same(was, theirPlace)];
    if (weDid !== theyDid) places.set(frame.key, weDid ? is : theirPlace);
  }
  return places;
}

function byKey({ frames }: Source): Map<string, Frame> {
  return new Map(frames.map((frame) => [frame.key as string, frame]));
}
