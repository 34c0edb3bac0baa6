/**
 * Schemas of everything that commands print with `--json`: published in docs/formats/command.schema.json, and tested against what the
 * commands really print. Fields may be added; existing ones keep their meaning.
 */
import { AtlasFrame } from "@caravan/core/atlas";
import { jsonSchemaOf } from "@caravan/core/model";
import * as z from "zod";

const count = z.int().nonnegative();
const at = z.object({ x: z.number(), y: z.number() });
const size = z.object({ w: count, h: count });
const facing = z.enum(["e", "se", "s", "sw", "w", "nw", "n", "ne"]);

/** Instead of any other output, if a command failed. */
const failure = z
  .object({
    error: z.object({
      code: z.string().describe("The kind of error, such as not-found; for programs."),
      where: z.string().describe("The file or thing that it is about."),
      message: z.string().describe("What failed and what to do, for people."),
    }),
  })
  .describe("Printed instead of a result by every command that fails; it exits with 1, or with 2 for a wrong call.");

const finding = z.object({ code: z.string(), severity: z.enum(["error", "warning", "note"]), where: z.string(), message: z.string() });

const cutFrame = z.object({
  name: z.string(),
  x: z.int(),
  y: z.int(),
  w: count,
  h: count,
  column: count,
  row: count,
  empty: z.boolean(),
  size: size.optional().describe("The untrimmed size, if known."),
  inset: at.optional().describe("The rectangle's position in the untrimmed size."),
  turned: z
    .union([z.boolean(), z.literal("counter")])
    .optional()
    .describe("Stored turned by 90° clockwise, or counter-clockwise."),
  origin: at.optional(),
  boxes: AtlasFrame.shape.boxes,
  points: AtlasFrame.shape.points,
  ms: z.number().positive().optional().describe("The frame's own duration, if a metadata file gives it."),
});

const cut = z.object({
  image: z.string().describe("As named in the call."),
  width: count,
  height: count,
  cell: size.optional().describe("By a grid."),
  columns: count.optional(),
  rows: count.optional(),
  leftOver: z.object({ right: count, bottom: count }).optional().describe("Pixels at the right and at the bottom in no cell."),
  spread: z.object({ x: count, y: count }).optional().describe("Pixels spread between columns and between rows, with --spread."),
  frames: z.array(cutFrame).describe("In reading order; for a metadata file in its own order."),
  skippedEmpty: count.describe("Empty cells."),
  skippedSmall: count.optional().describe("Islands below --least."),
  clips: z
    .array(
      z.object({
        name: z.string(),
        facing: facing.nullable(),
        playback: z.enum(["once", "loop", "pingpong"]),
        times: count,
        by: z.string().optional().describe("names: the clip was made from frames whose names end in numbers."),
        steps: z.array(z.object({ frame: z.string(), ms: z.number().nullable(), events: z.array(z.string()).optional() })),
      }),
    )
    .optional()
    .describe("Of a metadata file."),
  layers: z
    .array(
      z.object({
        name: z.string(),
        image: z.string().describe("File name of its picture."),
        blend: z.enum(["normal", "add", "multiply"]).nullable().describe("null if the file gives none, or an unsupported one."),
        blendSaid: z.string().optional().describe("The file's own word."),
        opacity: z.number().min(0).max(1),
      }),
    )
    .optional()
    .describe("Pictures that a metadata file lists as layers over this one."),
  reading: z.object({ container: z.string(), fields: z.record(z.string(), z.string()) }).optional(),
  unplaced: z.array(z.object({ where: z.string(), why: z.string() })).optional(),
  grade: z.enum(["sure", "doubtful"]).optional(),
  reasons: z.array(z.string()).optional(),
  unused: z.array(z.object({ where: z.string(), why: z.string(), count })).optional(),
});

const suggestions = z.object({
  image: z.string(),
  width: count,
  height: count,
  suggestions: z
    .array(
      z.object({ cell: size, margin: at, gap: at, columns: count, rows: count, score: z.number(), framed: z.literal(true).optional() }),
    )
    .describe("Grids, the best first."),
  outlines: z
    .object({ first: z.boolean().describe("Whether they fit better than any grid."), frames: count, join: count, least: count })
    .nullable(),
});

const several = <Result extends z.ZodType>(one: Result) =>
  z.object({
    results: z.array(z.union([one, failure.extend({ image: z.string() })])).describe("One per sheet of the call, in order."),
  });

const file = z.object({ path: z.string(), bytes: count, sha256: z.string() });

