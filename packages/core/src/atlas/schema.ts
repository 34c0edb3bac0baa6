import * as z from "zod";
import { Box, clipRules, Name, Outline, Part, Rect, Rule, Size, StepParts } from "../model";

const point = z.object({ x: z.number(), y: z.number() });
const pointing = point.extend({
  angle: z.number().optional().describe("Degrees clockwise on the screen, 0 to the right; absent for none."),
});

const data = z.record(z.string(), z.unknown()).describe("The game's own data, by name; any JSON.");

export const AtlasFrame = z.object({
  page: z.int().nonnegative().describe("Index into pages."),
  rect: Rect.describe("The pixels' rectangle on the page; for a turned frame, as stored."),
  turned: z.boolean().describe("Whether it is stored turned by 90° clockwise."),
  mirrored: z.boolean().optional().describe("Whether it is stored mirrored: draw it mirrored left to right."),
  inset: z
    .strictObject({ x: z.int().nonnegative(), y: z.int().nonnegative() })
    .describe("The trimmed pixels' position in the untrimmed frame."),
  size: Size.describe("Of the untrimmed frame."),
  origin: point.describe("The point that goes to the character's position, in untrimmed frame pixels."),
  boxes: z
    .record(z.string(), z.array(Box).min(1))
    .optional()
    .describe("Areas of the untrimmed frame, by kind: what is hit, what collides. They may reach outside it."),
  points: z.record(z.string(), pointing).optional().describe("Places in untrimmed frame pixels, by kind: where a hand is."),
  outlines: z
    .record(z.string(), z.array(Outline).min(1))
    .optional()
    .describe(
      "Simple polygons in untrimmed frame pixels, by kind, clockwise as seen; the first corner is not repeated. They may reach out of the frame.",
    ),
  data: data.optional(),
});
export type AtlasFrame = z.infer<typeof AtlasFrame>;

const AtlasStep = z.object({
  frame: Name,
  ms: z.number().positive().describe("Milliseconds, at most three decimals."),
  ticks: z.int().nonnegative().optional().describe("Its duration in ticks of the game's clock, if the delivery counts them."),
  events: z.array(z.string()).optional(),
  eventValues: z.record(z.string(), z.unknown()).optional().describe("Values of some of its events, by name; any JSON."),
  parts: StepParts.optional().describe("Exceptions for parts at this step, by name."),
});

export const AtlasClip = z.object({
  steps: z.array(AtlasStep).min(1),
  ...clipRules,
  doubleEnds: z.boolean().optional(),
  data: data.optional(),
});
export type AtlasClip = z.infer<typeof AtlasClip>;

const FacingName = z.enum(["e", "se", "s", "sw", "w", "nw", "n", "ne"]);

export const AtlasAction = z.object({
  facings: z.partialRecord(FacingName, z.object({ clip: Name, mirror: z.boolean().optional() })),
});
export type AtlasAction = z.infer<typeof AtlasAction>;

const AtlasInput = z.object({
  kind: z.enum(["button", "switch", "number"]),
  bufferMs: z.number().nonnegative().optional().describe("How many ms a press stays pending; absent: only at its own instant."),
  initial: z.union([z.boolean(), z.number()]).optional().describe("Initial value; absent: false, or 0."),
});

const AtlasCondition = z.object({
  input: Name.optional(),
  is: z.union([z.enum(["down", "up", "pressed", "released"]), z.boolean()]).optional(),
  above: z.number().optional(),
  below: z.number().optional(),
  showing: z.array(Name).optional(),
  forMs: z.number().nonnegative().optional(),
  ended: z.boolean().optional(),
});

const { off: _off, ...ruleFields } = Rule.shape;

/** Which clip shows when. docs/formats/behaviours.md says exactly what the rules mean. */
export const AtlasBehaviour = z.object({
  inputs: z.record(Name, AtlasInput),
  rules: z.array(z.object({ ...ruleFields, when: z.array(AtlasCondition).describe("All of them must hold; an empty list always holds.") })),
});

/** What a game loads. docs/formats/atlas.md defines each field. A reader ignores fields that it does not know. */
export const Atlas = z.object({
  format: z.literal("caravan-atlas"),
  version: z.literal(1),
  pixelsPerUnit: z
    .number()
    .positive()
    .optional()
    .describe("Project pixels (not pixels of a page at another scale) per unit of the game's world."),
  ticksPerSecond: z.number().positive().optional().describe("The rate of the game's clock, if steps have ticks."),
  layers: z
    .array(z.object({ name: Name, blend: z.enum(["normal", "add", "multiply"]) }))
    .optional()
    .describe(
      "Further layers of all frames, from below: drawn over them from the same places of separate pictures, with their `blend` mode.",
    ),
  densities: z
    .array(
      z.object({
        atlas: z.string().min(1).describe("File name of the atlas of that size, beside this one."),
        scale: z.number().positive().describe("Its pages' scale."),
        suffix: z.string().describe("Appended to the delivery's name in its file names."),
      }),
    )
    .optional()
    .describe("All sizes of the same content, including this one, in the order of the delivery; absent if there is only one."),
  pages: z.array(
    z.object({
      image: z.string().min(1).describe("File name of the page, beside the atlas file."),
      width: z.int().positive(),
      height: z.int().positive(),
      scale: z.number().positive(),
      filter: z.enum(["nearest", "linear"]),
      layers: z
        .record(z.string(), z.string().min(1))
        .optional()
        .describe(
          "File names of the page's pictures of further layers, by name; as large as the page. A layer with nothing on the page has none.",
        ),
    }),
  ),
  frames: z.record(Name, AtlasFrame),
  clips: z.record(Name, AtlasClip),
  actions: z.record(Name, AtlasAction),
  parts: z
    .array(z.object(Part.shape))
    .optional()
    .describe("Clips drawn on others, attached by points, the lowest first; absent if there are none."),
  behaviours: z.record(Name, AtlasBehaviour).optional().describe("Which clip shows when, as rules; absent if there are none."),
});
export type Atlas = z.infer<typeof Atlas>;
