import * as z from "zod";

/** A colour as `#rrggbb`. */
export const Colour = z
  .string()
  .regex(/^#[0-9a-f]{6}$/)
  .describe("Red, green and blue as #rrggbb.");
export type Colour = z.infer<typeof Colour>;

/** How an opaque ground is cleared away. A recipe: the picture itself stays as it came. */
export const Clearing = z.strictObject({
  colours: z.array(Colour).max(4).describe("The ground's colours; two for a picture of a checkerboard, none if only specks are cleared."),
  tolerance: z.int().min(0).max(255).describe("How far red, green and blue may each be off."),
  from: z.enum(["edges", "everywhere"]).describe("Whether only ground that hangs together with the picture's edges is cleared."),
  fringe: z.boolean().describe("Whether the ground's colour is also taken out of half-covered pixels beside it."),
  specks: z
    .int()
    .min(1)
    .max(64)
    .optional()
    .describe("Drawn pixels that are alone, at most so many together, are cleared too; without it none are."),
});
export type Clearing = z.infer<typeof Clearing>;
