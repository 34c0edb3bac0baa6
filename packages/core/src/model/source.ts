import * as z from "zod";
import { t } from "../words";
import { Clearing } from "./clearing";
import { CaravanError } from "./error";
import { commonArea, FramePoint, Rect, Size, Spacing, scaledSide } from "./geometry";
import { Layer, MOST_LAYERS } from "./layer";
import { FrameMarks } from "./marks";
import { Name } from "./name";
import { Picture, SHA256 } from "./picture";
import { MOST_PIECES, pieceOf } from "./piece";
import { Reading } from "./reading";
import { UserData } from "./user-data";

const CellRange = z
  .strictObject({ first: z.int().nonnegative(), last: z.int().nonnegative() })
  .refine(({ first, last }) => first <= last, "The first is after the last.")
  .describe("Columns or rows of cells, counted from 0, both included.");

const gridFields = {
  margin: Spacing.describe("Space before the first cell, at left and top."),
  gap: Spacing.describe("Space between neighbouring cells."),
  keepEmpty: z.boolean().describe("Whether empty cells become frames."),
  offset: z
    .strictObject({ x: z.int(), y: z.int() })
    .optional()
    .describe("Moves the whole grid; may be negative. Cells that then reach outside the picture are not frames."),
  only: z
    .strictObject({ columns: CellRange.optional(), rows: CellRange.optional() })
    .optional()
    .describe("The columns and rows that become frames; without it, all."),
};

const CellCut = z.strictObject({ by: z.literal("cell"), cell: Size, ...gridFields });
const CountCut = z.strictObject({
  by: z.literal("count"),
  columns: z.int().positive(),
  rows: z.int().positive(),
  spread: z
    .literal(true)
    .optional()
    .describe(
      "The pixels left over are spread between the cells, each at its rounded place; without it they are left at right and bottom.",
    ),
  ...gridFields,
});

/** One grid over the whole sheet. */
export const GridCut = z.discriminatedUnion("by", [CellCut, CountCut]);
export type GridCut = z.infer<typeof GridCut>;

/** How a sheet is cut. A recipe, not a result: the same recipe runs again when the art changes. */
export const Cut = z.discriminatedUnion("by", [
  CellCut,
  CountCut,
  z.strictObject({
    by: z.literal("regions"),
    regions: z
      .array(z.strictObject({ area: Rect, grid: GridCut }))
      .min(1)
      .describe("Regions of the sheet with a grid each, relative to the region's top-left corner."),
  }),
  z.strictObject({
    by: z.literal("outlines"),
    joinPx: z.int().min(0).max(256).describe("Islands with at most this many transparent pixels between them form one frame."),
    leastPx: z.int().min(1).describe("Islands with fewer drawn pixels are ignored."),
    level: z.boolean().describe("Whether the frames of a row get equal sizes, on one line."),
  }),
  z.strictObject({ by: z.literal("hand") }).describe("Rectangles drawn by hand, stored with the frames."),
  z.strictObject({
    by: z.literal("metadata"),
    file: z.string().max(400).describe("The metadata file's name."),
    sha256: SHA256.optional().describe("Of its text in UTF-8, as it was read."),
    reading: Reading.describe("Its reading."),
  }),
  z.strictObject({ by: z.literal("pictures") }).describe("A source of several pictures, each one frame."),
  z.strictObject({ by: z.literal("pieces") }).describe("A source without pictures: its frames are assembled from frames of other sources."),
]);
export type Cut = z.infer<typeof Cut>;

/** Sources are identified by a short id that never changes, so that renaming one changes nothing else. */
export const SourceId = z
  .string()
  .regex(/^s\d{1,9}$/)
  .brand<"SourceId">();
export type SourceId = z.infer<typeof SourceId>;

/**
 * A frame's stable key within its source. A cell's is its column and row, `c3r0`, in a sheet's second region `g1c3r0`; an island's, a
 * hand-drawn rectangle's, a record's and a numbered picture's is a letter and a number: `i3`, `h3`, `m3`, `p3`; an assembled frame's is
 * `a3`. A frame that keeps its rectangle keeps its key, however it is cut.
 */
const FRAME_KEY = /^((g\d{1,3})?c\d{1,5}r\d{1,5}|[aihmp]\d{1,9})$/;
const FrameKey = z.string().regex(FRAME_KEY);

/** The same question as `FrameKey`, for loops over thousands of frames. */
export function isFrameKey(key: string): boolean {
  return FRAME_KEY.test(key);
}

/** A frame as steps name it: its source's id and its key, `s1/c3r0`. */
export const FrameRef = z
  .string()
  .regex(/^s\d{1,9}\/((g\d{1,3})?c\d{1,5}r\d{1,5}|[aihmp]\d{1,9})$/)
  .brand<"FrameRef">();
export type FrameRef = z.infer<typeof FrameRef>;

export const Piece = pieceOf(FrameRef);
export type Piece = z.infer<typeof Piece>;