/** The results by the command, and where it has several, by what was asked for. */
export const PRINTED = {
  failure,
  cut,
  "cut of several": several(cut),
  "cut --suggest": suggestions,
  "cut --suggest of several": several(suggestions),
  pack: z.object({
    pages: z.array(
      z.object({
        image: z.string(),
        width: count,
        height: count,
        occupancy: z.number().describe("Area of the distinct trimmed rectangles divided by the page's, 0 to 1."),
        layers: z.record(z.string(), z.string()).optional(),
      }),
    ),
    frames: count,
    placed: count,
    aliases: count,
    ms: count,
  }),
  build: z.object({
    files: z.array(file),
    proofs: z.array(z.object({ delivery: z.string(), frames: count, exact: count, shared: count, clips: count, marked: count })),
    notes: z.array(z.string()),
    findings: z.array(finding),
    asBefore: z
      .boolean()
      .describe("Whether nothing has changed since an earlier build whose files are still there, so that nothing was built."),
  }),
  watch: z
    .object({
      ok: z.boolean(),
      ms: count,
      written: z.array(z.string()).optional().describe("Files whose content changed."),
      changed: z.array(z.string()).optional().describe("Sources whose art was overwritten, in words."),
      files: z.array(file).optional(),
      findings: z.array(finding).optional(),
      error: failure.shape.error.optional(),
    })
    .describe("One line per build. A repeated failure is printed once."),
  check: z.object({ findings: z.array(finding) }),
  play: z.array(
    z.object({
      at: z.number(),
      frame: z.string().nullable(),
      step: count,
      pass: count,
      ended: z.boolean(),
      clip: z.string().optional().describe("With facing and mirror if an action was requested: what it shows in that facing."),
      facing: facing.optional(),
      mirror: z.boolean().optional(),
      parts: z
        .array(
          z.object({
            name: z.string(),
            frame: z.string(),
            mirror: z.boolean(),
            x: z.number(),
            y: z.number(),
            front: z.boolean(),
            angle: z.number().optional(),
          }),
        )
        .optional(),
    }),
  ),
  rehearse: z.object({
    account: z.array(z.object({ at: z.number(), rule: z.string().nullable(), play: z.string().nullable(), why: z.string() })),
    shown: z.array(
      z.object({
        at: z.number(),
        rule: z.string().nullable(),
        clip: z.string().nullable(),
        mirror: z.boolean(),
        frame: z.string().nullable(),
        step: count,
        ended: z.boolean(),
        visible: z.boolean(),
      }),
    ),
  }),
  outline: z.object({
    frames: z.array(
      z.object({
        name: z.string(),
        width: count,
        height: count,
        polygons: z.array(z.array(z.tuple([z.int(), z.int()]))),
        over: count.optional().describe("Corners beyond --corners in the polygon with the most."),
      }),
    ),
  }),
  tiles: z.object({
    tile: size,
    frames: count,
    tiles: count,
    distinct: count,
    colours: count,
    perFrame: z.array(z.object({ name: z.string(), tiles: count, own: count })),
  }),
  new: z.object({
    project: z.string(),
    sources: z.array(
      z.object({
        name: z.string(),
        pictures: count,
        layers: z.array(z.object({ name: z.string(), blend: z.string() })).optional(),
        cut: z.string().nullable(),
        frames: count,
      }),
    ),
    clips: z.array(z.object({ name: z.string(), steps: count })),
    actions: z.array(
      z.object({
        name: z.string(),
        ways: count,
        facings: z.partialRecord(facing, z.object({ clip: z.string(), mirror: z.boolean().optional() })),
      }),
    ),
    notes: z.array(z.string()),
    failed: z.array(z.string()).describe("Files that could not be read, in words."),
  }),
  merge: z.object({
    conflicts: z.array(z.object({ where: z.string(), message: z.string() })),
    findings: z.array(finding),
    out: z.string().nullable(),
  }),
} as const;

/** Of all of them, by name; `init` prints what `new` does, with the scripts that it added. */
export function printedJsonSchema(): object {
  const init = PRINTED.new.extend({ scripts: z.record(z.string(), z.string()).describe("Added to package.json.") });
  const all = Object.entries({ ...PRINTED, init }).map(([name, schema]) => {
    const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, { io: "input" }) as Record<string, unknown>;
    return [name, rest] as const;
  });
  return { ...jsonSchemaOf(z.object({}), "What commands print with --json, by command"), $defs: Object.fromEntries(all) };
}
