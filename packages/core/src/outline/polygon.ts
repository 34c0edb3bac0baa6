/** Polygons with whole-number corners, which are corners of pixels. Clockwise on the screen (y down); the first corner is not repeated. */
import type { Px } from "../model";

export interface Corner {
  readonly x: Px;
  readonly y: Px;
}
export type Polygon = readonly Corner[];

/** Twice the signed area of a, b, c: positive if c is to the right of the way from a to b, with y down. */
export function turnOf(a: Corner, b: Corner, c: Corner): number {
  return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

/** In square pixels; negative for a counter-clockwise one. */
export function areaOf(polygon: Polygon): number {
  let twice = 0;
  polygon.forEach((a, k) => {
    const b = polygon[(k + 1) % polygon.length] as Corner;
    twice += a.x * b.y - b.x * a.y;
  });
  return twice / 2;
}

/** Whether a point is inside; undefined on an edge. Counts the edges crossed by a ray to the right. */
export function isInside(polygon: Polygon, x: number, y: number): boolean {
  let inside = false;
  polygon.forEach((a, k) => {
    const b = polygon[(k + 1) % polygon.length] as Corner;
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  });
  return inside;
}

/** Pixels between a point and the nearest one of the polygon; 0 inside. */
export function distanceTo(polygon: Polygon, x: number, y: number): number {
  if (isInside(polygon, x, y)) return 0;
  let least = Number.POSITIVE_INFINITY;
  polygon.forEach((a, k) => {
    const b = polygon[(k + 1) % polygon.length] as Corner;
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const along = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
    least = Math.min(least, Math.hypot(x - a.x - along * dx, y - a.y - along * dy));
  });
  return least;
}

/** Whether two edges have a point in common, ends included. Exact. */
function edgesMeet(a: Corner, b: Corner, c: Corner, d: Corner): boolean {
  if (Math.max(a.x, b.x) < Math.min(c.x, d.x) || Math.max(c.x, d.x) < Math.min(a.x, b.x)) return false;
  if (Math.max(a.y, b.y) < Math.min(c.y, d.y) || Math.max(c.y, d.y) < Math.min(a.y, b.y)) return false;
  return Math.sign(turnOf(a, b, c)) * Math.sign(turnOf(a, b, d)) <= 0 && Math.sign(turnOf(c, d, a)) * Math.sign(turnOf(c, d, b)) <= 0;
}

/** Edges of polygons in order: edge k runs from corner k of its polygon to the next. */
export interface EdgeOf {
  readonly polygon: number;
  readonly edge: number;
}

/**
 * All pairs of edges that cross or touch improperly, within a polygon or between two; none if all are simple and separate. Sweeps from the
 * top, comparing each edge with those beside it. Cost: O(n log n + pairs beside each other).
 */
export function crossings(polygons: readonly Polygon[]): [EdgeOf, EdgeOf][] {
  interface Edge extends EdgeOf {
    readonly a: Corner;
    readonly b: Corner;
  }
  const edges = polygons.flatMap((corners, polygon) =>
    corners.map((a, edge): Edge => ({ polygon, edge, a, b: corners[(edge + 1) % corners.length] as Corner })),
  );
  edges.sort((one, other) => Math.min(one.a.y, one.b.y) - Math.min(other.a.y, other.b.y));
  const found: [EdgeOf, EdgeOf][] = [];
  const beside: Edge[] = [];
  for (const edge of edges) {
    const top = Math.min(edge.a.y, edge.b.y);
    let left = 0;
    for (const other of beside) {
      if (Math.max(other.a.y, other.b.y) < top) continue;
      beside[left++] = other;
      if (edgesClash(edge, other, (polygons[edge.polygon] as Polygon).length)) found.push([edge, other]);
    }
    beside.length = left;
    beside.push(edge);
  }
  return found;
}

function edgesClash(one: EdgeOf & { a: Corner; b: Corner }, other: EdgeOf & { a: Corner; b: Corner }, count: number): boolean {
  if (!edgesMeet(one.a, one.b, other.a, other.b)) return false;
  if (one.polygon !== other.polygon) return true;
  const [isNext, isBefore] = [(one.edge + 1) % count === other.edge, (other.edge + 1) % count === one.edge];
  if (!isNext && !isBefore) return true;
  // One begins where the other ends; it must not turn back along it, nor have no length.
  const [a, b, c] = isNext ? [one.a, one.b, other.b] : [other.a, other.b, one.b];
  return turnOf(a, b, c) === 0 && (b.x - a.x) * (c.x - b.x) + (b.y - a.y) * (c.y - b.y) <= 0;
}

/** Whether it has an area, and no edge crosses or touches another. */
export function isSimple(polygon: Polygon): boolean {
  return polygon.length >= 3 && crossings([polygon]).length === 0;
}

/** Without repeated corners and corners on a straight line. */
export function withoutIdle(polygon: Polygon): Corner[] {
  const rest = [...polygon];
  for (let k = 0; k < rest.length && rest.length >= 3; ) {
    const [a, b, c] = [rest.at(k - 1), rest[k], rest[(k + 1) % rest.length]] as [Corner, Corner, Corner];
    if (turnOf(a, b, c) !== 0) k++;
    else {
      rest.splice(k, 1);
      k = Math.max(0, k - 1);
    }
  }
  return rest;
}

/** Whether it turns right at every corner, or continues straight. */
export function isConvex(polygon: Polygon): boolean {
  return polygon.every((a, k) => turnOf(a, polygon[(k + 1) % polygon.length] as Corner, polygon[(k + 2) % polygon.length] as Corner) >= 0);
}
