/**
 * Gives the colliding shape of a figure: the boxes or outlines of the kind that a stage names. A tapering outline stands on what is below
 * its tip and may lean over an edge, as it would in a game.
 */
import type { Area, FramePoint, FrameRef, MarkName, Project } from "../model";
import { markedOf, shapesOf } from "./figure";
import { type Shape, shapeOfArea, shapesMeet } from "./shapes";

/** Around the figure's origin, in px. */
export interface Body {
  /** The rectangle around all of it. */
  readonly area: Area;
  /** Its convex parts; at least one. */
  readonly shapes: readonly Shape[];
}

const NOBODY = bodyOfArea({ x: -4, y: -16, w: 8, h: 16 });
const bodies = new WeakMap<object, Map<string, Body>>();

/**
 * The colliding body of a frame. A frame without marks of the kind uses its own bottom centre, so that nothing falls through the ground for
 * one step; so does every frame if `kind` is null.
 */
export function bodyOf(project: Project, frame: FrameRef | null, mirror: boolean, kind: MarkName | null): Body {
  const marked = frame === null ? null : markedOf(project, frame);
  if (!marked) return NOBODY;
  let known = bodies.get(marked);
  if (!known) {
    known = new Map();
    bodies.set(marked, known);
  }
  const key = `${mirror ? "w" : "e"}${kind ?? ""}`;
  let body = known.get(key);
  if (!body) {
    const shapes = kind === null ? [] : shapesOf(project, { frame: frame as FrameRef, mirror, x: 0, y: 0 }, kind);
    const { origin, size } = marked;
    body =
      shapes.length === 0
        ? bodyOfArea({ x: -size.w / 4, y: -origin.y, w: size.w / 2, h: Math.max(1, origin.y) })
        : { area: areaAround(shapes.flat()), shapes };
    known.set(key, body);
  }
  return body;
}

function bodyOfArea(area: Area): Body {
  return { area, shapes: [shapeOfArea(area)] };
}

function areaAround(corners: readonly FramePoint[]): Area {
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y };
}

/** Whether a body whose origin is at `at` has a part in common with an area of the world. */
export function bodyMeets({ area, shapes }: Body, at: FramePoint, other: Area): boolean {
  if (!meet(moved(area, at), other)) return false;
  const target = shapeOfArea(moved(other, { x: -at.x, y: -at.y }));
  return shapes.some((shape) => shapesMeet(shape, target));
}

/** How far down the body reaches within a horizontal interval, from its origin; null if none of it is there. */
export function lowestBetween({ shapes }: Body, left: number, right: number): number | null {
  const ys = shapes.flatMap((shape) => partBetween(shape, "x", left, right).map(({ y }) => y));
  return ys.length === 0 ? null : Math.max(...ys);
}

/** The rectangle around the part of the body at most `tall` px above its lowest point. */
export function feetOf({ area, shapes }: Body, tall: number): Area {
  const low = area.y + area.h;
  return areaAround(shapes.flatMap((shape) => partBetween(shape, "y", low - Math.min(area.h, tall), low)));
}

/** The corners of what a convex shape has between two limits; none where it only touches them. */
function partBetween(shape: Shape, axis: "x" | "y", least: number, most: number): FramePoint[] {
  const places = shape.map((each) => each[axis]);
  if (Math.max(...places) <= least || Math.min(...places) >= most) return [];
  return shape.flatMap((from, k) => {
    const to = shape[(k + 1) % shape.length] as FramePoint;
    const inside = from[axis] >= least && from[axis] <= most ? [from] : [];
    const crossings = [least, most]
      .filter((limit) => (from[axis] - limit) * (to[axis] - limit) < 0)
      .map((limit) => {
        const share = (limit - from[axis]) / (to[axis] - from[axis]);
        return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
      });
    return [...inside, ...crossings];
  });
}

export function moved({ x, y, w, h }: Area, by: FramePoint): Area {
  return { x: x + by.x, y: y + by.y, w, h };
}

/** Whether two areas have a part in common; edges that only touch have not. */
export function meet(a: Area, b: Area): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}
