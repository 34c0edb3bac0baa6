/**
 * Moves frames with given rectangles (drawn by hand, or read from metadata) to their drawings in changed art.
 *
 * A drawing that occurs once is followed wherever it went. Of equal drawings, as many as before, each frame gets one: at its place, moved
 * like most others, or in order; of more than before, only one that moved like most. A frame that was redrawn goes with those around it,
 * even where nothing was. One that is nowhere, at a place where another frame's drawing is now, is gone: a clip must not show another
 * drawing. Two frames on one rectangle move together. Cost: as `followDrawings`.
 */
import { type Frame, type FramePoint, type Rect, type Size, sameRect } from "../model";
import { commonWay, type Drawings, followDrawings, movedBy, wayOf } from "./follow";
import { type NewFrame, placeOf } from "./new-frame";
import { onPicture } from "./on-picture";

export interface FollowedPlaces {
  readonly frames: readonly Frame[];
  /** How far the drawing moved on its picture, by the frame's key; absent if it is not known. */
  readonly drawn: ReadonlyMap<string, FramePoint>;
}

/** `pictures` are those of the changed art. */
export function followPlaces(before: readonly Frame[], drawings: Drawings, pictures: readonly Size[]): FollowedPlaces {
  const firsts = [...new Map(before.toReversed().map((frame) => [placeOf(frame), frame])).values()].toReversed();
  const pieces = piecesFor(firsts, drawings);
  const { frames, drawn, unplaced } = followDrawings(firsts, pieces, drawings);
  const pieceOf = new Map([...frames].map(([k, frame]) => [placeOf(frame), pieces[k] as NewFrame]));
  const taken = new Set([...pieceOf.values()].map(placeOf));
  const moved = new Map(drawn);
  for (const { frame, way, went } of unplaced) {
    const there = movedBy(frame, way);
    const on = pictures[there.picture];
    if (!on || !onPicture({ ...frame, rect: there.rect }, on) || taken.has(placeOf(there))) continue;
    taken.add(placeOf(there));
    pieceOf.set(placeOf(frame), pieceAt(frame, there.rect));
    moved.set(frame.key, went);
  }
  const isGone = (frame: Frame) => drawings.before.has(frame.key) && !pieceOf.has(placeOf(frame)) && taken.has(placeOf(frame));
  const gone = new Set(firsts.filter(isGone).map(placeOf));
  const byPlace = new Map(firsts.map((frame) => [placeOf(frame), moved.get(frame.key)]));
  return {
    frames: before.flatMap((frame) => {
      if (gone.has(placeOf(frame))) return [];
      const rect = pieceOf.get(placeOf(frame))?.rect;
      return [rect && !sameRect(rect, frame.rect) ? { ...frame, rect } : frame];
    }),
    drawn: new Map(
      before.flatMap((frame) => {
        const by = byPlace.get(placeOf(frame));
        return by ? [[frame.key, by]] : [];
      }),
    ),
  };
}

/** The frames' own places and those where their drawings are now, each once. */
function piecesFor(frames: readonly Frame[], { before, after, elsewhere = new Map() }: Drawings): NewFrame[] {
  const kept = new Set(frames.flatMap((frame) => (isAtHome(frame, before, after) ? [spotOf(frame, after)] : [])));
  const alike = new Map<string, number>();
  for (const frame of frames) {
    const print = before.get(frame.key)?.print;
    if (print !== undefined && !isAtHome(frame, before, after)) alike.set(print, (alike.get(print) ?? 0) + 1);
  }
  const piecesOf = (frame: Frame) =>
    (elsewhere.get(frame.key) ?? [])
      .map((rect: Rect) => pieceAt(frame, rect))
      // The drawing of a frame that stayed, although its own rectangle shows it moved by some pixels.
      .filter((piece: NewFrame) => !kept.has(spotOf(piece, after)));
  const way = commonWay(
    frames.flatMap((frame) => {
      const [only, ...others] = piecesOf(frame);
      return only && others.length === 0 ? [[frame, only] as const] : [];
    }),
  );
  const places = frames.flatMap((frame) => {
    const found = piecesOf(frame);
    const asMany = found.length <= (alike.get(before.get(frame.key)?.print ?? "") ?? 0);
    return [pieceAt(frame, frame.rect), ...(asMany ? found : found.filter((piece: NewFrame) => wayOf(frame, piece) === way))];
  });
  return [...new Map(places.map((piece) => [placeOf(piece), piece])).values()];
}

/** Whether a frame's rectangle still shows its drawing. */
function isAtHome(frame: Frame, before: Drawings["before"], after: Drawings["after"]): boolean {
  const print = before.get(frame.key)?.print;
  return print !== undefined && after.get(placeOf(frame))?.print === print;
}

/** Which drawing a rectangle of the changed art shows, and where on its picture. */
function spotOf(place: Parameters<typeof placeOf>[0], after: Drawings["after"]): string {
  const drawing = after.get(placeOf(place));
  return drawing ? `${place.picture ?? 0} ${drawing.x} ${drawing.y} ${drawing.print}` : "";
}

function pieceAt({ column, row, number, picture }: Frame, rect: Rect): NewFrame {
  return { key: null, column, row, number, rect, empty: false, ...(picture === undefined ? {} : { picture }) };
}
