import { shiftsWithin } from "../marks";
import {
  type Frame,
  type FramePoint,
  type FrameRef,
  frameRef,
  frameSize,
  isOfPieces,
  LARGEST_CANVAS,
  type Piece,
  type Project,
  type Size,
  type Source,
  sourceById,
} from "../model";
import { withSource } from "./with-source";

/** What became of a frame: how far its pixels moved within it, and how large it was and is, in whole project pixels. */
interface Change {
  readonly by: FramePoint;
  readonly from: Size;
  readonly to: Size;
}

/**
 * Returns the project with a source cut into other rectangles. Frames that are put together from its frames look as before: their pieces are
 * laid so that each pixel stays where it was on the canvas, also of mirrored ones. `drawn` as in `withAnchoredFrames`.
 */
export function withCut(project: Project, source: Source, drawn: ReadonlyMap<string, FramePoint> = new Map()): Project {
  const next = withSource(project, source);
  if (!project.sources.some(isOfPieces)) return next;
  const changes = changesOf(sourceById(project, source.id), source, drawn);
  if (changes.size === 0) return next;
  const sources = next.sources.map((each): Source => {
    if (!each.frames.some(({ pieces }) => pieces?.some(({ of }) => changes.has(of)))) return each;
    return { ...each, frames: each.frames.map((frame) => withPiecesLaid(frame, changes)) };
  });
  return { ...next, sources };
}

function changesOf(before: Source, after: Source, drawn: ReadonlyMap<string, FramePoint>): Map<FrameRef, Change> {
  const shifts = shiftsWithin(before, after.frames, drawn);
  const olds = new Map(before.frames.map((frame) => [frame.key as string, frame]));
  const changes = new Map<FrameRef, Change>();
  for (const [k, frame] of after.frames.entries()) {
    const [shift, old] = [shifts[k], olds.get(frame.key)];
    if (!shift || !old) continue;
    const change = {
      by: { x: Math.round(shift.x), y: Math.round(shift.y) },
      from: frameSize(before, old),
      to: frameSize(after, frame),
    };
    if (change.by.x !== 0 || change.by.y !== 0 || change.from.w !== change.to.w || change.from.h !== change.to.h)
      changes.set(frameRef(after, frame), change);
  }
  return changes;
}

function withPiecesLaid(frame: Frame, changes: ReadonlyMap<FrameRef, Change>): Frame {
  if (!frame.pieces?.some(({ of }) => changes.has(of))) return frame;
  return {
    ...frame,
    pieces: frame.pieces.map((piece) => {
      const change = changes.get(piece.of);
      return change ? laid(piece, change) : piece;
    }),
  };
}

function laid(piece: Piece, { by, from, to }: Change): Piece {
  const across = piece.flip === "across" || piece.flip === "both";
  const down = piece.flip === "down" || piece.flip === "both";
  return {
    ...piece,
    x: onCanvas(across ? piece.x + from.w - to.w + by.x : piece.x - by.x),
    y: onCanvas(down ? piece.y + from.h - to.h + by.y : piece.y - by.y),
  };
}

/** A piece lies at most as far from the canvas as a canvas may be large. */
export function onCanvas(along: number): number {
  return Math.min(LARGEST_CANVAS, Math.max(-LARGEST_CANVAS, along));
}
