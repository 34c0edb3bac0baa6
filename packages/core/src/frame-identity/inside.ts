/** Which frames show the same drawing, when a sheet is cut into smaller or larger rectangles than before. */
import { commonArea, type Frame } from "../model";
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
      const area = (piece.picture ?? 0) === (frame.picture ?? 0) ? commonArea(piece.rect, frame.rect) : 0;
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

function areaOf({ w, h }: Frame["rect"]): number {
  return w * h;
}
