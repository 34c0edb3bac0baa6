/**
 * Computes what a drag does to boxes, whether they are frames, regions or marks: it draws one on empty space, moves one by its middle,
 * resizes one by its edge. Edges snap to other boxes and to drawn pixels. Pure, and tested. Units: pixels of art.
 */
import type { Rect } from "@caravan/core/model";
import { type Coverage, drawnPart } from "@caravan/core/raster";

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** A rectangle that can be dragged. */
export interface Box {
  readonly id: string;
  readonly rect: Rect;
}

/** The edges that a drag moves. */
export interface Edges {
  readonly left: boolean;
  readonly right: boolean;
  readonly top: boolean;
  readonly bottom: boolean;
}

export type BoxGesture =
  | { readonly kind: "draw"; readonly from: Spot }
  | { readonly kind: "move" | "resize"; readonly from: Spot; readonly id: string; readonly rect: Rect; readonly edges: Edges };

const ALL: Edges = { left: true, right: true, top: true, bottom: true };

/**
 * What a press at `at` begins; `reach` is the distance at which a press takes an edge. Boxes below others may only be taken by their edges.
 */
export function gestureAt(boxes: readonly Box[], at: Spot, reach: number, onlyEdges = false): BoxGesture {
  for (const { id, rect } of boxes.toReversed()) {
    const { x, y, w, h } = rect;
    if (at.x < x - reach || at.y < y - reach || at.x > x + w + reach || at.y > y + h + reach) continue;
    const edges = {
      left: Math.abs(at.x - x) <= reach,
      right: Math.abs(at.x - x - w) <= reach,
      top: Math.abs(at.y - y) <= reach,
      bottom: Math.abs(at.y - y - h) <= reach,
    };
    // On a narrow box both edges are near; the nearer one is meant.
    if (edges.left && edges.right) edges[at.x - x < w / 2 ? "right" : "left"] = false;
    if (edges.top && edges.bottom) edges[at.y - y < h / 2 ? "bottom" : "top"] = false;
    if (Object.values(edges).some(Boolean)) return { kind: "resize", from: at, id, rect, edges };
    if (onlyEdges) continue;
    return { kind: "move", from: at, id, rect, edges: ALL };
  }
  return { kind: "draw", from: at };
}

/** The rectangle while the pointer is at `to`, in whole pixels within the bounds. */
export function rectDuring(gesture: BoxGesture, to: Spot, bounds: Rect): Rect {
  const most = { x: bounds.x + bounds.w, y: bounds.y + bounds.h };
  if (gesture.kind === "draw") {
    const left = clamp(Math.floor(Math.min(gesture.from.x, to.x)), bounds.x, most.x - 1);
    const top = clamp(Math.floor(Math.min(gesture.from.y, to.y)), bounds.y, most.y - 1);
    const right = clamp(Math.ceil(Math.max(gesture.from.x, to.x)), left + 1, most.x);
    const bottom = clamp(Math.ceil(Math.max(gesture.from.y, to.y)), top + 1, most.y);
    return { x: left, y: top, w: right - left, h: bottom - top };
  }
  const { rect, edges, from } = gesture;
  const dx = Math.round(to.x - from.x);
  const dy = Math.round(to.y - from.y);
  if (gesture.kind === "move")
    return { ...rect, x: clamp(rect.x + dx, bounds.x, most.x - rect.w), y: clamp(rect.y + dy, bounds.y, most.y - rect.h) };
  const left = edges.left ? clamp(rect.x + dx, bounds.x, rect.x + rect.w - 1) : rect.x;
  const top = edges.top ? clamp(rect.y + dy, bounds.y, rect.y + rect.h - 1) : rect.y;
  const right = edges.right ? clamp(rect.x + rect.w + dx, rect.x + 1, most.x) : rect.x + rect.w;
  const bottom = edges.bottom ? clamp(rect.y + rect.h + dy, rect.y + 1, most.y) : rect.y + rect.h;
  return { x: left, y: top, w: right - left, h: bottom - top };
}

/** Moves the edges that are being dragged onto lines that are at most `reach` away: other boxes' edges, and the drawn pixels' own. */
export function snapped(gesture: BoxGesture, rect: Rect, boxes: readonly Box[], coverage: Coverage | null, reach: number): Rect {
  const edges = gesture.kind === "draw" ? ALL : gesture.edges;
  const own = gesture.kind === "draw" ? null : gesture.id;
  const along: number[] = [];
  const down: number[] = [];
  for (const { id, rect: other } of boxes) {
    if (id === own) continue;
    along.push(other.x, other.x + other.w);
    down.push(other.y, other.y + other.h);
  }
  const drawn = coverage && gesture.kind !== "move" ? drawnPart(coverage, rect) : null;
  const near = (place: number, lines: readonly number[], bestOf: number | undefined) => {
    if (bestOf !== undefined && Math.abs(bestOf - place) <= reach) return bestOf;
    return lines.reduce((best, line) => (Math.abs(line - place) < Math.abs(best - place) ? line : best), place + reach + 1);
  };
  const snap = (place: number, lines: readonly number[], drawnLine?: number) => {
    const line = near(place, lines, drawnLine);
    return Math.abs(line - place) <= reach ? line : place;
  };
  if (gesture.kind === "move") {
    const x = snapMoved(rect.x, rect.w, along, snap);
    const y = snapMoved(rect.y, rect.h, down, snap);
    return { ...rect, x: Math.max(0, x), y: Math.max(0, y) };
  }
  const left = edges.left ? snap(rect.x, along, drawn?.x) : rect.x;
  const right = edges.right ? snap(rect.x + rect.w, along, drawn ? drawn.x + drawn.w : undefined) : rect.x + rect.w;
  const top = edges.top ? snap(rect.y, down, drawn?.y) : rect.y;
  const bottom = edges.bottom ? snap(rect.y + rect.h, down, drawn ? drawn.y + drawn.h : undefined) : rect.y + rect.h;
  return right > left && bottom > top ? { x: left, y: top, w: right - left, h: bottom - top } : rect;
}

/** A moved box snaps with whichever of its two edges is nearer to a line. */
function snapMoved(
  place: number,
  length: number,
  lines: readonly number[],
  snap: (place: number, lines: readonly number[]) => number,
): number {
  const first = snap(place, lines);
  if (first !== place) return first;
  return snap(place + length, lines) - length;
}

function clamp(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(most, value));
}
