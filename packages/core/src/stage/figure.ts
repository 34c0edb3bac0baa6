/** Gives the frame that a figure shows, and its marks in world coordinates, mirrored about the origin where needed. */
import { ownTime, type State } from "../behave";
import { boxesIn, outlinesIn, partsOfProject, pointIn } from "../marks";
import {
  type Area,
  type Box,
  type Clip,
  type FrameMarks,
  type FramePoint,
  type FrameRef,
  findFrame,
  frameSize,
  type MarkName,
  originOf,
  type Project,
  type Size,
} from "../model";
import { convexParts } from "../outline";
import { type PlacedPart, placedParts } from "../parts";
import { type Shape, shapeOfArea } from "./shapes";

/** A placed figure: a frame with its origin at a place in the world. */
export interface Standing {
  readonly frame: FrameRef;
  readonly mirror: boolean;
  readonly x: number;
  readonly y: number;
}

/** A frame's marks, queried at every step of the world and cached per project. */
export interface Marked {
  readonly origin: FramePoint;
  readonly size: Size;
  readonly marks: FrameMarks | undefined;
  /** The convex parts of all marks, by kind, relative to the origin. */
  readonly parts: Map<MarkName, readonly Shape[]>;
}

const seen = new WeakMap<Project["sources"], Map<FrameRef, Marked | null>>();

export function markedOf(project: Project, ref: FrameRef): Marked | null {
  let frames = seen.get(project.sources);
  if (!frames) {
    frames = new Map();
    seen.set(project.sources, frames);
  }
  let marked = frames.get(ref);
  if (marked === undefined) {
    const found = findFrame(project, ref);
    marked = found && {
      origin: originOf(found.source, found.frame),
      size: frameSize(found.source, found.frame),
      marks: found.frame.marks,
      parts: new Map(),
    };
    frames.set(ref, marked);
  }
  return marked;
}

/** What hangs on the figure as the rules show it, from its origin, in the order in which it is drawn. */
export function hangingOnState(
  setting: { readonly project: Project; readonly clips: ReadonlyMap<string, Clip> },
  now: State,
): PlacedPart[] {
  const { project, clips } = setting;
  const { current } = now;
  if (!current || !project.parts) return [];
  const { clip, mirror, timeline } = current.cast;
  if (!clips.has(clip)) return [];
  const time = ownTime(now, current);
  const { step, visible } = timeline.shownAt(time);
  return visible
    ? placedParts(partsOfProject(project), { clip, mirror, facing: now.facing, step, time, since: now.at - current.since })
    : [];
}

/** The boxes of a kind, in the world. */
export function boxesOf(project: Project, { frame, mirror, x, y }: Standing, kind: MarkName): Area[] {
  const marked = markedOf(project, frame);
  return boxesIn(marked?.marks, kind).map((box) => placed(box, (marked as Marked).origin, mirror, x, y));
}

/** The outlines of a kind, in the world. */
export function outlinesOf(project: Project, { frame, mirror, x, y }: Standing, kind: MarkName): FramePoint[][] {
  const marked = markedOf(project, frame);
  return (outlinesIn(marked?.marks, kind) ?? []).map((polygon) =>
    polygon.map((each) => placedPoint(each, (marked as Marked).origin, mirror, x, y)),
  );
}

/** All marks of a kind, boxes and outlines, in the world, as convex parts. */
export function shapesOf(project: Project, { frame, mirror, x, y }: Standing, kind: MarkName): Shape[] {
  const marked = markedOf(project, frame);
  if (!marked) return [];
  let parts = marked.parts.get(kind);
  if (!parts) {
    const boxes = boxesIn(marked.marks, kind).map(shapeOfArea);
    const outlines = (outlinesIn(marked.marks, kind) ?? []).flatMap((polygon) => convexParts(polygon));
    parts = [...boxes, ...outlines].map((shape) => shape.map((each) => placedPoint(each, marked.origin, false, 0, 0)));
    marked.parts.set(kind, parts);
  }
  return parts.map((shape) => shape.map((at) => ({ x: x + (mirror ? -at.x : at.x), y: y + at.y })));
}

/** A point, in the world; the origin where the frame has none of that name. */
export function pointOf(project: Project, { frame, mirror, x, y }: Standing, name: MarkName | undefined): FramePoint {
  const marked = name === undefined ? null : markedOf(project, frame);
  const point = name === undefined ? undefined : pointIn(marked?.marks, name);
  return marked && point ? placedPoint(point, marked.origin, mirror, x, y) : { x, y };
}

function placedPoint(point: FramePoint, origin: FramePoint, mirror: boolean, x: number, y: number): FramePoint {
  const across = point.x - origin.x;
  return { x: x + (mirror ? -across : across), y: y + point.y - origin.y };
}

function placed({ x: left, y: top, w, h }: Box, origin: FramePoint, mirror: boolean, x: number, y: number): Area {
  const across = mirror ? origin.x - left - w : left - origin.x;
  return { x: x + across, y: y + top - origin.y, w, h };
}

/** The frame and mirroring that a running behaviour shows; null if nothing shows. `clips` are the project's by name. */
export function frameOfState(clips: ReadonlyMap<string, Clip>, state: State): { frame: FrameRef; mirror: boolean } | null {
  const { current } = state;
  if (!current) return null;
  const { cast } = current;
  const { step, visible } = cast.timeline.shownAt(ownTime(state, current));
  const frame = visible ? clips.get(cast.clip)?.steps[step]?.frame : undefined;
  return frame === undefined ? null : { frame, mirror: cast.mirror };
}
