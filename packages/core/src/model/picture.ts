/** Schema of picture files in the document. */
import * as z from "zod";
import { LONGEST_STEP } from "./time";

export const SHA256 = z.string().regex(/^[0-9a-f]{64}$/);

/** A path that stays inside the project's folder: relative, with `/`, no `..`, nothing a file system refuses. */
export const PicturePath = z
  .string()
  .max(400)
  .regex(
    /^(?!\.{1,2}(\/|$))[^\\/:*?"<>|\p{Cc}]+(\/(?!\.{1,2}(\/|$))[^\\/:*?"<>|\p{Cc}]+)*$/u,
    "A relative path with / that stays in the project's folder.",
  )
  .describe("Path of the picture from the project's folder, with /.");

/** A picture file of a source. */
export const Picture = z.strictObject({
  file: PicturePath,
  sha256: SHA256.describe("Of the picture file's bytes."),
  width: z.int().positive(),
  height: z.int().positive(),
  number: z.int().nonnegative().optional().describe("Its file's number in a series of stills, which identifies its frame."),
  duration: z
    .int()
    .positive()
    .max(LONGEST_STEP)
    .optional()
    .describe("How long its animation file shows it, in whole microseconds: what a newer version of that file is compared with."),
});
export type Picture = z.infer<typeof Picture>;
