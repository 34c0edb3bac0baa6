/**
 * Adjusts origins and marks when a frame's rectangle changes, so that they stay on the drawing: they are numbers within a frame, but mean a
 * pixel of the picture. Pure.
 */
import { type Frame, type FramePoint, type Source, scaleOf, showsMostlyTheSame, wholePx } from "../model";
import { shiftedMarks } from "./frame-marks";
import { halves } from "./origin";

/**
 * The source with `frames` replacing its own. A frame keeps its key from before to after; its own origin and its marks are adjusted so that
 * they stay at their pixels, and so is the source's origin for all frames that use it: together if all of them moved equally, otherwise by
 * individual origins. Frames that now show mostly something else keep their numbers, and so do an origin and marks that are not the very
 * objects that the frame had: a file says where they are in the new rectangle. `drawn` gives, by key, how far the drawing itself moved
 * within its picture, if known.
 */
export function withAnchoredFrames(source: Source, frames: readonly Frame[], drawn: ReadonlyMap<string, FramePoint> = new Map()): Source {
  const before = new Map(source.frames.map((frame) => [frame.key as string, frame]));
  const shifts = shiftsWithin(source, frames, drawn);
  const common = source.origin ? commonShift(frames, shifts) : null;
  const origin = source.origin && common ? movedBy(source.origin, common) : source.origin;
  const next = frames.map((frame, k) => {
    const by = shifts[k];
    if (!by || isNone(by)) return frame;
    const old = before.get(frame.key);
    const stands = frame.origin ?? (common ? undefined : source.origin);
    const isTold = frame.origin !== undefined && frame.origin !== old?.origin;
    const moved = stands && !isTold ? movedBy(stands, by) : frame.origin;
    const { origin: _own, ...others } = frame;
    // Back where it was, it stands on its source's origin again.
    const own = moved && (isTold || moved.x !== origin?.x || moved.y !== origin.y) ? { origin: moved } : {};
    const marks = frame.marks && frame.marks === old?.marks ? { marks: shiftedMarks(frame.marks, wholeOf(by)) } : {};
    return { ...others, ...own, ...marks };
  });
  return { ...source, frames: next, ...(origin ? { origin } : {}) };
}

/**
 * How far the picture's pixels moved within each of `frames`, which replace the source's own, in project pixels; null for one that is new, or
 * shows mostly something else. `drawn` as in `withAnchoredFrames`.
 */
export function shiftsWithin(
  source: Source,
  frames: readonly Frame[],
  drawn: ReadonlyMap<string, FramePoint> = new Map(),
): (FramePoint | null)[] {
  const scale = scaleOf(source);
  const before = new Map(source.frames.map((frame) => [frame.key as string, frame]));
  return frames.map((frame) => {
    const old = before.get(frame.key);
    const by = old ? shiftWithin(old, frame, drawn.get(frame.key)) : null;
    return by && { x: by.x * scale, y: by.y * scale };
  });
}

/** The offset by which all frames with the source's origin moved, if it is the same for all and not zero. */
function commonShift(frames: readonly Frame[], shifts: readonly (FramePoint | null)[]): FramePoint | null {
  const standing = shifts.filter((_, k) => !frames[k]?.origin);
  const [first] = standing;
  if (!first || isNone(first)) return null;
  return standing.every((each) => each?.x === first.x && each.y === first.y) ? first : null;
}

/** Origins keep to halves. */
function movedBy({ x, y }: FramePoint, by: FramePoint): FramePoint {
  return { x: x + halves(by.x), y: y + halves(by.y) };
}

/** Boxes keep to whole pixels. */
function wholeOf({ x, y }: FramePoint): FramePoint {
  return { x: wholePx(x), y: wholePx(y) };
}

function isNone({ x, y }: FramePoint): boolean {
  return x === 0 && y === 0;
}

/** How far the picture's pixels moved within the frame; null if it shows mostly something else, or if unknown. */
function shiftWithin(old: Frame, frame: Frame, drawn: FramePoint | undefined): FramePoint | null {
  if (old.turned !== frame.turned) return null;
  if (!drawn && !showsMostlyTheSame(old, frame)) return null;
  const [from, to] = [cornerOf(old), cornerOf(frame)];
  const went = drawn ?? { x: 0, y: 0 };
  // A stored frame that is turned clockwise has its own x along the picture's y, and its own y against the picture's x.
  if (old.turned === "counter") return { x: to.y - from.y - went.y + 0, y: from.x - to.x + went.x + 0 };
  return old.turned
    ? { x: from.y - to.y + went.y + 0, y: to.x - from.x - went.x + 0 }
    : { x: from.x - to.x + went.x + 0, y: from.y - to.y + went.y + 0 };
}

/** The position of the untrimmed frame's top-left corner on the picture. */
function cornerOf({ rect, inset = { x: 0, y: 0 }, turned }: Frame): FramePoint {
  if (turned === "counter") return { x: rect.x - inset.y, y: rect.y + rect.h + inset.x };
  return turned ? { x: rect.x + rect.w + inset.y, y: rect.y - inset.x } : { x: rect.x - inset.x, y: rect.y - inset.y };
}
