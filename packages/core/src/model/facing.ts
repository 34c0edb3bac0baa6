import * as z from "zod";

/** Directions a figure looks in, clockwise on screen from 0°; `s` looks at the viewer. */
export const FACINGS = ["e", "se", "s", "sw", "w", "nw", "n", "ne"] as const;
export const Facing = z.enum(FACINGS);
export type Facing = z.infer<typeof Facing>;
