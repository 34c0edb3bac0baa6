import * as z from "zod";
import { similarNames } from "../similar";
import { t } from "../words";
import { Action, type ActionName } from "./action";
import { Behaviour, type BehaviourName } from "./behaviour";
import { Clip, type ClipName } from "./clip";
import { Delivery, USUAL_DELIVERY } from "./delivery";
import { CaravanError } from "./error";
import { MarkKind, type MarkName } from "./marks";
import { Name } from "./name";
import { Palette } from "./palette";
import { MOST_PARTS, Part } from "./part";
import { Example, Reading } from "./reading";
import { type Frame, type FrameRef, frameRef, Source, type SourceId } from "./source";
import { Drive, Stage } from "./stage";

/** The document: everything that is saved of a project except the pictures, which are named by hash. */
export const Project = z.strictObject({
  name: Name,
  pixelsPerUnit: z.number().positive().max(100_000).optional().describe("Project pixels per unit of the game's world; absent if not set."),
  sources: z.array(Source),
  readings: z.array(Reading).describe("Readings of metadata files, by name, for the next file of their structure."),
  examples: z.array(Example).describe("Metadata files that a game already reads, by name: deliveries are written in their shape."),
  palettes: z.array(Palette).optional().describe("Lists of colours that pieces may wear."),
  marks: z.array(MarkKind).describe("Kinds of boxes, points and outlines on frames."),
  clips: z.array(Clip),
  actions: z.array(Action).describe("Movements in several facings, each made of clips."),
  parts: z.array(Part).max(MOST_PARTS).optional().describe("Sprites attached to others, the lowest first."),
  behaviours: z.array(Behaviour).optional().describe("Which clip shows when, as rules."),
  stages: z.array(Stage).optional().describe("Where behaviours are rehearsed."),
  drives: z.array(Drive).optional().describe("Recorded rehearsals."),
  deliveries: z.array(Delivery).min(1),
});
export type Project = z.infer<typeof Project>;

export function emptyProject(name: string): Project {
  return {
    name,
    sources: [],
    readings: [],
    examples: [],
    marks: [],
    clips: [],
    actions: [],
    deliveries: [USUAL_DELIVERY],
  };
}

/** Throws `not-found`. */
export function sourceById(project: Project, id: SourceId): Source {
  const source = project.sources.find((each) => each.id === id);
  if (!source)
    throw new CaravanError(
      "not-found",
      id,
      t("There is no such source in this project."),
      t("It may have been removed; undo brings it back."),
    );
  return source;
}

/** Throws `not-found`. */
export function clipNamed({ clips }: Pick<Project, "clips">, name: ClipName | string): Clip {
  return named(clips, "clip", name);
}

/** Throws `not-found`. */
export function actionNamed({ actions }: Pick<Project, "actions">, name: ActionName | string): Action {
  return named(actions, "action", name);
}

/** Throws `not-found`. */
export function behaviourNamed({ behaviours = [] }: Pick<Project, "behaviours">, name: BehaviourName | string): Behaviour {
  return named(behaviours, "behaviour", name);
}

/** Throws `not-found`. */
export function stageNamed({ stages = [] }: Pick<Project, "stages">, name: string): Stage {
  return named(stages, "stage", name);
}

/** Throws `not-found`. */
export function driveNamed({ drives = [] }: Pick<Project, "drives">, name: string): Drive {
  return named(drives, "drive", name);
}

/** Throws `not-found`. */
export function paletteNamed({ palettes = [] }: Pick<Project, "palettes">, name: string): Palette {
  return named(palettes, "palette", name);
}

/** Throws `not-found`. */
export function markNamed({ marks }: Pick<Project, "marks">, name: MarkName | string): MarkKind {
  return named(marks, "mark", name);
}

/** Throws `not-found`. */
export function partNamed({ parts = [] }: Pick<Project, "parts">, name: string): Part {
  return named(parts, "part", name);
}

/** So many names are read; of more, the most similar ones are listed. */
const LISTED = 8;

/** The item with this name. Throws `not-found`, listing the existing names or the most similar ones. */
function named<Each extends { readonly name: string }>(all: readonly Each[], kind: string, name: string): Each {
  const found = all.find((each) => each.name === name);
  if (!found)
    throw new CaravanError(
      "not-found",
      `${kind} "${name}"`,
      t("There is no such {kind} in this project.", { kind }),
      othersInWords(
        all.map((each) => each.name),
        kind,
        name,
      ),
    );
  return found;
}

