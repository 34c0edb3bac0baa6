/**
 * Schema of behaviours: which clip shows when, as rules over inputs. docs/formats/behaviours.md defines the rules exactly; `core/behave`
 * runs them.
 *
 * Rules refer to inputs, other rules and clips by name. A missing name (of a removed clip) is a finding, not a damaged document: a rule
 * that uses it does not start, and the others work.
 */
import * as z from "zod";
import { Facing } from "./facing";
import { Name } from "./name";

export const BehaviourName = Name.brand<"BehaviourName">();
export type BehaviourName = z.infer<typeof BehaviourName>;

/** A day: no rule of a game waits longer. */
const LONGEST_WAIT = 86_400_000; // ms
const Ms = z.number().nonnegative().max(LONGEST_WAIT);

const inputKinds = {
  button: { bufferMs: Ms.optional().describe("How many ms a press stays pending; absent: only at its own instant.") },
  switch: { initial: z.boolean().optional().describe("Initial value; absent: false.") },
  number: { initial: z.number().optional().describe("Initial value; absent: 0.") },
};

export const Input = z.discriminatedUnion("kind", [
  z.strictObject({ name: Name, kind: z.literal("button"), ...inputKinds.button }),
  z.strictObject({ name: Name, kind: z.literal("switch"), ...inputKinds.switch }),
  z.strictObject({ name: Name, kind: z.literal("number"), ...inputKinds.number }),
]);
export type Input = z.infer<typeof Input>;
export type InputKind = Input["kind"];

/** What a button can be asked for. `pressed` and `released` are moments: they hold at an instant, or while a press waits. */
const BUTTON_STATES = ["down", "up", "pressed", "released"] as const;

export const Condition = z.union([
  z.strictObject({ input: Name, is: z.union([z.enum(BUTTON_STATES), z.boolean()]) }),
  z
    .strictObject({ input: Name, above: z.number().optional(), below: z.number().optional() })
    .refine(({ above, below }) => above !== undefined || below !== undefined, "Say what the number is above or below."),
  z.strictObject({
    showing: z.array(Name).min(1).describe("Rules, one of which shows now."),
    forMs: Ms.optional().describe("It has shown for at least this many ms."),
    ended: z.literal(true).optional().describe("Its clip has ended."),
  }),
]);
export type Condition = z.infer<typeof Condition>;

const ruleFields = {
  name: Name,
  when: z.array(Condition).describe("All of them must hold; an empty list always holds."),
  play: Name.describe("An action, or else a clip."),
  keep: z
    .union([z.enum(["while", "whole"]), Ms])
    .optional()
    .describe("While it holds (the default), until its clip has ended, or for this many ms."),
  cutBy: z.array(Name).optional().describe("Rules that may start while this one is kept."),
  again: z.literal(true).optional().describe("Whether it may restart while it is kept."),
  then: Name.optional().describe("The rule that starts when the keeping is over, whatever its conditions."),
  set: z.record(Name, z.boolean()).optional().describe("Switches that are set when it starts."),
  phase: z
    .enum(["start", "carry"])
    .optional()
    .describe("Whether it begins at the start, or at the time that the previous clip had reached."),
  turns: z.boolean().optional().describe("Whether the facing follows while it shows; absent: true."),
};

export const Rule = z.strictObject({
  ...ruleFields,
  off: z.literal(true).optional().describe("Switched off: skipped and not delivered."),
});
export type Rule = z.infer<typeof Rule>;

export const Behaviour = z.strictObject({ name: BehaviourName, inputs: z.array(Input), rules: z.array(Rule) });
export type Behaviour = z.infer<typeof Behaviour>;

/** Inputs in files: keyed by name. */
const FileInputs = z.record(
  Name,
  z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("button"), ...inputKinds.button }),
    z.strictObject({ kind: z.literal("switch"), ...inputKinds.switch }),
    z.strictObject({ kind: z.literal("number"), ...inputKinds.number }),
  ]),
);

export const FileBehaviour = z.strictObject({ inputs: FileInputs, rules: z.array(Rule) });
export type FileBehaviour = z.infer<typeof FileBehaviour>;

/** A moment in a track: something is pressed, released or set, or the figure turns. */
export const TrackEntry = z.union([
  z.strictObject({ at: Ms, press: Name }),
  z.strictObject({ at: Ms, release: Name }),
  z.strictObject({ at: Ms, set: z.record(Name, z.union([z.boolean(), z.number()])) }),
  z.strictObject({ at: Ms, face: Facing }),
]);
export type TrackEntry = z.infer<typeof TrackEntry>;

/** What happened to the inputs of a behaviour, in order of time. */
export const Track = z.array(TrackEntry);
export type Track = z.infer<typeof Track>;
