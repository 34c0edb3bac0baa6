import * as z from "zod";

/** File names are made from it, so what file systems refuse is refused here. */
export const FileStem = z
  .string()
  .min(1)
  .max(100)
  .regex(/^[^\\/:*?"<>|\p{Cc}]*[^\\/:*?"<>|\p{Cc}. ]$/u, 'A file name without \\ / : * ? " < > | and not ending in a dot or blank.');

/** How frames are laid out on pages. Distances in pixels. */
export const Packing = z.strictObject({
  paddingPx: z.int().min(0).max(64).describe("Least distance between the outermost pixels of two frames, extruded ones included."),
  extrudePx: z.int().min(0).max(16).describe("How many times a frame's edge pixels are repeated outward."),
  maxPx: z.int().min(16).max(16_384).describe("Longest side of a page."),
  turn: z.boolean().describe("Whether frames may be stored turned by 90° clockwise."),
  powerOfTwo: z.boolean().describe("Whether page sides are powers of two."),
  trim: z.boolean().describe("Whether clear pixels around a frame are left out."),
  share: z.boolean().describe("Whether frames with identical pixels share one place."),
  effort: z.enum(["normal", "high"]).describe("How many layouts are tried."),
});
export type Packing = z.infer<typeof Packing>;

/** One thing that is delivered: a packed atlas and its file. */
export const Delivery = z.strictObject({
  name: FileStem.describe("Start of the delivered files' names."),
  filter: z.enum(["nearest", "linear"]).describe("How the game should scale the pages."),
  packing: Packing,
});
export type Delivery = z.infer<typeof Delivery>;

export const USUAL_PACKING: Packing = {
  paddingPx: 2,
  extrudePx: 1,
  maxPx: 4096, // px: every WebGL 2 device in use takes this texture
  turn: false,
  powerOfTwo: false,
  trim: true,
  share: true,
  effort: "normal",
};
