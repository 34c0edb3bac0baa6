/** Gives the outlines of frames: those set by a person, or otherwise traced from the current drawing by the settings of their kind. */
import type { Art } from "../art";
import {
  clipsOfAction,
  type FrameMarks,
  type FrameRef,
  findFrame,
  frameRef,
  framesOfClips,
  LEAST_ISLAND,
  type MarkName,
  type Outline,
  type OutlineKind,
  originOf,
  type PlacedFrame,
  type Project,
  type SteadyWay,
  type Trace,
  wholePx,
} from "../model";
import { areaOf, flattenedMask, grownMask, maskOf, type PlacedMask, steadyMask, type Traced, type Tracing, traced } from "../outline";
import { frameWithMarks, outlinesIn } from "./frame-marks";

/** By kind; kinds without any are not among them. */
export type FrameOutlines = Readonly<Record<MarkName, OutlinesOfKind>>;

export interface OutlinesOfKind {
  readonly polygons: readonly Outline[];
  /** By how many corners the largest has more than its kind says; 0 for what a person set. */
  readonly over: number;
  readonly own: boolean;
}

export function outlineKinds({ marks }: Pick<Project, "marks">): OutlineKind[] {
  return marks.filter((kind): kind is OutlineKind => kind.shape === "outline");
}

/** For each frame that is steadied, by what, and the frames that it has its outline in common with. Cost: O(frames of these). */
export function steadied(project: Project, { steady = [] }: Trace): Map<FrameRef, SteadyGroup> {
  const groups = new Map<FrameRef, SteadyGroup>();
  for (const { of, by } of steady) {
    const refs = framesSteadied(project, of);
    for (const ref of refs) if (!groups.has(ref)) groups.set(ref, { of, by, refs });
  }
  return groups;
}

export interface SteadyGroup {
  readonly of: string;
  readonly by: SteadyWay;
  readonly refs: readonly FrameRef[];
}

/** The kept frames of an action, or else of a clip. */
function framesSteadied(project: Project, of: string): FrameRef[] {
  const action = project.actions.find(({ name }) => name === of);
  const clips = action ? clipsOfAction(project, action) : project.clips.filter(({ name }) => name === of);
  return framesOfClips(clips).filter((ref) => findFrame(project, ref)?.frame.dropped !== true);
}

/**
 * The outlines of frames, by frame. Art is only requested for frames with traced outlines and those they are steadied with, once each.
 * Throws `missing-picture`. Cost: O(pixels of these frames).
 */
export function outlinesOf(project: Project, refs: Iterable<FrameRef>, art: Pick<Art, "figure">): Map<FrameRef, FrameOutlines> {
  const kinds = outlineKinds(project);
  const found = new Map<FrameRef, FrameOutlines>();
  if (kinds.length === 0) return found;
  const tracer = new Tracer(project, art);
  for (const ref of refs) {
    const placed = findFrame(project, ref);
    if (!placed || placed.frame.dropped) continue;
    const own = kinds.flatMap((kind): [MarkName, OutlinesOfKind][] => {
      const set = outlinesIn(placed.frame.marks, kind.name);
      if (set) return set.length > 0 ? [[kind.name, { polygons: set, over: 0, own: true }]] : [];
      const { polygons, over } = kind.trace ? tracer.outlinesOf(placed, kind.trace) : { polygons: [], over: 0 };
      return polygons.length > 0 ? [[kind.name, { polygons, over, own: false }]] : [];
    });
    if (own.length > 0) found.set(ref, Object.fromEntries(own) as FrameOutlines);
  }
  return found;
}

/** The project with traced outlines written into its frames, for code that only reads marks; the same object if there are none. */
export function withTracedOutlines(project: Project, traced: ReadonlyMap<FrameRef, FrameOutlines>): Project {
  if (outlineKinds(project).length === 0 || traced.size === 0) return project;
  const sources = project.sources.map((source) => ({
    ...source,
    frames: source.frames.map((frame) => frameWithMarks(frame, withOutlines(frame.marks, traced.get(frameRef(source, frame))))),
  }));
  return { ...project, sources };
}

/** A frame's marks with all of its outlines, traced ones too: as a game gets them. */
export function withOutlines(marks: FrameMarks | undefined, outlines: FrameOutlines | undefined): FrameMarks | undefined {
  if (!marks?.outlines && !outlines) return marks;
  const { outlines: _own, ...rest } = marks ?? {};
  const all = Object.entries(outlines ?? {}).map(([name, { polygons }]) => [name, polygons] as const);
  if (all.length > 0) return { ...rest, outlines: Object.fromEntries(all) as NonNullable<FrameMarks["outlines"]> };
  return rest.boxes || rest.points ? rest : undefined;
}