/** One frame of a source: what the last cut found there, and what a person decided about it. */
export const Frame = z.strictObject({
  key: FrameKey,
  column: z.int().nonnegative(),
  row: z.int().nonnegative(),
  number: z
    .int()
    .nonnegative()
    .describe(
      "Running number among all cells of the source in reading order, empty ones too, from 0; of a numbered still, its own number.",
    ),
  rect: Rect.describe("Its rectangle on its picture, as stored."),
  picture: z.int().positive().optional().describe("Index of its picture in the source, from 0; absent for the first."),
  turned: z
    .union([z.literal(true), z.literal("counter")])
    .optional()
    .describe("Present if it is stored rotated by 90°: true for clockwise, counter for counter-clockwise."),
  size: Size.optional().describe("Its untrimmed size, if that is larger than the rectangle."),
  inset: Spacing.optional().describe("The rectangle's position in the untrimmed size, upright."),
  pieces: z
    .array(Piece)
    .max(MOST_PIECES)
    .optional()
    .describe("The pieces of an assembled frame, the lowest first; it has no picture, and its rectangle is its whole canvas."),
  empty: z.literal(true).optional().describe("Present if it is empty."),
  name: Name.optional().describe("A name set by hand; the default is <source>/<number>."),
  origin: FramePoint.optional().describe("Its own origin, if it differs from its source's."),
  marks: FrameMarks.optional().describe("Its boxes, points and outlines, of the project's kinds."),
  data: UserData.optional(),
  dropped: z.literal(true).optional().describe("Present if it was dropped: kept here, never delivered."),
});
export type Frame = z.infer<typeof Frame>;

/** Whether more than half of the smaller one is inside the other, on the same picture. */
export function showsMostlyTheSame(a: Pick<Frame, "rect" | "picture">, b: Pick<Frame, "rect" | "picture">): boolean {
  return (a.picture ?? 0) === (b.picture ?? 0) && commonArea(a.rect, b.rect) * 2 > Math.min(a.rect.w * a.rect.h, b.rect.w * b.rect.h);
}

export const Source = z.strictObject({
  id: SourceId,
  name: Name.describe("Shown to people, and the start of its frames' names."),
  pictures: z.array(Picture).describe("One sheet, or the pictures of a series in order; none for assembled frames."),
  layers: z
    .array(Layer)
    .min(1)
    .max(MOST_LAYERS)
    .optional()
    .describe("Layers over its pictures, from below: cut together, by what is drawn on any of them."),
  clearing: Clearing.optional().describe("How an opaque background is cleared before cutting."),
  palette: Name.optional().describe(
    "A palette that its pictures wear: after clearing, the colours that the palette stands for are turned into its own, compared exactly.",
  ),
  scale: z
    .number()
    .min(0.01)
    .max(16)
    .optional()
    .describe(
      "Project pixels for each pixel of the art; absent for 1. Sizes, origins and marks are in project pixels, rectangles in the art's.",
    ),
  cut: Cut.nullable().describe("Null until it is cut."),
  origin: FramePoint.optional().describe("The common origin of its frames; by default the middle of their bottom edge."),
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

/** A frame's origin: its own, otherwise its source's, otherwise the middle of its bottom edge. */
export function originOf(source: Pick<Source, "origin" | "scale">, frame: Pick<Frame, "origin" | "rect" | "size" | "turned">): FramePoint {
  const { w, h } = frameSize(source, frame);
  return frame.origin ?? source.origin ?? { x: w / 2, y: h };
}

/** Project pixels for each pixel of a source's art. */
export function scaleOf({ scale }: Pick<Source, "scale">): number {
  return scale ?? 1;
}

/** How large a frame is in the project, upright and untrimmed. */
export function frameSize(source: Pick<Source, "scale">, frame: Pick<Frame, "rect" | "size" | "turned">): Size {
  const { w, h } = drawnSize(frame);
  const scale = scaleOf(source);
  return scale === 1 ? { w, h } : { w: scaledSide(w, scale), h: scaledSide(h, scale) };
}

/** How large a frame is in pixels of its art, upright and untrimmed. */
export function drawnSize({ rect, size, turned }: Pick<Frame, "rect" | "size" | "turned">): Size {
  return size ?? (turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h });
}

/** The sheet of a source: its first picture. Throws `bad-call` for one without pictures, whose frames are put together from others. */
export function sheetOf(source: Pick<Source, "pictures">): Picture {
  const [first] = source.pictures;
  if (!first)
    throw new CaravanError(
      "bad-call",
      t("source"),
      t("It has no picture: its frames are put together from pieces."),
      t("Choose another one."),
    );
  return first;
}

/** All pictures of a source: its own in their order, then those of each layer. */
export function allPictures({ pictures, layers = [] }: Pick<Source, "pictures" | "layers">): Picture[] {
  return [pictures, ...layers.map((layer) => layer.pictures)].flat();
}

/** Whether its frames are put together from frames of other sources. */
export function isOfPieces({ cut }: Pick<Source, "cut">): boolean {
  return cut?.by === "pieces";
}

/** Whether its frames go by the numbers of their files, which begin where they begin. */
export function isNumberedByFiles({ pictures }: Pick<Source, "pictures">): boolean {
  return pictures.some(({ number }) => number !== undefined);
}

/** The picture that a frame is on. */
export function pictureOf(source: Pick<Source, "pictures">, frame: Pick<Frame, "picture">): Picture {
  return source.pictures[frame.picture ?? 0] ?? sheetOf(source);
}
