import * as z from "zod";
import { FramePoint } from "./geometry";
import { Name } from "./name";

/** Names a kind of mark: of boxes, such as what can be hit, or of points, such as where a hand is. */
export const MarkName = Name.brand<"MarkName">();
export type MarkName = z.infer<typeof MarkName>;

/** Lines by which marks are told apart without colour. */
export const MARK_LINES = ["solid", "dashes", "dots", "long and short"] as const;

/** What boxes can be for: what stops movement, what is hurt, what hurts, what starts something when it is entered. */
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

/** A kind of mark. Frames may have several boxes of a kind and one point. */
export const MarkKind = z.discriminatedUnion("shape", [
  z.strictObject({
    ...looks,
    shape: z.literal("box"),
    use: z.enum(BOX_USES).optional().describe("What the boxes are for; absent for anything else."),
  }),
  z.strictObject({ ...looks, shape: z.literal("point") }),
]);
export type MarkKind = z.infer<typeof MarkKind>;
export type MarkShape = MarkKind["shape"];

/** One answer for each shape. What asks so does not compile with a further shape until it has an answer for it. */
export type ByShape<Answer> = { readonly [Shape in MarkShape]: (kind: Extract<MarkKind, { shape: Shape }>) => Answer };

export function byShape<Answer>(kind: MarkKind, answers: ByShape<Answer>): Answer {
  return (answers[kind.shape] as (kind: MarkKind) => Answer)(kind);
}

/** Where a frame's marks of each shape are. */
export const FIELD_OF_SHAPE = { box: "boxes", point: "points" } as const satisfies Record<MarkShape, keyof FrameMarks>;
export const MARK_SHAPES = Object.keys(FIELD_OF_SHAPE) as readonly MarkShape[];

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