/** The resulting outlines, relative to the frame's origin in whole pixels. */
export interface OutlineFacts {
  /** Down from the origin, of the lowest corner; 0 is on the ground. */
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
  /** Square pixels. */
  readonly area: number;
  readonly corners: number;
}

/** Null where there are none. */
export function outlineFacts(placed: PlacedFrame, polygons: readonly Outline[]): OutlineFacts | null {
  const all = polygons.flat();
  if (all.length === 0) return null;
  const [xs, ys] = [all.map(({ x }) => x), all.map(({ y }) => y)];
  const [bottom, top] = [ys.reduce((a, b) => Math.max(a, b)), ys.reduce((a, b) => Math.min(a, b))];
  return {
    bottom: bottom - standOf(placed).y,
    width: xs.reduce((a, b) => Math.max(a, b)) - xs.reduce((a, b) => Math.min(a, b)),
    height: bottom - top,
    area: polygons.reduce((sum, polygon) => sum + areaOf(polygon), 0),
    corners: all.length,
  };
}

class Tracer {
  private readonly masks = new Map<string, PlacedMask>();
  private readonly together = new Map<SteadyGroup["refs"], Traced>();
  private readonly groups = new Map<Trace, Map<FrameRef, SteadyGroup>>();

  constructor(
    private readonly project: Project,
    private readonly art: Pick<Art, "figure">,
  ) {}

  outlinesOf(placed: PlacedFrame, trace: Trace): { polygons: Outline[]; over: number } {
    const ref = frameRef(placed.source, placed.frame);
    const group = this.groupsOf(trace).get(ref);
    const { polygons, over } = group ? this.ofGroup(trace, group) : tracedMask(this.maskOf(placed, trace.alpha), trace);
    // From the ground under the figure to the frame's corner.
    const { x, y } = standOf(placed);
    return { polygons: polygons.map((polygon) => polygon.map((corner) => ({ x: corner.x + x, y: corner.y + y }))), over };
  }

  private ofGroup(trace: Trace, { by, refs }: SteadyGroup): Traced {
    const known = this.together.get(refs);
    if (known) return known;
    const masks = refs.flatMap((ref) => {
      const placed = findFrame(this.project, ref);
      return placed ? [this.maskOf(placed, trace.alpha)] : [];
    });
    const made = tracedMask(steadyMask(masks, by), trace);
    this.together.set(refs, made);
    return made;
  }

  private groupsOf(trace: Trace): Map<FrameRef, SteadyGroup> {
    const known = this.groups.get(trace);
    if (known) return known;
    const groups = steadied(this.project, trace);
    this.groups.set(trace, groups);
    return groups;
  }

  private maskOf(placed: PlacedFrame, alpha: number): PlacedMask {
    const key = `${alpha} ${frameRef(placed.source, placed.frame)}`;
    const known = this.masks.get(key);
    if (known) return known;
    const { pixels, rect } = this.art.figure(placed.source, placed.frame);
    const mask = { mask: maskOf(pixels, rect, alpha), at: standOf(placed) };
    this.masks.set(key, mask);
    return mask;
  }
}

/** The origin in whole pixels. */
function standOf({ source, frame }: PlacedFrame): { x: number; y: number } {
  const { x, y } = originOf(source, frame);
  return { x: wholePx(x), y: wholePx(y) };
}

/** Relative to the mask's place 0, 0. */
function tracedMask(placed: PlacedMask, trace: Trace): Traced {
  const grown = grownMask(placed, trace.growPx ?? 0);
  const { mask, at, bottom } = trace.flat ? flattenedMask(grown) : { ...grown, bottom: null };
  const { polygons, over } = traced(mask, tracingOf(trace), bottom);
  return { polygons: polygons.map((polygon) => polygon.map(({ x, y }) => ({ x: x - at.x, y: y - at.y }))), over };
}

function tracingOf({ withinPx, corners, leastPx = LEAST_ISLAND, convex, parts }: Trace): Tracing {
  return { withinPx, corners, leastPx, ...(convex ? { convex: "around" as const } : parts ? { convex: "parts" as const } : {}) };
}
