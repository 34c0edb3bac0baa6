/**
 * The pixels and the coverage of a frame as the game sees it: upright, untrimmed, in project pixels. Whatever happens between a picture
 * and a frame happens here: cut out, turned upright, padded, scaled.
 *
 * Scaling: whole factors repeat pixels. Their inverses take the pixel that the middle of each new one lies in, if the art is crisp, that
 * is without half-transparent pixels. All else averages what a pixel covers, with colours weighted by alpha. Each frame is scaled for
 * itself, from its own top-left corner, so that no neighbour's colour comes in.
 */
import { drawnSize, type Frame, frameSize, type Rect, type Source, type Spacing, scaleOf } from "../model";
import {
  type Coverage,
  clearPixels,
  crop,
  cropCoverage,
  isSoft,
  type Pixels,
  paste,
  scaled,
  scaledCoverage,
  turnClockwise,
  turnCounterClockwise,
  turnedCoverage,
} from "../raster";

/** What decides on the pixels of a frame, beside its picture. */
export type FramePlace = Pick<Frame, "rect" | "turned" | "size" | "inset">;

const NO_INSET: Spacing = { x: 0, y: 0 };

/** A frame of a source; `picture` is the one that it is on. Cost: O(pixels of the frame), and once O(pixels of the picture) if scaled. */
export function framePixels(picture: Pixels, source: Pick<Source, "scale">, frame: FramePlace): Pixels {
  const drawn = drawnPixels(picture, frame);
  const scale = scaleOf(source);
  return scale === 1 ? drawn : scaled(drawn, scale, isNearest(scale, isSoft(picture)));
}

/** A frame upright and untrimmed in pixels of its art. Cost: O(pixels of the frame). */
export function drawnPixels(picture: Pixels, frame: FramePlace): Pixels {
  const stored = crop(picture, frame.rect);
  const upright = uprightPixels(stored, frame.turned);
  if (!frame.size) return upright;
  const whole = clearPixels(frame.size.w, frame.size.h);
  const { x, y } = frame.inset ?? NO_INSET;
  paste(whole, upright, { x: 0, y: 0, w: upright.width, h: upright.height }, x, y);
  return whole;
}

function uprightPixels(stored: Pixels, turned: FramePlace["turned"]): Pixels {
  if (turned === "counter") return turnClockwise(stored);
  return turned ? turnCounterClockwise(stored) : stored;
}

/** What is drawn of a frame: a coverage, and the part of it that the frame is. */
export interface Drawn {
  readonly coverage: Coverage;
  readonly frame: FramePlace;
}

/**
 * Where a frame is drawn, as a coverage and the part of it that the frame is: of art at its own size the picture's own, else one made for
 * the frame, in project pixels. `coverage` is of the picture that it is on.
 */
export function drawnIn(coverage: Coverage, source: Pick<Source, "scale">, frame: FramePlace): Drawn {
  const scale = scaleOf(source);
  if (scale === 1) return { coverage, frame };
  const stored = cropCoverage(coverage, frame.rect);
  const upright = frame.turned ? turnedCoverage(stored, frame.turned === "counter" ? "clockwise" : "counter") : stored;
  const { w, h } = frameSize(source, frame);
  const made = scaledCoverage(upright, frame.inset ?? NO_INSET, drawnSize(frame), scale, isNearest(scale, coverage.soft === true));
  const rect: Rect = { x: 0, y: 0, w, h };
  return { coverage: made, frame: { rect } };
}

/** Whether a scale takes single pixels of the art, rather than the mean of several. */
export function isNearest(scale: number, soft: boolean): boolean {
  return Number.isInteger(scale) || (!soft && isWholeInverse(scale));
}

/** ½, ⅓, ¼ and so on, also when written with three decimals. */
function isWholeInverse(scale: number): boolean {
  const times = Math.round(1 / scale);
  return times >= 2 && Math.abs(1 / scale - times) < 0.005 * times;
}
