/** Schema of palettes: lists of colours, some of which replace those of another palette, place by place. */
import * as z from "zod";
import { Name } from "./name";

/** More colours no machine with palettes has. */
export const MOST_COLOURS = 256;

const PaletteColour = z
  .string()
  .regex(/^#[0-9a-f]{6}$/)
  .describe("A colour as #rrggbb, in small letters.");

export const Palette = z.strictObject({
  name: Name,
  of: Name.optional().describe(
    "The palette whose colours it turns into its own, by their places in the list; absent for one that is drawn in.",
  ),
  colours: z.array(PaletteColour).min(1).max(MOST_COLOURS),
});
export type Palette = z.infer<typeof Palette>;
