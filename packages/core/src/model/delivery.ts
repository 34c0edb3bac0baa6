import * as z from "zod";
import { Colour } from "./clearing";
import { Size } from "./geometry";
import { Packing, USUAL_PACKING } from "./packing";
import { FrameRef } from "./source";

/** The start of file names, so names that file systems refuse are refused here. */
export const FileStem = z
  .string()
  .min(1)
  .max(100)
  .regex(/^[^\\/:*?"<>|\p{Cc}]*[^\\/:*?"<>|\p{Cc}. ]$/u, 'A file name without \\ / : * ? " < > | and not ending in a dot or blank.');

/** What kind of pictures go out. */
const DeliveryKind = z.enum(["atlas", "grid", "strips", "singles", "films"]);

/** How frames are arranged on a grid sheet and on strips. Distances in pixels of the sheet. */
export const SheetLayout = z.strictObject({
  columns: z.int().min(1).max(4096).nullable().describe("Columns; null chooses a wide, readable number."),
  marginPx: z.int().min(0).max(256).describe("Before the first and after the last cell."),
  gapPx: z.int().min(0).max(256).describe("Between two cells."),
  run: z.enum(["along", "down"]).describe("Whether the frames of a strip follow each other to the right or down."),
  rows: z
    .literal("clips")
    .optional()
    .describe(
      "Whether each row of a grid sheet is a clip, step by step, in the order of the clips; absent: frames in the order of the tray.",
    ),
});
export type SheetLayout = z.infer<typeof SheetLayout>;

/** One size of a delivery. */
export const Density = z.strictObject({
  scale: z.number().min(0.01).max(16).describe("Delivered pixels per project pixel."),
  suffix: z
    .string()
    .max(20)
    .regex(/^[^\\/:*?"<>|\p{Cc}]*$/u, 'No \\ / : * ? " < > |.')
    .describe("Appended to the name in file names, such as @2x."),
  crisp: z
    .literal(true)
    .optional()
    .describe(
      "Present where each pixel takes the nearest one's colour at scales that are no whole number; else what it covers is averaged.",
    ),
});
export type Density = z.infer<typeof Density>;

/** Which clips and frames go out. */
const Choice = z.strictObject({
  of: z
    .enum(["all", "clips", "actions", "frames"])
    .describe(
      "Everything; or what the names and the patterns choose, with its frames; or single frames, with the clips that have no others.",
    ),
  names: z.array(z.string()).describe("Names of clips or actions."),
  pattern: z
    .string()
    .max(200)
    .describe(
      "Names that match go out as well: * stands for any text, ? for one character; several patterns with commas between. Empty matches none.",
    ),
  frames: z.array(FrameRef).max(100_000).optional().describe("The frames, if they are chosen individually."),
});

/** The files beside the pictures. */
const DataFiles = z.strictObject({
  atlas: z.boolean().describe("The atlas file."),
  compact: z
    .literal(true)
    .optional()
    .describe("Whether the atlas file is written without spaces and line breaks, for games that are downloaded."),
  times: z.boolean().describe("A table of every clip's steps: when each begins and how long it shows."),
  ticksPerSecond: z.number().min(1).max(1_000_000).describe("The rate of the game's clock that the table and the atlas count in as well."),
  ticks: z.literal(true).optional().describe("Whether the atlas gives each step's duration in ticks of that clock."),
  frames: z.boolean().describe("A table of every frame's rectangle, size and origin."),
  example: z.string().nullable().describe("Name of the example in whose shape metadata is also written; null for none."),
  rules: z.boolean().optional().describe("The rules of behaviours as tables for people, in Markdown and CSV."),
  places: z
    .literal(true)
    .optional()
    .describe(
      "For games that recolour by themselves: beside each page a picture of the place of every colour in its palette, and the palettes.",
    ),
  tiles: z
    .strictObject({
      tile: Size,
      flips: z.boolean().describe("Whether flipped tiles count as one."),
      palettes: z
        .literal(true)
        .optional()
        .describe("Whether tiles that differ only by their palette count as one: the placement then gives each one's palette."),
    })
    .optional()
    .describe("A page of distinct tiles with their positions, and the palettes; absent for none."),
  contact: z.boolean().describe("A picture for people: every clip with its steps and times."),
  page: z
    .literal(true)
    .optional()
    .describe("Whether there is a page to hand round: one HTML file in which everything plays, without a server or a network."),
  module: z.enum(["none", "typed", "plain"]).describe("The atlas as a module of TypeScript with types of all names, or of JavaScript."),
});

/** How numbers count in tables and in the shape of an example; the atlas file always has pixels, y down, from 0. */
export const Counting = z.strictObject({
  origin: z.enum(["pixels", "fraction"]),
  y: z.enum(["down", "up"]),
  from: z.union([z.literal(0), z.literal(1)]),
});
export type Counting = z.infer<typeof Counting>;

/** One delivery: pictures and the files beside them. Settings that its kind does not use are kept. */
export const Delivery = z.strictObject({
  name: FileStem.describe("Start of the delivered files' names."),
  kind: DeliveryKind,
  filter: z.enum(["nearest", "linear"]).describe("How the game should scale the pages."),
  choice: Choice,
  frameNames: z
    .string()
    .max(200)
    .describe(
      "How frames are called in the game: text with {name}, {source}, {row}, {column}, {clip}, {step} and {n}; {n:3} has three digits.",
    ),
  densities: z.array(Density).min(1).max(8),
  packing: Packing,
  sheet: SheetLayout,
  films: z
    .array(z.enum(["apng", "gif"]))
    .min(1)
    .describe("The film formats for each clip."),
  mirroredFilms: z.literal(true).optional().describe("Whether mirrored facings become films of their own."),
  gifBackground: Colour.optional().describe("The background colour of GIFs; absent for transparent."),
  parts: z.literal("baked").optional().describe("Whether parts are drawn into the frames, as in films; absent: the atlas lists them."),
  data: DataFiles,
  counting: Counting,
});
export type Delivery = z.infer<typeof Delivery>;

/** Whether a delivery draws parts into the frames of their hosts. */
export function bakesParts({ parts, kind }: Pick<Delivery, "parts" | "kind">): boolean {
  return parts === "baked" || kind === "films";
}

/** Keeps a name as it is. */
export const OWN_NAMES = "{name}";

export const USUAL_DELIVERY: Delivery = {
  name: "atlas",
  kind: "atlas",
  filter: "nearest",
  choice: { of: "all", names: [], pattern: "" },
  frameNames: OWN_NAMES,
  densities: [{ scale: 1, suffix: "" }],
  packing: USUAL_PACKING,
  sheet: { columns: null, marginPx: 0, gapPx: 0, run: "along" },
  films: ["apng", "gif"],
  data: { atlas: true, times: false, ticksPerSecond: 60, frames: false, example: null, contact: false, module: "none" },
  counting: { origin: "pixels", y: "down", from: 0 },
};
