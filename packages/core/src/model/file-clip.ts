/** Converts a clip to and from its form in `caravan.json`: the one place where milliseconds become microseconds. */
import * as z from "zod";
import { type Clip, ClipName, clipRules, type Step } from "./clip";
import { Name } from "./name";
import { StepParts } from "./part";
import { FrameRef } from "./source";
import { LONGEST_STEP, microsFromMs, msFromMicros } from "./time";
import { UserData } from "./user-data";

const FileStep = z.strictObject({
  frame: FrameRef,
  ms: z.number().min(0.001).max(msFromMicros(LONGEST_STEP)).describe("Milliseconds, at most three decimals."),
  events: z.array(Name).optional(),
  eventValues: UserData.optional().describe("Values of some of its events, by name."),
  parts: StepParts.optional().describe("Exceptions for parts at this step."),
});

export const FileClip = z.strictObject({ name: ClipName, steps: z.array(FileStep), ...clipRules, data: UserData.optional() });
export type FileClip = z.infer<typeof FileClip>;

export function clipToFile(clip: Clip): FileClip {
  return {
    ...clip,
    steps: clip.steps.map(({ frame, duration, events, eventValues, parts }) => ({
      ...{ frame, ms: msFromMicros(duration) },
      ...(events ? { events } : {}),
      ...(eventValues ? { eventValues } : {}),
      ...(parts ? { parts } : {}),
    })),
  };
}

export function clipFromFile(clip: FileClip): Clip {
  return {
    ...clip,
    steps: clip.steps.map(({ ms, ...step }): Step => ({ ...step, duration: microsFromMs(ms) })),
  };
}
