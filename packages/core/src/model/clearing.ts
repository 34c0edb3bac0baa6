import * as z from "zod";

/** A colour as `#rrggbb`. */
export const Colour = z
  .string()
  .regex(/^#[0-9a-f]{6}$/)
  .describe("Red, green and blue as #rrggbb.");
export type Colour = z.infer<typeof Colour>;

/** Colours of one background. */
export const MOST_GROUNDS = 4;

/** How an opaque ground is cleared away. A recipe: the picture itself stays as it came. */
export const Clearing = z.strictObject({
  colours: z
    .array(Colour)
    .max(MOST_GROUNDS)
    .describe("The background's colours; two for a picture of a checkerboard, none if only specks are cleared."),
  tolerance: z.int().min(0).max(255).describe("The greatest difference in each of red, green and blue."),
  from: z.enum(["edges", "everywhere"]).describe("Whether only background connected to the picture's edges is cleared."),
  fringe: z.boolean().describe("Whether the background's colour is also removed from half-covered pixels beside it."),
  specks: z.int().min(1).max(64).optional().describe("Isolated groups of at most this many drawn pixels are cleared too; absent for none."),
});
export type Clearing = z.infer<typeof Clearing>;
