import * as z from "zod";

/** Directions a figure faces, clockwise on the screen from 0°; `s` faces the viewer. */
export const FACINGS = ["e", "se", "s", "sw", "w", "nw", "n", "ne"] as const;
export const Facing = z.enum(FACINGS);
export type Facing = z.infer<typeof Facing>;
