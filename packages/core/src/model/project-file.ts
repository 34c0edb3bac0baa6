/**
 * The project as it stands in `caravan.json`: the document with times in milliseconds, a format mark and a version.
 *
 * This is the one place where milliseconds become microseconds. Older versions are migrated here, newer ones refused.
 */
import * as z from "zod";
import { ClipName, clipRules, type Step } from "./clip";
import { USUAL_DELIVERY } from "./delivery";
import { CaravanError } from "./error";
import { Name } from "./name";
import { USUAL_PACKING } from "./packing";
import { Project } from "./project";
import { type Frame, FrameRef, frameSize, pictureOf, type Source } from "./source";
import { LONGEST_STEP, microsFromMs, msFromMicros } from "./time";

export const PROJECT_FORMAT = "caravan-project";
export const PROJECT_VERSION = 6;

export const FileStep = z.strictObject({
  frame: FrameRef,
  ms: z.number().min(0.001).max(msFromMicros(LONGEST_STEP)).describe("Milliseconds, at most three decimals."),
  events: z.array(Name).optional(),
});

export const ProjectFile = z.strictObject({
  format: z.literal(PROJECT_FORMAT),
  version: z.literal(PROJECT_VERSION),
  ...Project.shape,
  clips: z.array(z.strictObject({ name: ClipName, steps: z.array(FileStep), ...clipRules })),
});
export type ProjectFile = z.infer<typeof ProjectFile>;

/** Turns an older file's content into the next version's. `MIGRATIONS[n]` takes version n to n + 1. */
const MIGRATIONS: Record<number, (file: Record<string, unknown>) => Record<string, unknown>> = {
  // A source had one picture; now it has a list of them. Readings of metadata files are new.
  1: (file) => ({
    ...file,
    version: 2,
    readings: [],
    sources: Array.isArray(file.sources) ? file.sources.map(withPictures) : file.sources,
  }),
  // Actions are new.
  2: (file) => ({ ...file, version: 3, actions: [] }),
  // Deliveries were packed atlases only, with fewer settings.
  3: (file) => ({
    ...file,
    version: 4,
    deliveries: Array.isArray(file.deliveries) ? file.deliveries.map(withAllSettings) : file.deliveries,
  }),
  // Examples of metadata with deliveries in their shape, and contact sheets, are new.
  4: (file) => ({
    ...file,
    version: 5,
    examples: [],
    deliveries: Array.isArray(file.deliveries) ? file.deliveries.map(withoutExampleOrContact) : file.deliveries,
  }),
  // Boxes and points are new.
  5: (file) => ({ ...file, version: 6, marks: [] }),
};

function withoutExampleOrContact(delivery: unknown): unknown {
  return isRecord(delivery) && isRecord(delivery.data)
    ? { ...delivery, data: { ...delivery.data, example: null, contact: false } }
    : delivery;
}

function withPictures(source: unknown): unknown {
  if (typeof source !== "object" || source === null || !("file" in source)) return source;
  const { file, sha256, width, height, ...rest } = source as Record<string, unknown>;
  return { ...rest, pictures: [{ file, sha256, width, height }] };
}

function withAllSettings(delivery: unknown): unknown {
  if (!isRecord(delivery)) return delivery;
  const { powerOfTwo, ...packing } = isRecord(delivery.packing) ? delivery.packing : {};
  return { ...USUAL_DELIVERY, ...delivery, packing: { ...USUAL_PACKING, ...packing, sides: powerOfTwo === true ? "powerOfTwo" : "free" } };
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null;
}

/** The document as it is written. Untouched parts are shared with the project. */
export function projectToFile(project: Project): ProjectFile {
  const { name, sources, readings, examples, marks, clips, actions, deliveries } = project;
  return {
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    name,
    sources,
    readings,
    examples,
    marks,
    clips: clips.map((clip) => ({
      ...clip,
      steps: clip.steps.map(({ frame, duration, events }) => ({ frame, ms: msFromMicros(duration), ...(events ? { events } : {}) })),
    })),
    actions,
    deliveries,
  };
}

/**
 * Reads what `caravan.json` held, already parsed as JSON. `where` names the file in errors.
 * Throws `not-a-project`, `newer-version` or `damaged-project`, the last with the first field that does not fit.
 */
