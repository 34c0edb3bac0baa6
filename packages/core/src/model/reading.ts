import * as z from "zod";
import { Size } from "./geometry";
import { Name } from "./name";

/**
 * The facts that a record may contain about a frame. `right` and `bottom` are edges; `column`, `row` and `index` count cells; the margin is
 * the space before the first cell, the gap the space between cells. `time` is one frame's, `total` that of all frames of its clip.
 */
export const FrameField = z.enum([
  "name",
  "x",
  "y",
  "w",
  "h",
  "right",
  "bottom",
  "column",
  "row",
  "index",
  "cellW",
  "cellH",
  "columns",
  "marginX",
  "marginY",
  "gapX",
  "gapY",
  "turned",
  "insetX",
  "insetY",
  "fullW",
  "fullH",
  "originX",
  "originY",
  "time",
  "total",
  "picture",
  "clip",
  "facing",
  "loop",
  "event",
]);
export type FrameField = z.infer<typeof FrameField>;

/**
 * The facts that a record may contain about a clip. `frames` lists names or numbers; `first` and `last` or `count` give a range, within
 * `row` if given; `prefix` is a name prefix; `pingpong` and `reversed` are separate flags.
 */
export const ClipField = z.enum([
  "name",
  "frames",
  "frame",
  "first",
  "last",
  "count",
  "row",
  "prefix",
  "time",
  "fps",
  "total",
  "loop",
  "pingpong",
  "reversed",
  "times",
  "facing",
  "event",
]);
export type ClipField = z.infer<typeof ClipField>;

const Pace = z.enum(["ms", "seconds", "fps", "ticks"]);

const Path = z
  .string()
  .max(400)
  .describe(
    "Path inside the record; `$key` is its key, `../$key` that of the record around it, a leading `../` looks in the records around it.",
  );

/**
 * The reading of a metadata file: which records describe frames and clips, and what their fields mean. Stored by name, it is applied to the
 * next file with that structure.
 */
export const Reading = z.strictObject({
  name: Name,
  container: z
    .enum(["json", "xml", "sections", "toml", "yaml", "table", "columns", "code", "lines"])
    .describe("Its notation: columns is a table separated by spaces, code is nested brackets, lines is a repeating pattern."),
  frames: z
    .string()
    .max(400)
    .describe(
      "Path of the records of frames; * stands for places in lists and for names, ^ for places in several lists of one length, $cells for all cells of the picture.",
    ),
  fields: z.partialRecord(FrameField, Path),
  rectAs: z.enum(["pixels", "share"]).optional().describe("Whether rectangles are in pixels (default) or in fractions of the picture."),
  yAs: z
    .enum(["down", "up", "top-up"])
    .optional()
    .describe("How y counts: down from the picture's top (default), or up from its bottom to the rectangle's lower or upper edge."),
  negated: z.boolean().optional().describe("Whether x and y are negated, as offsets of a picture moved under a window."),
  inclusive: z.boolean().optional().describe("Whether right and bottom are the last pixels inside instead of the first outside."),
  centred: z.boolean().optional().describe("Whether x and y are the rectangle's centre instead of its corner."),
  indexFrom: z
    .union([z.literal(0), z.literal(1)])
    .optional()
    .describe("The number of the first column, row or cell; 0 by default."),
  insetAs: z
    .enum(["corner", "negated", "bottom", "centre", "centre-up"])
    .optional()
    .describe(
      "What insets say: the place of the trimmed corner, the default; the same negated; counted up from the untrimmed frame's bottom; or how far its middle is moved, with y down or up.",
    ),
  marks: z
    .array(z.strictObject({ name: Name, x: Path, y: Path, w: Path.optional(), h: Path.optional() }))
    .max(64)
    .optional()
    .describe("Boxes and points of frames, in pixels of the untrimmed frame; points have no width and height."),
  turnedAs: z.enum(["stored", "upright"]).describe("Whether a turned frame's width and height are as stored on the picture, or upright."),
  originAs: z.enum(["pixels", "share"]).describe("Whether origins are in pixels or in fractions of the frame's size."),
  originUp: z.boolean().describe("Whether origins count from the frame's bottom upward."),
  timeAs: Pace,
  tickMs: z.number().positive().max(60_000).optional().describe("Milliseconds of a tick, for times in ticks."),
  clips: z
    .strictObject({
      records: z.string().max(400).describe("Path of the records of clips."),
      fields: z.partialRecord(ClipField, Path),
      timeAs: Pace,
      from: z.union([z.literal(0), z.literal(1)]).describe("The number of the first frame."),
    })
    .nullable(),
});
export type Reading = z.infer<typeof Reading>;

/** A metadata file of some make that a delivery is written in the shape of: its text, and how that is understood. */
export const Example = z.strictObject({
  name: Name,
  file: Name.describe("File name; delivered files get its extension."),
  text: z.string().min(1).max(1_000_000).describe("The example's original text."),
  reading: Reading,
  page: Size.optional().describe("Size of the example's picture in px, if positions count up from its bottom or are fractions of it."),
  assigned: z
    .array(z.strictObject({ path: z.string().max(400), means: z.string().max(60) }))
    .max(200)
    .optional()
    .describe("Meanings assigned to fields of frames by a person, by path; keep for fields that keep the example's value."),
});
export type Example = z.infer<typeof Example>;
