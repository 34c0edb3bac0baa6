import * as z from "zod";
import { Size } from "./geometry";

/** How frames are laid out on the pages of an atlas. Distances in pixels of the page. */
export const Packing = z.strictObject({
  paddingPx: z.int().min(0).max(64).describe("Least distance between the outermost pixels of two frames, extruded ones included."),
  extrudePx: z.int().min(0).max(16).describe("How many times a frame's edge pixels are repeated outward."),
  borderPx: z.int().min(0).max(64).describe("Kept clear along a page's sides."),
  sides: z.enum(["free", "powerOfTwo", "fixed"]).describe("What the sides of a page may be."),
  maxPx: z.int().min(16).max(16_384).describe("Longest side of a page, unless sides are fixed."),
  fixed: Size.describe("Size of every page, if sides are fixed."),
  square: z.boolean().describe("Whether pages are as wide as they are high, unless sides are fixed."),
  maxPages: z.int().min(1).max(999).describe("More pages than this are refused."),
  together: z.enum(["nothing", "clips", "actions"]).describe("What is kept on one page, if pages are large enough."),
  turn: z.boolean().describe("Whether frames may be stored rotated by 90° clockwise."),
  trim: z.boolean().describe("Whether transparent pixels around a frame are trimmed."),
  trimMarginPx: z.int().min(0).max(64).describe("Transparent pixels that trimming keeps around the drawing, if the frame has them."),
  share: z.boolean().describe("Whether frames with identical pixels share one place."),
  shareMirrored: z.boolean().describe("Whether mirrored frames share one place too; the game must draw them mirrored."),
  effort: z.enum(["normal", "high"]).describe("How many layouts to try."),
});
export type Packing = z.infer<typeof Packing>;

export const USUAL_PACKING: Packing = {
  paddingPx: 2,
  extrudePx: 1,
  borderPx: 0,
  sides: "free",
  maxPx: 4096, // px: every WebGL 2 device in use supports this texture size
  fixed: { w: 1024, h: 1024 },
  square: false,
  maxPages: 16,
  together: "nothing",
  turn: false,
  trim: true,
  trimMarginPx: 0,
  share: true,
  shareMirrored: false,
  effort: "normal",
};
