/**
 * Simplifies lines so that none crosses or touches itself or another. Where two edges meet, their points get less tolerance, in the end
 * none: then they follow the line itself, which never meets itself. So it terminates.
 */
import { areaOf, type Corner, crossings, isInside, type Polygon } from "./polygon";
import { fewestCorners } from "./simplify";

/** Below this a tolerance is none. */
const LEAST = 0.3;

interface Line {
  readonly points: readonly Corner[];
  readonly within: Float64Array;
  corners: readonly number[];
}

/** One polygon per line, in order. `lines` must not meet themselves or each other; one may lie in another. */
export function simplified(lines: readonly (readonly Corner[])[], withinAt: (point: Corner) => number): Polygon[] {
  const all = lines.map(thinned).map((points): Line => ({ points, within: Float64Array.from(points, withinAt), corners: [] }));
  do for (const line of all) if (line.corners.length === 0) line.corners = cornersOf(line);
  while (!areApart(all));
  return all.map(polygonOf);
}

/** Lines with more points are reduced to their turns: edges of their polygons begin and end there. */
const LONG = 1_500;

function thinned(points: readonly Corner[]): readonly Corner[] {
  return points.length <= LONG ? points : turnsOf(points).map((place) => points[place] as Corner);
}

/** Those of a simple polygon; what a polygon that is none follows too freely is tightened. */
function cornersOf(line: Line): readonly number[] {
  const { points, within } = line;
  for (;;) {
    if (within.every((each) => each === 0)) return turnsOf(points);
    const tangled: { line: Line; edges: number[] }[] = [];
    const found = fewestCorners(points, within, (corners) => {
      const tried = { ...line, corners };
      const polygon = polygonOf(tried);
      const edges = crossings([polygon]).flatMap((pair) => pair.map(({ edge }) => edge));
      if (edges.length === 0 && areaOf(polygon) > 0) return true;
      tangled.push({ line: tried, edges });
      return false;
    });
    if (found) return found;
    const [best] = tangled;
    if (best && best.edges.length > 0) tightenEdges(best.line, best.edges);
    else tighten(line, new Set(points.keys()));
  }
}

/** The points at which a line turns. */
function turnsOf(points: readonly Corner[]): number[] {
  return points.flatMap(({ x, y }, k) => {
    const [before, next] = [points.at(k - 1) as Corner, points[(k + 1) % points.length] as Corner];
    return (x - before.x) * (next.y - y) === (y - before.y) * (next.x - x) ? [] : [k];
  });
}

/** Whether no two meet and none has moved inside another; lines that do get a smaller tolerance and new corners. */
function areApart(lines: readonly Line[]): boolean {
  if (lines.length < 2) return true;
  const polygons = lines.map(polygonOf);
  const meeting = new Map<Line, number[]>();
  for (const { polygon, edge } of crossings(polygons).flat()) {
    const line = lines[polygon] as Line;
    meeting.set(line, [...(meeting.get(line) ?? []), edge]);
  }
  for (const [line, edges] of meeting) tightenEdges(line, edges);
  const around = meeting.size > 0 ? [] : lines.filter((line, k) => swallows(line, polygons[k] as Polygon, lines));
  for (const line of around) tighten(line, new Set(line.points.keys()));
  for (const line of [...meeting.keys(), ...around]) line.corners = [];
  return meeting.size === 0 && around.length === 0;
}

/** Whether a polygon has come to enclose another line. */
function swallows(line: Line, polygon: Polygon, lines: readonly Line[]): boolean {
  return lines.some((other) => {
    if (other === line) return false;
    const [{ x, y }] = other.points as [Corner];
    return isInside(polygon, x, y) && !isInside(line.points, x, y);
  });
}

function polygonOf({ points, corners }: Line): Corner[] {
  return corners.map((place) => points[place] as Corner);
}

function tightenEdges(line: Line, edges: readonly number[]): void {
  const { corners, points } = line;
  const places = new Set<number>();
  for (const edge of edges) {
    const from = corners[edge] as number;
    const to = corners[(edge + 1) % corners.length] as number;
    for (let k = from; k <= (to > from ? to : to + points.length); k++) places.add(k % points.length);
  }
  tighten(line, places);
}

function tighten({ within }: Line, places: ReadonlySet<number>): void {
  for (const place of places) {
    const less = (within[place] as number) / ((within[place] as number) > 2 ? 4 : 2);
    within[place] = less < LEAST ? 0 : less;
  }
}
