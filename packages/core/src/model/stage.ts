/**
 * Schema of stages, where behaviours are rehearsed, and of the drives recorded there. They belong to the project and are not delivered.
 *
 * Units: project pixels, y down, from the world's top-left corner; seconds in speeds and accelerations. A figure's origin stands on floors
 * and platforms.
 */
import * as z from "zod";
import { BehaviourName, Track } from "./behaviour";
import { Facing } from "./facing";
import { MarkName } from "./marks";
import { Name } from "./name";
import { SourceId } from "./source";

const WIDEST = 100_000; // px
const Place = z.number().min(-WIDEST).max(WIDEST);
const Side = z.int().positive().max(WIDEST);
const Amount = z.number().nonnegative().max(1_000_000);

export const StageName = Name.brand<"StageName">();
export type StageName = z.infer<typeof StageName>;

/** A rectangle of the world. */
export const Area = z.strictObject({ x: Place, y: Place, w: z.number().positive().max(WIDEST), h: z.number().positive().max(WIDEST) });
export type Area = z.infer<typeof Area>;

/** How a figure moves when its keys are held. */
export const Movement = z.strictObject({
  speed: Amount.describe("Top speed in px per second."),
  start: Amount.describe("Acceleration in px per second squared; 0 for immediate."),
  stop: Amount.describe("Friction: deceleration in px per second squared; 0 for immediate."),
  jump: Amount.describe("How high it jumps, in px. Seen from the side only."),
  gravity: Amount.describe("Gravity in px per second squared. Seen from the side only."),
});
export type Movement = z.infer<typeof Movement>;

/** Ways to go. Seen from the side, up is a jump. */
const GOINGS = ["left", "right", "up", "down"] as const;
export const Going = z.enum(GOINGS);
export type Going = z.infer<typeof Going>;

const code = z.string().min(1).max(40).describe("The physical key, as browsers name it.");

/** A key, and where it makes the figure go or which button of the behaviour it works. */
export const StageKey = z.union([z.strictObject({ code, go: Going }), z.strictObject({ code, input: Name })]);
export type StageKey = z.infer<typeof StageKey>;

/** The behaviour's inputs that receive the figure's movement; absent for none. */
export const Feeds = z.strictObject({
  speed: Name.optional().describe("A number: its speed, in whole px per second."),
  rise: Name.optional().describe("A number: its rising speed, in whole px per second; negative while it falls."),
  air: Name.optional().describe("A switch: whether it is in the air."),
});
export type Feeds = z.infer<typeof Feeds>;

/** When a figure enters or leaves a zone. */
export const Zone = z.strictObject({
  name: Name,
  area: Area,
  input: Name.optional().describe("A switch or a button of the behaviour."),
  on: z
    .enum(["inside", "entering", "leaving"])
    .describe("Inside: on while the figure is in it. Entering and leaving: set at that moment and kept; a button is pressed."),
  to: z.boolean().optional().describe("The switch's value on entering or leaving; absent: true."),
  effect: Name.optional().describe("An effect that plays at the middle of its lower edge."),
  once: z.literal(true).optional().describe("It triggers once per rehearsal."),
});
export type Zone = z.infer<typeof Zone>;

/** Something that appears at a point of the figure on an event. */
export const Effect = z.strictObject({
  name: Name,
  event: Name.optional().describe("Absent if only zones start it."),
  play: Name.describe("A clip or an action; it plays once and disappears."),
  point: MarkName.optional().describe("The point where it starts; the origin if absent, or if the frame has no such point."),
  speed: Amount.describe("Its speed in the figure's direction, in px per second; 0 for none."),
  reach: Amount.describe("How far it flies before it disappears, in px; 0 to play to its end."),
});
export type Effect = z.infer<typeof Effect>;

/** Something else on the stage: a target, a camp fire, another figure. */
export const Extra = z.strictObject({ name: Name, play: Name, facing: Facing, x: Place, y: Place });
export type Extra = z.infer<typeof Extra>;

/** Boxes that count as a hit when they touch: of the figure or its effects, and of the extras. */
export const HitPair = z.strictObject({ ours: MarkName, theirs: MarkName, input: Name.optional() });
export type HitPair = z.infer<typeof HitPair>;

const STAGE_VIEWS = ["side", "above"] as const;

export const Stage = z.strictObject({
  name: StageName,
  view: z.enum(STAGE_VIEWS),
  behaviour: BehaviourName,
  size: z.strictObject({ w: Side, h: Side }).describe("The game's view, in px."),
  world: z.strictObject({ w: Side, h: Side }),
  ground: Place.describe("The ground line; seen from above, the upper edge of the walkable area."),
  start: z.strictObject({ x: Place, y: Place, facing: Facing }),
  camera: z.enum(["follows", "fixed"]),
  backdrop: z
    .union([z.enum(["land", "plain"]), z.strictObject({ source: SourceId })])
    .describe("A dry country, one colour, or the picture of a source with its top-left corner at the world's."),
  movement: Movement,
  body: MarkName.nullable().describe(
    "The kind of boxes or outlines by which the figure collides and enters zones, each as it is; null for the lower middle of the frame.",
  ),
  feeds: Feeds,
  keys: z.array(StageKey),
  platforms: z.array(Area),
  zones: z.array(Zone),
  effects: z.array(Effect),
  extras: z.array(Extra),
  hits: z.array(HitPair),
});
export type Stage = z.infer<typeof Stage>;

const keyMoment = { at: z.number().nonnegative().describe("In ms."), down: z.boolean() };

/** A key of the stage going down or up, or the direction that the figure faces. */
export const KeyMoment = z.union([
  z.strictObject({ ...keyMoment, go: Going }),
  z.strictObject({ ...keyMoment, input: Name }),
  z.strictObject({ at: keyMoment.at, face: Facing }),
]);
export type KeyMoment = z.infer<typeof KeyMoment>;

/** Why a rule started. */
const WHYS = ["input", "over", "then", "time", "start"] as const;

/** A start of a rule, or that nothing shows any more. */
export const AccountRow = z.strictObject({
  at: z.number().nonnegative(),
  rule: Name.nullable(),
  play: Name.nullable(),
  why: z.enum(WHYS),
});
export type AccountRow = z.infer<typeof AccountRow>;

/** A rehearsal that was recorded and kept. */
export const Drive = z.strictObject({
  name: Name,
  behaviour: BehaviourName,
  stage: StageName,
  length: z.number().nonnegative().describe("In ms."),
  keys: z.array(KeyMoment),
  track: Track.describe("The inputs that the keys produced, as `caravan rehearse` reads them."),
  account: z.array(AccountRow).describe("What showed then, to compare with what shows now."),
});
export type Drive = z.infer<typeof Drive>;
