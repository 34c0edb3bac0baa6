/**
 * What a source was like before it was cut another way. Who nudges a grid by a pixel loses the frames at its end, and gets them back with all
 * that was decided about them when the grid goes back: whoever edits remembers them and hands them to the next cut.
 */
import { placeOf } from "../frame-identity";
import { frameWithMarks, marksWithout } from "../marks";
import {
  allPictures,
  FIELD_OF_SHAPE,
  type Frame,
  frameName,
  MARK_SHAPES,
  type MarkName,
  type Project,
  type Source,
  scaleOf,
  showsMostlyTheSame,
} from "../model";
import { framesScaledBy } from "./scale";

/** What a cut may return to. */
export interface EarlierCuts {
  /** Frames that earlier cuts had lost: those that the recipe finds return. */
  readonly lost: readonly LostFrame[];
  /** The source when it was last cut by the very same recipe: it is as it was, with what was decided since. */
  readonly before?: Source | undefined;
  /** Whether a person has decided something about the frame with this key since then; whatever other cuts made of it does not count. */
  readonly isDecided?: (key: string) => boolean;
}

export const NO_EARLIER_CUTS: EarlierCuts = { lost: [] };

/** A frame as it was, with what its numbers depend on. */
export interface LostFrame {
  readonly frame: Frame;
  /** The source's scale: origins and marks are in pixels of the project. */
  readonly scale: number;
  /** The art that it was on. */
  readonly art: string;
}

/**
 * The frames of `before` that `after`, the same source, has no more, or that show something else there because another grid has their keys
 * elsewhere; with the origin that they stood on.
 */
export function framesLost(before: Source, after: Source): LostFrame[] {
  if (before.frames === after.frames) return [];
  const now = new Map(after.frames.map((frame) => [frame.key as string, frame]));
  const [scale, art] = [scaleOf(before), artOf(before)];
  return before.frames
    .filter((frame) => !isThere(frame, now))
    .map((frame) => ({ frame: frame.origin || !before.origin ? frame : { ...frame, origin: before.origin }, scale, art }));
}

/** Those of the lost frames that the source has not found since, without those that were lost once more. */
export function stillLost<Each extends LostFrame>(lost: readonly Each[], { frames }: Source, again: readonly LostFrame[]): Each[] {
  const now = new Map(frames.map((frame) => [frame.key as string, frame]));
  const idOf = ({ frame, art }: LostFrame) => `${frame.key} ${placeOf(frame)} ${art}`;
  const newer = new Set(again.map(idOf));
  return lost.filter((each) => !newer.has(idOf(each)) && !isThere(each.frame, now));
}

function isThere(frame: Frame, now: ReadonlyMap<string, Frame>): boolean {
  const same = now.get(frame.key);
  return same !== undefined && (same === frame || showsMostlyTheSame(frame, same));
}

/**
 * Those of the lost frames that a new cut of the source may find again, the latest first, at the source's scale. Without what does not
 * go with the project of now: marks of kinds that were removed or renamed, names that other frames have.
 */
export function framesToFind(project: Project, source: Source, lost: readonly LostFrame[]): Frame[] {
  if (lost.length === 0) return [];
  const art = artOf(source);
  const names = new Set(lost.some(({ frame }) => frame.name) ? source.frames.map((frame) => frameName(source, frame)) : []);
  return lost.toReversed().flatMap(({ frame, scale, art: was }) => {
    if (was !== art) return [];
    const [scaled] = framesScaledBy([frame], scaleOf(source) / scale);
    const { name, ...rest } = withKnownMarks(project, scaled as Frame);
    return [name === undefined || names.has(name) ? rest : { ...rest, name }];
  });
}

/** The frame without marks of kinds that the project does not have. */
export function withKnownMarks({ marks: kinds }: Project, frame: Frame): Frame {
  const { marks } = frame;
  if (!marks) return frame;
  const known = new Set(kinds.map(({ shape, name }) => `${shape} ${name}`));
  const unknown = MARK_SHAPES.flatMap((shape) =>
    (Object.keys(marks[FIELD_OF_SHAPE[shape]] ?? {}) as MarkName[]).filter((name) => !known.has(`${shape} ${name}`)),
  );
  return unknown.length === 0 ? frame : frameWithMarks(frame, unknown.reduce(marksWithout, marks));
}

/** Which art a source is cut from, its cleared background included. */
export function artOf(source: Source): string {
  return allPictures(source)
    .map(({ sha256 }) => sha256)
    .concat(JSON.stringify(source.clearing ?? null))
    .join();
}

/** How a source is cut, and from which art: equal for what says the same, in whatever order its fields are. */
export function recipeOf(source: Source): string {
  const inOrder = (_: string, value: unknown) =>
    typeof value === "object" && value !== null && !Array.isArray(value) ? Object.fromEntries(Object.entries(value).sort()) : value;
  return `${JSON.stringify(source.cut, inOrder)} ${artOf(source)}`;
}
