/**
 * Checks whether a document can be opened: the same checks run before it is stored or written and when it is read.
 *
 * Documents are never changed in place, so a part that passed is remembered by identity and skipped: the cost of a check depends on the
 * change, not on the document.
 */
import type * as z from "zod";
import { t } from "../words";
import type { Clip } from "./clip";
import { counted } from "./counted";
import { CaravanError } from "./error";
import { clipToFile, FileClip } from "./file-clip";
import { FIELD_OF_SHAPE, MARK_SHAPES, type MarkShape } from "./marks";
import type { Picture } from "./picture";
import { isFitCanvas, LARGEST_CANVAS } from "./piece";
import { Project } from "./project";
import { isSoundFrame } from "./sound-frame";
import { drawnSize, Frame, isOfPieces, pictureOf, Source } from "./source";

/** Frames, sources, clips and lists that were found sound. */
const sound = new WeakSet<object>();

const SourceHead = Source.omit({ frames: true });
const Rest = Project.omit({ sources: true, clips: true });

/** Throws `damaged-project` with the first problem that would prevent the document from being opened. `where` names it in errors. */
export function checkDocument(project: Project, where: string): void {
  const { sources, clips, ...rest } = project;
  if (isNews(rest)) {
    fit(Rest, rest, [], where);
    for (const part of partsOf(rest)) sound.add(part);
  }
  for (const [k, clip] of clips.entries()) {
    if (sound.has(clip)) continue;
    fit(FileClip, clipToFile(clip), ["clips", k], where);
    sound.add(clip);
  }
  for (const [k, source] of sources.entries()) {
    if (sound.has(source)) continue;
    const { frames, ...head } = source;
    fit(SourceHead, head, ["sources", k], where);
    for (const [n, frame] of frames.entries()) {
      if (sound.has(frame)) continue;
      if (!isSoundFrame(frame)) fit(Frame, frame, ["sources", k, "frames", n], where);
      sound.add(frame);
    }
    sound.add(source);
  }
  checkWhole(project, where);
}

/** Remembers the clips and sources of a document that was read from a file: the file's schema held them against the same checks. */
export function rememberRead({ clips, sources }: Project): void {
  for (const clip of clips) sound.add(clip);
  for (const source of sources) {
    for (const frame of source.frames) sound.add(frame);
    sound.add(source);
  }
}

type Rest = Omit<Project, "sources" | "clips">;

function isNews(rest: Rest): boolean {
  // Text has no identity, but one name is quickly checked.
  return !Project.shape.name.safeParse(rest.name).success || partsOf(rest).some((part) => !sound.has(part));
}

function partsOf(rest: Rest): object[] {
  return Object.values(rest).flatMap((value) => (typeof value === "object" ? [value] : []));
}

function fit(schema: z.ZodType, value: unknown, at: readonly (string | number)[], where: string): void {
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw unfitField(parsed.error, where, at);
}

/** The error for the first field that does not fit. `at` is the path of what was parsed. */
export function unfitField(error: z.ZodError, where: string, at: readonly (string | number)[] = []): CaravanError {
  const first = error.issues[0];
  const path = [...at, ...(first?.path ?? [])].map(String).join(".") || t("the document");
  return new CaravanError(
    "damaged-project",
    where,
    t("The field {path} does not fit: {message}.", { path, message: first?.message ?? "unknown" }),
    t("Repair it by hand or use an undamaged copy."),
    { cause: error },
  );
}

/** What the schema cannot express: unique ids, names and keys, loops that start inside their clip, frames that lie on their pictures. */
export function checkWhole(project: Project, where: string): void {
  const refuse = (what: string): never => {
    throw new CaravanError("damaged-project", where, what, t("Repair it by hand or use an undamaged copy."));
  };
  const once = (kind: string, of: readonly { readonly name: string }[]) => refuseDoubles(kind, of, ({ name }) => name, refuse);
  refuseDoubles(t("sources with the id"), project.sources, ({ id }) => id, refuse);
  once(t("sources named"), project.sources);
  once(t("clips named"), project.clips);
  once(t("actions named"), project.actions);
  once(t("marks named"), project.marks);
  once(t("examples named"), project.examples);
  once(t("palettes named"), project.palettes ?? []);
  once(t("parts named"), project.parts ?? []);
  once(t("behaviours named"), project.behaviours ?? []);
  for (const { name, inputs, rules } of project.behaviours ?? []) {
    once(t('inputs of "{name}" named', { name }), inputs);
    once(t('rules of "{name}" named', { name }), rules);
  }
  once(t("stages named"), project.stages ?? []);
  for (const { name, zones, effects, extras } of project.stages ?? []) {
    once(t('zones of "{name}" named', { name }), zones);
    once(t('effects of "{name}" named', { name }), effects);
    once(t('extras of "{name}" named', { name }), extras);
  }
  once(t("drives named"), project.drives ?? []);
  once(t("deliveries named"), project.deliveries);
  const clips = new Set<string>(project.clips.map(({ name }) => name));
  for (const { name, facings } of project.actions)
    for (const petal of Object.values(facings))
      if (!clips.has(petal.clip))
        refuse(t('The action "{name}" shows the clip "{clip}", which does not exist.', { name, clip: petal.clip }));
  const kinds = new Map(MARK_SHAPES.map((shape) => [shape, kindsOf(project, shape)]));
  for (const source of project.sources) {
    if (!whole.has(source)) {
      refuseUnfitLayers(source, refuse);
      refuseDoubles(t("frames of {name} with the key", { name: source.name }), source.frames, ({ key }) => key, refuse);
      for (const frame of source.frames) refuseUnfit(source, frame, refuse);
      for (const { key, data } of source.frames)
        if (data) once(t('data of the frame {key} of "{name}" named', { key, name: source.name }), data);
      whole.add(source);
    }
    if (markedOf.get(source) === project.marks) continue;
    for (const frame of source.frames) if (frame.marks) refuseUnknownMarks(kinds, source, frame, refuse);
    markedOf.set(source, project.marks);
  }
  for (const clip of project.clips) {
    if (valued.has(clip)) continue;
    const { name, data, steps } = clip;
    if (data) once(t('data of "{name}" named', { name }), data);
    for (const { events = [], eventValues } of steps) {
      if (!eventValues) continue;
      once(t('event values of a step of "{name}" named', { name }), eventValues);
      for (const each of eventValues)
        if (!events.includes(each.name))
          refuse(t('A step of "{name}" has a value for the event "{each}", which it does not fire.', { name, each: each.name }));
    }
    valued.add(clip);
  }
  for (const { name, loopFrom, steps } of project.clips)
    if (loopFrom > 0 && loopFrom >= steps.length)
      refuse(t('The clip "{name}" loops from step {loopFrom}, which it does not have.', { name, loopFrom }));
}

