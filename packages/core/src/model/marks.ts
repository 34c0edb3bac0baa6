import * as z from "zod";
import { FramePoint } from "./geometry";
import { Name } from "./name";

/** Names a kind of mark: of boxes, such as what can be hit, of points, such as where a hand is, or of outlines. */
export const MarkName = Name.brand<"MarkName">();
export type MarkName = z.infer<typeof MarkName>;

/** Line patterns that distinguish marks without colour. */
export const MARK_LINES = ["solid", "dashes", "dots", "long and short"] as const;

/** The purposes of boxes: stops movement, takes hits, deals hits, triggers something on entering. */
export const BOX_USES = ["solid", "hurt", "hit", "trigger"] as const;
export type BoxUse = (typeof BOX_USES)[number];

const looks = {
  name: MarkName,
  letter: z
    .string()
    .regex(/^[\p{L}\p{N}]$/u, "One letter or digit.")
    .describe("Its tag on the screen."),
  line: z.enum(MARK_LINES).describe("How it is drawn on the screen."),
};

/** How the frames of a clip or an action get one outline: the area covered by any of them, by at least half, or by all. */
export const STEADY_WAYS = ["union", "median", "shared"] as const;
export type SteadyWay = (typeof STEADY_WAYS)[number];

/** Farther than this from its pixels no line is an outline of them. */
export const FURTHEST_OUTLINE = 64; // px

/** How an outline is traced around the drawing in a frame. */
export const Trace = z.strictObject({
  alpha: z.int().min(1).max(255).describe("Pixels count from this alpha up."),
  withinPx: z.number().min(0).max(FURTHEST_OUTLINE).describe("How far the line may be from the pixels; 0 follows each pixel."),
  corners: z.int().min(3).max(65_536).describe("The wanted limit for a polygon; the tolerance takes precedence."),
  convex: z.boolean().describe("Whether it has no dents."),
  parts: z.literal(true).optional().describe("Split into polygons without dents that fill it."),
  leastPx: z.int().positive().optional().describe("Islands of fewer pixels are ignored; absent for 4."),
  growPx: z.int().min(-FURTHEST_OUTLINE).max(FURTHEST_OUTLINE).optional().describe("Grows in all directions, or shrinks if negative."),
  flat: z.literal(true).optional().describe("The bottom is a straight line, on the ground where the figure stands on it."),
  steady: z
    .array(z.strictObject({ of: Name.describe("An action, or else a clip."), by: z.enum(STEADY_WAYS) }))
    .min(1)
    .optional()
    .describe("Clips or actions whose frames share one outline; a frame in several uses the first."),
});
export type Trace = z.infer<typeof Trace>;

export const LEAST_ISLAND = 4; // px

/** A kind of mark. Frames may have several boxes of a kind, one point, and outlines around several islands. */
export const MarkKind = z.discriminatedUnion("shape", [
  z.strictObject({
    ...looks,
    shape: z.literal("box"),
    use: z.enum(BOX_USES).optional().describe("What the boxes are for; absent for anything else."),
  }),
  z.strictObject({ ...looks, shape: z.literal("point") }),
  z.strictObject({
    ...looks,
    shape: z.literal("outline"),
    use: z.enum(BOX_USES).optional().describe("What the outlines are for; absent for anything else."),
    trace: Trace.optional().describe("How outlines are traced for frames without their own; absent if they are only drawn by hand."),
  }),
]);
export type MarkKind = z.infer<typeof MarkKind>;
export type MarkShape = MarkKind["shape"];
export type OutlineKind = Extract<MarkKind, { shape: "outline" }>;

/** One answer for each shape. What asks so does not compile with a further shape until it has an answer for it. */
export type ByShape<Answer> = { readonly [Shape in MarkShape]: (kind: Extract<MarkKind, { shape: Shape }>) => Answer };

export function byShape<Answer>(kind: MarkKind, answers: ByShape<Answer>): Answer {
  return (answers[kind.shape] as (kind: MarkKind) => Answer)(kind);
}

/** Where a frame's marks of each shape are. */
export const FIELD_OF_SHAPE = { box: "boxes", point: "points", outline: "outlines" } as const satisfies Record<MarkShape, keyof FrameMarks>;
export const MARK_SHAPES = Object.keys(FIELD_OF_SHAPE) as readonly MarkShape[];

/** A part of a frame, never empty, in pixels from its untrimmed top-left corner. It may reach out of the frame, as a blow does. */
export const Box = z.strictObject({
  x: z.int().describe("Pixels from the untrimmed frame's left edge; negative to its left."),
  y: z.int().describe("Pixels down from its top edge; negative above it."),
  w: z.int().positive().describe("Width in pixels."),
  h: z.int().positive().describe("Height in pixels."),
});
export type Box = z.infer<typeof Box>;

/** A simple polygon, clockwise as seen, with corners at corners of pixels; the first is not repeated. */
export const Outline = z
  .array(z.strictObject({ x: z.int(), y: z.int() }))
  .min(3)
  .max(65_536);
export type Outline = z.infer<typeof Outline>;

/** A point of a frame, and which way it points, where it has a way. */
export const MarkPoint = z.strictObject({
  ...FramePoint.shape,
  angle: z
    .number()
    .multipleOf(0.5)
    .min(0)
    .lt(360)
    .optional()
    .describe("Degrees clockwise on the screen, 0 to the right; halves allowed. Absent for none."),
});
export type MarkPoint = z.infer<typeof MarkPoint>;

/** A frame's marks, by kind. */
export const FrameMarks = z.strictObject({
  boxes: z.record(MarkName, z.array(Box).min(1)).optional(),
  points: z.record(MarkName, MarkPoint).optional(),
  outlines: z
    .record(MarkName, z.array(Outline))
    .optional()
    .describe("Outlines set by a person instead of traced ones; an empty list for none."),
});
export type FrameMarks = z.infer<typeof FrameMarks>;
