import * as z from "zod";
import { Name } from "./name";

/** What a record may say of a frame. `right` and `bottom` are edges; `column`, `row` and `index` count cells from 0. */
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
  "turned",
  "insetX",
  "insetY",
  "fullW",
  "fullH",
  "originX",
  "originY",
  "time",
  "picture",
  "clip",
  "facing",
  "loop",
]);
export type FrameField = z.infer<typeof FrameField>;

/** What a record may say of a clip. `frames` lists names or numbers; `first` and `last` or `count` give a run; `prefix` begins names. */
export const ClipField = z.enum([
  "name",
  "frames",
  "frame",
  "first",
  "last",
  "count",
  "prefix",
  "time",
  "fps",
  "total",
  "loop",
  "times",
  "facing",
]);
export type ClipField = z.infer<typeof ClipField>;

const Path = z
  .string()
  .max(400)
  .describe(
    "Path inside the record; `$key` is its key, `../$key` that of the record around it, a leading `../` looks in the records around it.",
  );

/**
 * How a metadata file of some make is understood: which records describe frames and clips, and which of their fields mean what.
 * Kept by name, it reads the next file of that structure by itself.
 */
export const Reading = z.strictObject({
  name: Name,
  container: z.enum(["json", "xml", "table", "sections"]),
  frames: z.string().max(400).describe("Path of the records of frames; * stands for places in lists and for names."),
  fields: z.partialRecord(FrameField, Path),
  turnedAs: z.enum(["stored", "upright"]).describe("Whether a turned frame's width and height are as stored on the picture, or upright."),
  originAs: z.enum(["pixels", "share"]).describe("Whether origins are in pixels or in shares of the frame's size."),
  originUp: z.boolean().describe("Whether origins count from the frame's bottom upward."),
  timeAs: z.enum(["ms", "seconds", "fps"]),
  clips: z
    .strictObject({
      records: z.string().max(400).describe("Path of the records of clips."),
      fields: z.partialRecord(ClipField, Path),
      timeAs: z.enum(["ms", "seconds", "fps"]),
      from: z.union([z.literal(0), z.literal(1)]).describe("What the first frame is counted as."),
    })
    .nullable(),
});
export type Reading = z.infer<typeof Reading>;

/** A metadata file of some make that a delivery is written in the shape of: its text, and how that is understood. */
export const Example = z.strictObject({
  name: Name,
  file: Name.describe("File name; delivered files have its ending."),
  text: z.string().min(1).max(1_000_000).describe("The example as it was given."),
  reading: Reading,
});
export type Example = z.infer<typeof Example>;
