import * as z from "zod";
import { FramePoint } from "./geometry";
import { Name } from "./name";

/** Names a kind of mark: of boxes, such as what can be hit, or of points, such as where a hand is. */
export const MarkName = Name.brand<"MarkName">();
export type MarkName = z.infer<typeof MarkName>;

/** Lines by which marks are told apart without colour. */
export const MARK_LINES = ["solid", "dashes", "dots", "long and short"] as const;

/** A kind of mark. Frames may have several boxes of a kind and one point. */
export const MarkKind = z.strictObject({
  name: MarkName,
  shape: z.enum(["box", "point"]),
  letter: z
    .string()
    .regex(/^[\p{L}\p{N}]$/u, "One letter or digit.")
    .describe("Its tag on the screen."),
  line: z.enum(MARK_LINES).describe("How it is drawn on the screen."),
});
export type MarkKind = z.infer<typeof MarkKind>;

/** A part of a frame, never empty, in pixels from its untrimmed top-left corner. It may reach out of the frame, as a blow does. */
export const Box = z.strictObject({
  x: z.int().describe("Pixels from the untrimmed frame's left edge; negative to its left."),
  y: z.int().describe("Pixels down from its top edge; negative above it."),
  w: z.int().positive().describe("Width in pixels."),
  h: z.int().positive().describe("Height in pixels."),
});
export type Box = z.infer<typeof Box>;

/** What is marked on a frame, by kind. */
export const FrameMarks = z.strictObject({
  boxes: z.record(MarkName, z.array(Box).min(1)).optional(),
  points: z.record(MarkName, FramePoint).optional(),
});
export type FrameMarks = z.infer<typeof FrameMarks>;
