/** Schema of parts, sprites attached to others: a lamp in a hand, a hat on a head. */
import * as z from "zod";
import { MarkName } from "./marks";
import { Name } from "./name";

export const Part = z.strictObject({
  name: Name.describe("Its name in games and in the steps of clips."),
  host: Name.describe("The action, or else the clip, that it is drawn on."),
  guest: Name.describe("The action, or else the clip, that is drawn. An action faces like its host."),
  at: MarkName.describe(
    "The host's point at which it is fastened; on frames without it nothing is drawn. If it has an angle, the guest is turned by it.",
  ),
  by: MarkName.optional().describe(
    "The guest's point by which it is fastened; absent for its origin. Its angle, else 0, comes to lie along the host's.",
  ),
  time: z.enum(["together", "own"]).describe("Whether the guest uses its host's time, or its own, from when the host began."),
  front: z.boolean().describe("Whether it is drawn over its host or under it."),
});
export type Part = z.infer<typeof Part>;

export const StepPart = z.strictObject({
  front: z.boolean().optional().describe("Over the host or under it at this step, instead of the default."),
  hidden: z.literal(true).optional().describe("Not drawn at this step."),
});
export type StepPart = z.infer<typeof StepPart>;

/** What a step says otherwise of parts that hang on it, by their names. */
export const StepParts = z.record(Name, StepPart);
export type StepParts = z.infer<typeof StepParts>;

/** The most parts in a project: each is evaluated for every picture that a game draws. */
export const MOST_PARTS = 64;
