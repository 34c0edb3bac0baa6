/** Traces outlines: a polygon around each island of drawn pixels, in whole pixels, with the fewest corners within a tolerance. */
import type { Px } from "../model";
import { boundaryOf } from "./boundary";
import { convexParts, hullOf } from "./convex";
import { islandsOf, type Mask } from "./mask";
import type { Polygon } from "./polygon";
import { fewestCorners } from "./simplify";
import { simplified } from "./untangle";

export interface Tracing {
  /** How far the line may be from the pixel edges. 0 follows every pixel. */
  readonly withinPx: Px;
  /** The wanted limit for a polygon; the tolerance takes precedence. */
  readonly corners: number;
  /** Islands of fewer pixels have none. */
  readonly leastPx: number;
  /** `"around"`: without dents. `"parts"`: several that fill it, each without dents. */
  readonly convex?: "around" | "parts";
}

export interface Traced {
  readonly polygons: readonly Polygon[];
  /** By how many corners the largest has more than it should; 0 if none has. */
  readonly over: number;
}

/** With `bottom`, points of the line at that height stay where they are. Cost: O(pixels + corners of the lines × how far edges reach). */
export function traced(mask: Mask, { withinPx, corners, leastPx, convex }: Tracing, bottom: Px | null = null): Traced {
  const lines = islandsOf(mask, leastPx).map(boundaryOf);
  const polygons =
    convex === "around"
      ? lines.map((line) => hullWithin(hullOf(line), withinPx))
      : simplified(lines, ({ y }) => (y === bottom ? 0 : withinPx));
  const over = Math.max(0, ...polygons.map((each) => each.length - corners));
  return { polygons: convex === "parts" ? polygons.flatMap(convexParts) : polygons, over };
}

/** Some of its corners; any of them make a convex polygon, with an area if they are three. */
function hullWithin(hull: Polygon, withinPx: Px): Polygon {
  const found = fewestCorners(hull, new Float64Array(hull.length).fill(withinPx), () => true);
  return found?.map((place) => hull[place] as Polygon[number]) ?? hull;
}
