import * as z from "zod";

/** Whole pixels. */
export type Px = number;

export const Size = z.strictObject({
  w: z.int().positive().describe("Width in pixels."),
  h: z.int().positive().describe("Height in pixels."),
});
export type Size = z.infer<typeof Size>;

/** A piece of a picture, never empty. */
export const Rect = z.strictObject({
  x: z.int().nonnegative().describe("Pixels from the picture's left edge."),
  y: z.int().nonnegative().describe("Pixels down from its top edge."),
  w: z.int().positive().describe("Width in pixels."),
  h: z.int().positive().describe("Height in pixels."),
});
export type Rect = z.infer<typeof Rect>;

/** A distance in both directions, each zero or more. */
export const Spacing = z.strictObject({
  x: z.int().nonnegative().describe("Pixels to the right."),
  y: z.int().nonnegative().describe("Pixels down."),
});
export type Spacing = z.infer<typeof Spacing>;

/** A point of a frame, in pixels from its untrimmed top-left corner; halves are allowed, outside the frame too. */
export const FramePoint = z.strictObject({
  x: z.number().multipleOf(0.5).describe("Pixels right of the untrimmed frame's left edge; halves allowed."),
  y: z.number().multipleOf(0.5).describe("Pixels down from its top edge; halves allowed."),
});
export type FramePoint = z.infer<typeof FramePoint>;

/** Rounded to a whole pixel; never minus 0, which no file keeps. */
export function wholePx(value: number): Px {
  return Math.round(value) + 0;
}

/** The side of a picture at a scale: a partial pixel at the end becomes a whole one. Never 0. */
export function scaledSide(side: Px, scale: number): Px {
  return Math.max(1, Math.ceil(side * scale - 1e-9));
}

/** True when the two share at least one pixel. */
export function overlaps(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}

/** How many pixels the two share. */
export function commonArea(a: Rect, b: Rect): number {
  if (!overlaps(a, b)) return 0;
  return (Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) * (Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));
}

/** Whether `inner` lies entirely within `outer`; equal rectangles do. */
export function encloses(outer: Rect, inner: Rect): boolean {
  return inner.x >= outer.x && inner.y >= outer.y && inner.x + inner.w <= outer.x + outer.w && inner.y + inner.h <= outer.y + outer.h;
}

/** True when both name the same pixels. */
export function sameRect(a: Rect, b: Rect): boolean {
  return a.x === b.x && a.y === b.y && a.w === b.w && a.h === b.h;
}
