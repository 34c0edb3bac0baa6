/**
 * Computes a frame's origin: one of nine places of its untrimmed box, or derived from its drawing.
 *
 * Points are in pixels from the frame's untrimmed top-left corner, in halves, so that the centre of an even width can be expressed.
 */
import type { Drawn } from "../art";
import { type Box, type Frame, type FramePoint, frameSize, type Rect, type Size, type Source } from "../model";
import { drawnPart, middleOfDrawn } from "../raster";

/** The nine places, by rows from the top. */
export const PLACES = [
  "top left",
  "top middle",
  "top right",
  "middle left",
  "middle",
  "middle right",
  "bottom left",
  "bottom middle",
  "bottom right",
] as const;
export type OriginPlace = (typeof PLACES)[number];

/** A place of a box of this size. */
export function originAtPlace({ w, h }: Size, place: OriginPlace): FramePoint {
  const at = PLACES.indexOf(place);
  return { x: ((at % 3) * w) / 2, y: (Math.floor(at / 3) * h) / 2 };
}

/** How an origin is derived from the drawing. */
export const DRAWN_WAYS = ["feet", "mass", "box"] as const;
export type DrawnWay = (typeof DRAWN_WAYS)[number];

/** Share of the drawn height, from below, that counts as feet. */
const FEET = 0.08;

/**
 * The position of a frame's drawing, null for an empty frame. `drawn` comes from `core/art`. * `feet`: the centre of what touches the
 * ground, the lowest rows, with the ground right below. `mass`: the centre of all drawn pixels. `box`: the middle of the bottom edge of
 * their bounding box. Cost: O(words of 32 pixels of the frame).
 */
export function drawnOrigin({ coverage, frame }: Drawn, way: DrawnWay): FramePoint | null {
  const part = drawnPart(coverage, frame.rect);
  if (!part) return null;
  const box = uprightBox(part, frame);
  const bottom = box.y + box.h;
  if (way === "box") return { x: box.x + box.w / 2, y: bottom };
  if (way === "feet") {
    const low = lowestRows(part, frame, Math.max(1, Math.round(box.h * FEET)));
    const { x, w } = uprightBox(drawnPart(coverage, low) as Rect, frame);
    return { x: x + w / 2, y: bottom };
  }
  // The mean of the pixels upright is the mean as stored, set upright.
  const mean = middleOfDrawn(coverage, part) as FramePoint;
  const { x, y } = uprightOf(frame)(mean.x, mean.y);
  return { x: halves(x + 0.5), y: halves(y + 0.5) };
}

/** The part's lowest rows as they are upright, as stored. */
function lowestRows(part: Rect, { turned }: Pick<Frame, "turned">, rows: number): Rect {
  if (turned === "counter") return { ...part, x: part.x + part.w - rows, w: rows };
  return turned ? { ...part, w: rows } : { ...part, y: part.y + part.h - rows, h: rows };
}

/** The bounding box of a frame's drawing, in its untrimmed pixels, null for an empty frame. */
export function drawnBox({ coverage, frame }: Drawn): Box | null {
  const part = drawnPart(coverage, frame.rect);
  return part && uprightBox(part, frame);
}

function uprightBox(part: Box, frame: Pick<Frame, "rect" | "turned" | "inset">): Box {
  const { turned } = frame;
  const { x, y } = uprightOf(frame)(turned === true ? part.x + part.w - 1 : part.x, turned === "counter" ? part.y + part.h - 1 : part.y);
  return turned ? { x, y, w: part.h, h: part.w } : { x, y, w: part.w, h: part.h };
}

/** From a pixel of the picture to the same one in the untrimmed frame. */
function uprightOf({ rect, turned, inset = { x: 0, y: 0 } }: Pick<Frame, "rect" | "turned" | "inset">) {
  // What was the top of a frame that is stored turned clockwise is at the right; of one turned counter-clockwise at the left.
  if (turned === "counter")
    return (x: number, y: number): FramePoint => ({ x: inset.x + rect.y + rect.h - 1 - y, y: inset.y + x - rect.x });
  return (x: number, y: number): FramePoint =>
    turned ? { x: inset.x + y - rect.y, y: inset.y + rect.x + rect.w - 1 - x } : { x: inset.x + x - rect.x, y: inset.y + y - rect.y };
}

/** One point for frames that should stand equally: the median of their own in x, the lowest in y. Null for no points. */
export function commonOrigin(points: readonly FramePoint[]): FramePoint | null {
  if (points.length === 0) return null;
  const xs = points.map(({ x }) => x).sort((a, b) => a - b);
  const middle = ((xs[(xs.length - 1) >> 1] as number) + (xs[xs.length >> 1] as number)) / 2;
  return { x: halves(middle), y: Math.max(...points.map(({ y }) => y)) };
}

/** Converts between points and fractions of a size: 0.5, 1 is the middle of the bottom edge. */
export function shareOf({ x, y }: FramePoint, { w, h }: Size): FramePoint {
  return { x: x / w, y: y / h };
}

/** The nearest point in half pixels to a share of a size. */
export function pointAtShare(share: FramePoint, { w, h }: Size): FramePoint {
  return { x: halves(share.x * w), y: halves(share.y * h) };
}

/** Whether all frames have one size, so that one point means the same in each. */
export function sameSizes(
  placed: readonly { readonly source: Pick<Source, "scale">; readonly frame: Pick<Frame, "rect" | "size" | "turned"> }[],
): boolean {
  const sizes = placed.map(({ source, frame }) => frameSize(source, frame));
  return sizes.every(({ w, h }) => w === sizes[0]?.w && h === sizes[0]?.h);
}

/** Rounded to half pixels; never minus 0. */
export function halves(value: number): number {
  return Math.round(value * 2) / 2 + 0;
}