function othersInWords(names: readonly string[], kind: string, name: string): string {
  if (names.length === 0) return t("It has no {kind}s yet.", { kind });
  if (names.length <= LISTED) return t("There are: {names}.", { names: names.join(", ") });
  return t("Similar names: {near}; there are {names}.", {
    near: similarNames(name, names, LISTED).join(", "),
    names: names.length,
  });
}

/** Throws `not-found`. */
export function exampleNamed(project: Project, name: string): Example {
  const example = project.examples.find((each) => each.name === name);
  if (!example)
    throw new CaravanError(
      "not-found",
      t('example "{name}"', { name }),
      t("The project no longer has this example, which the delivery uses."),
      t("Choose another one at Ship, or none."),
    );
  return example;
}

/** A frame together with the source it was cut from. */
export type PlacedFrame = { readonly source: Source; readonly frame: Frame };

const framesBySource = new WeakMap<Source, Map<FrameRef, Frame>>();

function framesOf(source: Source): Map<FrameRef, Frame> {
  let byRef = framesBySource.get(source);
  if (!byRef) {
    byRef = new Map(source.frames.map((frame) => [frameRef(source, frame), frame]));
    framesBySource.set(source, byRef);
  }
  return byRef;
}

/** Where the last frame was found: a clip's frames mostly are of one source, and screens ask for thousands in a row. */
let last: { readonly sources: Project["sources"]; readonly source: Source; readonly frames: Map<FrameRef, Frame> } | null = null;

/** The frame that a step names, or null if its source no longer has it. Constant time after the first call per source. */
export function findFrame(project: Pick<Project, "sources">, ref: FrameRef): PlacedFrame | null {
  if (last?.sources === project.sources) {
    const frame = last.frames.get(ref);
    if (frame) return { source: last.source, frame };
  }
  const id = ref.slice(0, ref.indexOf("/"));
  const source = project.sources.find((each) => each.id === id);
  if (!source) return null;
  const frames = framesOf(source);
  last = { sources: project.sources, source, frames };
  const frame = frames.get(ref);
  return frame ? { source, frame } : null;
}

/** Frames that are delivered: neither dropped nor of an uncut source, in the order of sources and trays. */
export function keptFrames({ sources }: Pick<Project, "sources">): readonly PlacedFrame[] {
  const known = keptOf.get(sources);
  if (known) return known;
  const kept = sources.flatMap((source) => source.frames.filter((frame) => !frame.dropped).map((frame) => ({ source, frame })));
  keptOf.set(sources, kept);
  return kept;
}

/** Lists of sources are never changed in place. */
const keptOf = new WeakMap<object, readonly PlacedFrame[]>();

/** For every frame that a clip shows, the clips that show it, each once, in the order of clips. */
export function clipsByFrame({ clips }: Pick<Project, "clips">): ReadonlyMap<FrameRef, readonly ClipName[]> {
  const known = usesOf.get(clips);
  if (known) return known;
  const uses = new Map<FrameRef, ClipName[]>();
  for (const clip of clips)
    for (const ref of new Set(clip.steps.map((step) => step.frame))) {
      const names = uses.get(ref);
      if (names) names.push(clip.name);
      else uses.set(ref, [clip.name]);
    }
  usesOf.set(clips, uses);
  return uses;
}

/** Lists of clips are never changed in place. */
const usesOf = new WeakMap<object, ReadonlyMap<FrameRef, readonly ClipName[]>>();

/** Refs of a source's frames that are not dropped, in tray order. */
export function keptRefs(source: Source): FrameRef[] {
  return source.frames.filter((frame) => !frame.dropped).map((frame) => frameRef(source, frame));
}

/** The frames that clips show, each once, in the order in which they are first shown. */
export function framesOfClips(clips: readonly Pick<Clip, "steps">[]): FrameRef[] {
  return [...new Set(clips.flatMap(({ steps }) => steps.map(({ frame }) => frame)))];
}

/** The clips that an action shows, each once. */
export function clipsOfAction({ clips }: Project, { facings }: Pick<Action, "facings">): Clip[] {
  const places = placesOf(clips);
  const own = [...new Set(Object.values(facings).map(({ clip }) => clip))].flatMap((name) => places.get(name) ?? []);
  return own.sort((a, b) => a - b).map((at) => clips[at] as Clip);
}

/** The places of clips by name, remembered for a document's list: all actions ask, and there may be thousands of both. */
const places = new WeakMap<readonly Clip[], ReadonlyMap<ClipName, number>>();

function placesOf(clips: readonly Clip[]): ReadonlyMap<ClipName, number> {
  const known = places.get(clips) ?? new Map(clips.map(({ name }, at) => [name, at]));
  places.set(clips, known);
  return known;
}
