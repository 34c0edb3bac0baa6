/** Which frames show the same drawing, when a sheet is cut into smaller or larger rectangles than before. */
import { type Frame, overlaps } from "../model";
import { neighbourhoods } from "./nearby";
import type { NewFrame } from "./new-frame";

/** The area that a piece and a frame have in common, in px². */
interface Common {
  readonly piece: number;
  readonly frame: Frame;
  readonly area: number;
}

/**
 * Pairs of a piece, by its place in the list, and the earlier frame that shows the same drawing: more than half of the smaller one is inside
 * the other, and neither has as much in common with all others together. So the outline of a figure is the frame of its cell, with a spark
 * beside it or not; of two figures in one cell neither is.
 */
export function shownBy(pieces: readonly NewFrame[], before: readonly Frame[]): [piece: number, frame: Frame][] {
  const near = neighbourhoods(before);
  const commons: Common[] = pieces.flatMap((piece, k) =>
    [...new Set(near(piece))].flatMap((frame) => {
      const area = commonArea(piece, frame);
      return area > 0 ? [{ piece: k, frame, area }] : [];
    }),
  );
  const ofPieces = pieces.map(() => 0);
  const ofFrames = new Map<Frame, number>();
  for (const { piece, frame, area } of commons) {
    ofPieces[piece] = (ofPieces[piece] ?? 0) + area;
    ofFrames.set(frame, (ofFrames.get(frame) ?? 0) + area);
  }
  return commons
    .filter(({ piece, frame, area }) => {
      const smaller = Math.min(areaOf((pieces[piece] as NewFrame).rect), areaOf(frame.rect));
      return area * 2 > Math.max(smaller, ofPieces[piece] ?? 0, ofFrames.get(frame) ?? 0);
    })
    .map(({ piece, frame }) => [piece, frame]);
}

function commonArea({ rect: a, picture = 0 }: NewFrame, { rect: b, picture: on = 0 }: Frame): number {
  if (picture !== on || !overlaps(a, b)) return 0;
  return (Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) * (Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));
}

function areaOf({ w, h }: Frame["rect"]): number {
  return w * h;
}
