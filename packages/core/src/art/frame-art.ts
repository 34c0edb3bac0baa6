/**
 * Gives a frame's pixels and coverage as the game sees them: upright, untrimmed, in project pixels. All steps from picture to frame happen
 * here: cropping, turning, padding, scaling.
 *
 * Scaling: whole factors repeat pixels. Their inverses take the pixel under the centre of each new pixel if the art is crisp (without
 * half-transparent pixels). Everything else averages the covered pixels, with colours weighted by alpha. Each frame is scaled by itself,
 * from its own top-left corner, so that no neighbour's colour bleeds in.
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

/** Everything besides its picture that determines a frame's pixels. */
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

/** What is drawn in a frame: a coverage, and the frame's rectangle in it. */
export interface Drawn {
  readonly coverage: Coverage;
  readonly frame: FramePlace;
}

/**
 * A frame's coverage and its rectangle in it: for unscaled art the picture's own, otherwise one made for the frame, in project pixels.
 * `coverage` is that of its picture.
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

/** Whether a scale picks single pixels of the art instead of averaging. */
export function isNearest(scale: number, soft: boolean): boolean {
  return Number.isInteger(scale) || (!soft && isWholeInverse(scale));
}

/** ½, ⅓, ¼ and so on, also when written with three decimals. */
function isWholeInverse(scale: number): boolean {
  const times = Math.round(1 / scale);
  return times >= 2 && Math.abs(1 / scale - times) < 0.005 * times;
}