export function projectFromFile(content: unknown, where: string): Project {
  if (typeof content !== "object" || content === null || (content as { format?: unknown }).format !== PROJECT_FORMAT)
    throw new CaravanError(
      "not-a-project",
      where,
      `This is not a Caravan project: "format" is not "${PROJECT_FORMAT}".`,
      "Choose a *.caravan file or a folder with a caravan.json.",
    );
  let raw = content as Record<string, unknown>;
  if (typeof raw.version !== "number" || !Number.isInteger(raw.version) || raw.version < 1)
    throw new CaravanError("damaged-project", where, `Its version is ${JSON.stringify(raw.version)}.`, "Take an undamaged copy.");
  if (raw.version > PROJECT_VERSION)
    throw new CaravanError(
      "newer-version",
      where,
      `It was saved by a newer Caravan (version ${raw.version}; this one reads up to ${PROJECT_VERSION}).`,
      "Update Caravan and open it again; nothing was changed.",
    );
  for (let version = raw.version as number; version < PROJECT_VERSION; version++) raw = MIGRATIONS[version]?.(raw) ?? raw;
  const parsed = ProjectFile.safeParse(raw);
  if (!parsed.success) throw damaged(parsed.error, where);
  const { format: _format, version: _version, clips, ...rest } = parsed.data;
  const project: Project = {
    ...rest,
    clips: clips.map((clip) => ({
      ...clip,
      steps: clip.steps.map(({ frame, ms, events }): Step => ({ frame, duration: microsFromMs(ms), ...(events ? { events } : {}) })),
    })),
  };
  checkUnique(project, where);
  return project;
}

function damaged(error: z.ZodError, where: string): CaravanError {
  const first = error.issues[0];
  const path = first?.path.map(String).join(".") || "the document";
  return new CaravanError(
    "damaged-project",
    where,
    `The field ${path} does not fit: ${first?.message ?? "unknown"}.`,
    "Mend it by hand or take an undamaged copy.",
    { cause: error },
  );
}

/** What the schema cannot say: ids, names and keys stand once each, loops start inside their clip. */
function checkUnique(project: Project, where: string): void {
  const refuse = (what: string) => {
    throw new CaravanError("damaged-project", where, what, "Mend it by hand or take an undamaged copy.");
  };
  const doubled = (kind: string, names: string[]) => {
    const seen = new Set<string>();
    for (const name of names) {
      if (seen.has(name)) refuse(`There are two ${kind} "${name}".`);
      seen.add(name);
    }
  };
  doubled(
    "sources with the id",
    project.sources.map((source) => source.id),
  );
  doubled(
    "sources named",
    project.sources.map((source) => source.name),
  );
  doubled(
    "clips named",
    project.clips.map((clip) => clip.name),
  );
  doubled(
    "actions named",
    project.actions.map((action) => action.name),
  );
  const clips = new Set<string>(project.clips.map(({ name }) => name));
  for (const { name, facings } of project.actions)
    for (const petal of Object.values(facings))
      if (!clips.has(petal.clip)) refuse(`The action "${name}" shows the clip "${petal.clip}", which is not there.`);
  doubled(
    "marks named",
    project.marks.map((kind) => kind.name),
  );
  doubled(
    "examples named",
    project.examples.map((example) => example.name),
  );
  doubled(
    "deliveries named",
    project.deliveries.map((delivery) => delivery.name),
  );
  for (const source of project.sources) {
    doubled(
      `frames of ${source.name} with the key`,
      source.frames.map((frame) => frame.key),
    );
    for (const frame of source.frames) {
      refuseUnfit(source, frame, refuse);
      refuseStrangeMarks(project, source, frame, refuse);
    }
  }
  for (const clip of project.clips)
    if (clip.loopFrom > 0 && clip.loopFrom >= clip.steps.length)
      refuse(`The clip "${clip.name}" loops from step ${clip.loopFrom}, which it does not have.`);
}

/** Marks are of kinds that the project has. */
function refuseStrangeMarks({ marks }: Project, source: Source, { key, marks: own }: Frame, refuse: (what: string) => void): void {
  const check = (names: readonly string[], shape: "box" | "point") => {
    for (const name of names)
      if (!marks.some((kind) => kind.name === name && kind.shape === shape))
        refuse(`The frame ${key} of ${source.name} has a ${shape} "${name}", which is no kind of the project's.`);
  };
  if (own?.boxes) check(Object.keys(own.boxes), "box");
  if (own?.points) check(Object.keys(own.points), "point");
}

/** A frame lies on a picture of its source, and its rectangle within its untrimmed size. */
function refuseUnfit(source: Source, frame: Frame, refuse: (what: string) => void): void {
  const { key, rect, size, inset, picture = 0 } = frame;
  const { width, height } = pictureOf(source, frame);
  if (picture >= source.pictures.length) refuse(`The frame ${key} of ${source.name} is on a picture that it does not have.`);
  if (rect.x + rect.w > width || rect.y + rect.h > height)
    refuse(`The frame ${key} of ${source.name} reaches beyond its ${width} × ${height} px picture.`);
  const upright = frameSize({ ...frame, size: undefined });
  const at = inset ?? { x: 0, y: 0 };
  if (size && (at.x + upright.w > size.w || at.y + upright.h > size.h))
    refuse(`The frame ${key} of ${source.name} is larger than its own untrimmed size.`);
}
