import * as z from "zod";
import { FramePoint, Rect, Size, Spacing } from "./geometry";
import { Name } from "./name";

const gridFields = {
  margin: Spacing.describe("Space before the first cell, at left and top."),
  gap: Spacing.describe("Space between neighbouring cells."),
  keepEmpty: z.boolean().describe("Whether a cell with nothing drawn in it becomes a frame."),
};

/** How a sheet is cut. A recipe, not a result: the same recipe runs again when the art changes. */
export const Cut = z.discriminatedUnion("by", [
  z.strictObject({ by: z.literal("cell"), cell: Size, ...gridFields }),
  z.strictObject({ by: z.literal("count"), columns: z.int().positive(), rows: z.int().positive(), ...gridFields }),
]);
export type Cut = z.infer<typeof Cut>;

/** Sources are named by a short id that never changes, so that renaming one touches nothing else. */
export const SourceId = z
  .string()
  .regex(/^s\d{1,9}$/)
  .brand<"SourceId">();
export type SourceId = z.infer<typeof SourceId>;

/** A frame's stable key within its source. A cell's is its column and row: `c3r0`. */
export const FrameKey = z.string().regex(/^c\d{1,5}r\d{1,5}$/);

/** A frame as steps name it: its source's id and its key, `s1/c3r0`. */
export const FrameRef = z
  .string()
  .regex(/^s\d{1,9}\/c\d{1,5}r\d{1,5}$/)
  .brand<"FrameRef">();
export type FrameRef = z.infer<typeof FrameRef>;

/** One frame of a source: what the last cut found there, and what a person decided about it. */
export const Frame = z.strictObject({
  key: FrameKey,
  column: z.int().nonnegative(),
  row: z.int().nonnegative(),
  number: z.int().nonnegative().describe("Running number among all cells of the source in reading order, empty ones too, from 0."),
  rect: Rect,
  empty: z.literal(true).optional().describe("Present when nothing is drawn in it."),
  name: Name.optional().describe("A name given by hand; without one it is <source>/<number>."),
  origin: FramePoint.optional().describe("Where it stands, if not where its source's frames do."),
  dropped: z.literal(true).optional().describe("Present when it was dropped: kept here, delivered nowhere."),
});
export type Frame = z.infer<typeof Frame>;

export const SHA256 = z.string().regex(/^[0-9a-f]{64}$/);

/** A path that stays inside the project's folder: relative, with `/`, no `..`, nothing a file system refuses. */
export const PicturePath = z
  .string()
  .max(400)
  .regex(
    /^(?!\.{1,2}(\/|$))[^\\/:*?"<>|\p{Cc}]+(\/(?!\.{1,2}(\/|$))[^\\/:*?"<>|\p{Cc}]+)*$/u,
    "A relative path with / that stays in the project's folder.",
  )
  .describe("Path of the picture from the project's folder, with /.");

export const Source = z.strictObject({
  id: SourceId,
  name: Name.describe("Shown to people, and the start of its frames' names."),
  file: PicturePath,
  sha256: SHA256.describe("Of the picture file's bytes."),
  width: z.int().positive(),
  height: z.int().positive(),
  cut: Cut.nullable().describe("Null until it is cut."),
  origin: FramePoint.optional().describe("Where its frames stand; without one, the middle of their bottom edge."),
  frames: z.array(Frame).describe("In the order of the tray."),
});
export type Source = z.infer<typeof Source>;

export function frameRef(source: Pick<Source, "id">, frame: Pick<Frame, "key">): FrameRef {
  return `${source.id}/${frame.key}` as FrameRef;
}

/** The name a game asks for. */
export function frameName(source: Pick<Source, "name">, frame: Pick<Frame, "name" | "number">): string {
  return frame.name ?? `${source.name}/${frame.number}`;
}

/** Where a frame stands: its own origin, else its source's, else the middle of its bottom edge. */
export function originOf(source: Pick<Source, "origin">, frame: Pick<Frame, "origin" | "rect">): FramePoint {
  return frame.origin ?? source.origin ?? { x: frame.rect.w / 2, y: frame.rect.h };
}
