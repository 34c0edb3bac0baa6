import * as z from "zod";
import { Name } from "./name";
import { StepParts } from "./part";
import { FrameRef } from "./source";
import type { Micros } from "./time";
import { LONGEST_STEP } from "./time";
import { UserData } from "./user-data";

/** How a clip continues after its last step. docs/formats/playback.md has the exact meaning. */
const Playback = z.enum(["once", "loop", "pingpong"]);

/** What an ended clip shows. */
const After = z.enum(["hold", "first", "hide"]);

/** Fields that a clip has in every form: in the core, in the project file and in the atlas. */
export const clipRules = {
  playback: Playback,
  times: z.int().nonnegative().max(1_000_000).describe("Loops; 0 is forever. Playback once is always 1."),
  loopFrom: z.int().nonnegative().describe("Steps before this one are a lead-in, played once."),
  after: After,
  doubleEnds: z.boolean().describe("Whether a ping-pong shows both end steps twice."),
};

export const ClipName = Name.brand<"ClipName">();
export type ClipName = z.infer<typeof ClipName>;

export const Step = z.strictObject({
  frame: FrameRef,
  duration: z.int().positive().max(LONGEST_STEP).describe("Whole microseconds."),
  events: z.array(Name).optional(),
  eventValues: UserData.optional().describe("Values of some of its events, by name."),
  parts: StepParts.optional().describe("Exceptions for parts at this step."),
});
export type Step = z.infer<typeof Step>;

export const Clip = z.strictObject({ name: ClipName, steps: z.array(Step), ...clipRules, data: UserData.optional() });
export type Clip = z.infer<typeof Clip>;

/** A clip's default rules. */
export const PLAIN_LOOP = { playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false } as const;

/** A new clip's steps last this long: 10 a second, in the middle of what hand-drawn movement needs. */
export const USUAL_STEP: Micros = 100_000;
