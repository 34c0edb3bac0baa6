/** Schema of pieces: cut frames that other frames are assembled from. */
import * as z from "zod";
import type { Size } from "./geometry";
import { Name } from "./name";

/** No frame that is put together is wider or higher, in px. */
export const LARGEST_CANVAS = 4096;
/** No frame has more pieces. */
export const MOST_PIECES = 1000;

const FLIPS = ["across", "down", "both"] as const;
export const Flip = z.enum(FLIPS);
export type Flip = z.infer<typeof Flip>;

const Along = z.int().min(-LARGEST_CANVAS).max(LARGEST_CANVAS);

/** `of` is a frame's ref; the frame schema says which frames have pieces. */
export function pieceOf<Ref extends z.ZodType>(of: Ref) {
  return z.strictObject({
    of: of.describe("A frame that was cut, by its ref."),
    x: Along.describe("Left edge of its untrimmed frame on the canvas, after flipping, in project pixels."),
    y: Along.describe("Its top edge."),
    flip: Flip.optional().describe("Mirrored across (left and right), down (top and bottom), or both."),
    palette: Name.optional().describe("The palette whose colours it wears; absent for its own."),
    group: z.int().min(1).max(MOST_PIECES).optional().describe("Pieces with the same number on a frame are selected and moved together."),
    hidden: z.literal(true).optional().describe("Hidden, but kept."),
  });
}

/** The canvas of frames that are put together, if it is one that fits. */
export function isFitCanvas({ w, h }: Size): boolean {
  return Number.isInteger(w) && Number.isInteger(h) && Math.min(w, h) >= 1 && Math.max(w, h) <= LARGEST_CANVAS;
}
