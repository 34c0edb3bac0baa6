/**
 * Finds the fewest corners of a closed line that stay within a tolerance of all of it.
 *
 * An edge may connect two points of the line if all points between are within tolerance of it. One sweep from each point finds these edges:
 * the directions that pass close enough to all points so far form a wedge that only narrows (Imai & Iri, "Polygonal approximations of a
 * curve", 1988; Chan & Chin 1996, who observe that an edge is close enough if it is so as a ray from either end). The fewest edges around
 * the line are then a shortest path; among equally short ones, the one whose edges lie closest to the line by sum of squares. The polygon's
 * first corner is unknown, so every point of the shortest stretch that must contain a corner is tried.
 *
 * Cost: O(points × longest edge), times the number of first corners tried.
 */
import { Edges } from "./edges";
import type { Corner } from "./polygon";

/** Edges looked at for further beginnings, at most, all together: a hundredth of a second. */
const MOST_STEPS = 400_000;
/** A line of more edges than this is not small; that it is all within its tolerance says that this is too large for it. */
const MOST_FOR_TRIANGLES = 1_500;
/** The number of best candidates offered. */
const MOST_OFFERED = 8;

/**
 * The corners of the best polygon accepted by `fit`, as ordered positions in `line`: with the fewest corners (at least three), and for each
 * first corner the closest one. Null if none is accepted.
 */
export function fewestCorners(
  line: readonly Corner[],
  within: ArrayLike<number>,
  isFit: (corners: readonly number[]) => boolean,
): number[] | null {
  const count = line.length;
  if (count <= 3) return line.map((_, k) => k);
  const edges = new Edges(line, within);
  const starts = edges.stretchWithCorner();
  const stride = Math.max(1, Math.ceil((starts.length * edges.total) / MOST_STEPS));
  const way = new Way(count);
  const found: Found[] = [];
  for (let k = 0; k < starts.length; k += stride) found.push(way.from(starts[k] as number, edges));
  found.sort(byCost);
  if ((found[0] as Found).corners.length < 3) {
    found.length = 0;
    if (edges.total > MOST_FOR_TRIANGLES) return null;
    for (const start of starts) found.push(...triangleFrom(start, edges, count));
    found.sort(byCost);
  }
  for (const { corners } of found.slice(0, MOST_OFFERED)) {
    const sorted = corners.toSorted((a, b) => a - b);
    if (sorted.length >= 3 && isFit(sorted)) return sorted;
  }
  return null;
}

interface Found {
  readonly corners: readonly number[];
  readonly error: number;
}

function byCost(a: Found, b: Found): number {
  return a.corners.length - b.corners.length || a.error - b.error;
}

/** The shortest way once around from a point; its room is used again from each. */
class Way {
  private readonly corners: Int32Array;
  private readonly error: Float64Array;
  private readonly before: Int32Array;

  constructor(private readonly count: number) {
    this.corners = new Int32Array(count + 1);
    this.error = new Float64Array(count + 1);
    this.before = new Int32Array(count + 1);
  }

  from(start: number, { first, to, error: own }: Edges): Found {
    const { count, corners, error, before } = this;
    corners.fill(count + 1);
    corners[0] = 0;
    for (let at = 0; at < count; at++) {
      const so = (corners[at] as number) + 1;
      if (so > count) continue;
      const place = start + at < count ? start + at : start + at - count;
      const end = first[place + 1] as number;
      for (let k = first[place] as number; k < end; k++) {
        const next = at + (to[k] as number);
        if (next > count) break;
        const least = corners[next] as number;
        if (so > least) continue;
        const sum = (error[at] as number) + (own[k] as number);
        if (so === least && sum >= (error[next] as number)) continue;
        corners[next] = so;
        error[next] = sum;
        before[next] = at;
      }
    }
    const found: number[] = [];
    for (let at = count; at > 0; at = before[at] as number) found.push((start + (before[at] as number)) % count);
    return { corners: found, error: error[count] as number };
  }
}

/** The nearest triangle with a corner here, where two corners would do: such lines are short. */
function triangleFrom(start: number, edges: Edges, count: number): Found[] {
  const { first, to, error } = edges;
  let best: Found | null = null;
  for (let k = first[start] as number; k < (first[start + 1] as number); k++) {
    const second = (start + (to[k] as number)) % count;
    for (let n = first[second] as number; n < (first[second + 1] as number); n++) {
      const steps = (to[k] as number) + (to[n] as number);
      if (steps >= count) break;
      const sum = (error[k] as number) + (error[n] as number) + edges.errorOf((start + steps) % count, count - steps);
      if (sum < (best?.error ?? Number.POSITIVE_INFINITY)) best = { corners: [start, second, (start + steps) % count], error: sum };
    }
  }
  return best ? [best] : [];
}