/** Sources whose frames were found to be on their pictures, under keys of their own. */
const whole = new WeakSet<Source>();

/** For sources whose marks were found to be of kinds that there are, those kinds. */
const markedOf = new WeakMap<Source, Project["marks"]>();

/** Clips whose data and values of events were found to be in order. */
const valued = new WeakSet<Clip>();

type Refuse = (what: string) => never;

function refuseDoubles<Each>(kind: string, all: readonly Each[], nameOf: (each: Each) => string, refuse: Refuse): void {
  const seen = new Set<string>();
  for (const each of all) {
    const name = nameOf(each);
    if (seen.has(name)) refuse(t('There are two {kind} "{name}".', { kind, name }));
    seen.add(name);
  }
}

function kindsOf({ marks }: Project, shape: MarkShape): ReadonlySet<string> {
  return new Set(marks.filter((kind) => kind.shape === shape).map(({ name }) => name));
}

/** Marks are of kinds that the project has. */
function refuseUnknownMarks(
  kinds: ReadonlyMap<MarkShape, ReadonlySet<string>>,
  { name: source }: Source,
  { key, marks }: Frame,
  refuse: Refuse,
): void {
  for (const shape of MARK_SHAPES)
    for (const name of Object.keys(marks?.[FIELD_OF_SHAPE[shape]] ?? {}))
      if (!kinds.get(shape)?.has(name))
        refuse(
          t('The frame {key} of {source} has a {shape} "{name}", which is not a kind of marks of the project.', {
            key,
            source,
            shape,
            name,
          }),
        );
}

/** A layer has a picture over each of the source's, as large as that. */
function refuseUnfitLayers({ name: source, pictures, layers = [] }: Source, refuse: Refuse): void {
  refuseDoubles(t("layers of {source} named", { source }), layers, ({ name }) => name.toLowerCase(), refuse);
  for (const { name, pictures: own } of layers) {
    if (own.length !== pictures.length)
      refuse(
        t('The layer "{name}" of {source} has {pictures} for {below} below.', {
          name,
          source,
          pictures: counted(own.length, "picture"),
          below: counted(pictures.length, "picture"),
        }),
      );
    for (const [k, { width, height }] of own.entries()) {
      const below = pictures[k] as Picture;
      if (width !== below.width || height !== below.height)
        refuse(
          t('The layer "{name}" of {source} is {width} × {height} px over a picture of {belowW} × {belowH} px.', {
            name,
            source,
            width,
            height,
            belowW: below.width,
            belowH: below.height,
          }),
        );
    }
  }
}

/** A frame lies on a picture of its source, and its rectangle within its untrimmed size. */
function refuseUnfit(source: Source, frame: Frame, refuse: Refuse): void {
  const { key, rect, size, inset, picture = 0 } = frame;
  if (frame.pieces || isOfPieces(source)) {
    if (!frame.pieces || !isOfPieces(source))
      refuse(
        t("The frame {key} of {name} and its source differ in whether they are put together from pieces.", { key, name: source.name }),
      );
    if (!size || rect.x !== 0 || rect.y !== 0 || rect.w !== size.w || rect.h !== size.h || frame.turned || inset)
      refuse(t("The frame {key} of {name} is put together, so its rectangle is its whole canvas.", { key, name: source.name }));
    if (!isFitCanvas(size))
      refuse(
        t("The canvas of the frame {key} of {name} is larger than {largestCanvas} px.", {
          key,
          name: source.name,
          largestCanvas: LARGEST_CANVAS,
        }),
      );
    return;
  }
  if (source.pictures.length === 0) refuse(t("{name} has no picture, and its frames are not put together.", { name: source.name }));
  const { width, height } = pictureOf(source, frame);
  if (picture >= source.pictures.length)
    refuse(t("The frame {key} of {name} is on a picture that it does not have.", { key, name: source.name }));
  if (rect.x + rect.w > width || rect.y + rect.h > height)
    refuse(t("The frame {key} of {name} reaches beyond its {width} × {height} px picture.", { key, name: source.name, width, height }));
  if (!size) return;
  const upright = drawnSize({ ...frame, size: undefined });
  const at = inset ?? { x: 0, y: 0 };
  if (at.x + upright.w > size.w || at.y + upright.h > size.h)
    refuse(t("The frame {key} of {name} is larger than its own untrimmed size.", { key, name: source.name }));
}
