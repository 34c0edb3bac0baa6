/** Shapes in the world, and tests for whether two of them meet. All are convex; others are given as convex parts. */
import type { Area, FramePoint } from "../model";

/** Corners in order, in either direction. */
export type Shape = readonly FramePoint[];

export function shapeOfArea({ x, y, w, h }: Area): Shape {
  return [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ];
}

/**
 * Whether two convex shapes have a part in common; edges that only touch have not. They have none if, seen along one of their edges, one
 * ends before the other begins (the separating axis theorem). Cost: O(corners²).
 */
export function shapesMeet(a: Shape, b: Shape): boolean {
  return !isApartAlong(a, a, b) && !isApartAlong(b, a, b);
}

function isApartAlong(edges: Shape, a: Shape, b: Shape): boolean {
  return edges.some((from, k) => {
    const to = edges[(k + 1) % edges.length] as FramePoint;
    const [nx, ny] = [to.y - from.y, from.x - to.x];
    const [leastA, mostA] = reach(a, nx, ny);
    const [leastB, mostB] = reach(b, nx, ny);
    return mostA <= leastB || mostB <= leastA;
  });
}

function reach(shape: Shape, nx: number, ny: number): [least: number, most: number] {
  let [least, most] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { x, y } of shape) {
    const at = x * nx + y * ny;
    if (at < least) least = at;
    if (at > most) most = at;
  }
  return [least, most];
}
