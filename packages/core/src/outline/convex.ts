/** Convex polygons: the hull of a line, and the convex parts of a polygon. */
import { type Corner, isConvex, type Polygon, turnOf } from "./polygon";

/** The smallest convex polygon around points, without corners on its edges. Andrew's monotone chain (1979). Cost: O(n log n). */
export function hullOf(points: readonly Corner[]): Corner[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (order: readonly Corner[]) => {
    const chain: Corner[] = [];
    for (const point of order) {
      while (chain.length >= 2 && turnOf(chain.at(-2) as Corner, chain.at(-1) as Corner, point) <= 0) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}

/**
 * Splits a simple polygon into convex parts without overlap, using its own corners only: ears are cut off, then parts are joined across
 * every diagonal that no corner needs (Hertel & Mehlhorn 1983: at most four times the minimum), the longest first. Cost: O(n³).
 */
export function convexParts(polygon: Polygon): Polygon[] {
  if (isConvex(polygon)) return [polygon];
  const parts: Polygon[] = earsOf(polygon);
  for (;;) {
    let best: { one: number; other: number; joined: Polygon; length: number } | null = null;
    for (let one = 0; one < parts.length; one++)
      for (let other = one + 1; other < parts.length; other++) {
        const found = joinedOver(parts[one] as Polygon, parts[other] as Polygon);
        if (found && (!best || found.length > best.length)) best = { one, other, ...found };
      }
    if (!best) return parts;
    parts.splice(best.other, 1);
    parts[best.one] = best.joined;
  }
}

/** The two as one convex polygon, if they share an edge and are that together. */
function joinedOver(a: Polygon, b: Polygon): { joined: Polygon; length: number } | null {
  for (let k = 0; k < a.length; k++) {
    const from = a[k] as Corner;
    const to = a[(k + 1) % a.length] as Corner;
    const n = b.findIndex((each, place) => isSame(each, to) && isSame(b[(place + 1) % b.length] as Corner, from));
    if (n < 0) continue;
    const rest = (polygon: Polygon, start: number) =>
      Array.from({ length: polygon.length - 1 }, (_, step) => polygon[(start + step) % polygon.length] as Corner);
    // From the end of the shared edge around the one, then around the other.
    const joined = [...rest(a, k + 1), ...rest(b, n + 1)];
    return isConvex(joined) ? { joined, length: Math.hypot(to.x - from.x, to.y - from.y) } : null;
  }
  return null;
}

function isSame(a: Corner, b: Corner): boolean {
  return a.x === b.x && a.y === b.y;
}

/** A simple polygon as triangles, by cutting off ears (Meisters 1975), those with the shortest cut first. */
function earsOf(polygon: Polygon): Polygon[] {
  const rest = [...polygon];
  const ears: Polygon[] = [];
  while (rest.length > 3) {
    let best: { place: number; cut: number } | null = null;
    for (let k = 0; k < rest.length; k++) {
      const [a, b, c] = [-1, 0, 1].map((by) => rest[(k + by + rest.length) % rest.length] as Corner) as [Corner, Corner, Corner];
      const turn = turnOf(a, b, c);
      const cut = Math.hypot(c.x - a.x, c.y - a.y);
      // A corner on a straight line is an ear of no area: it stays until it can be given to one that has some.
      if (turn <= 0 || (best && cut >= best.cut)) continue;
      if (rest.some((each) => !isSame(each, a) && !isSame(each, b) && !isSame(each, c) && isWithin(a, b, c, each))) continue;
      best = { place: k, cut };
    }
    if (!best) break;
    const at = best.place;
    ears.push([-1, 0, 1].map((by) => rest[(at + by + rest.length) % rest.length] as Corner));
    rest.splice(at, 1);
  }
  return turnOf(rest[0] as Corner, rest[1] as Corner, rest[2] as Corner) > 0 || rest.length > 3 ? [...ears, rest] : ears;
}

function isWithin(a: Corner, b: Corner, c: Corner, point: Corner): boolean {
  return turnOf(a, b, point) >= 0 && turnOf(b, c, point) >= 0 && turnOf(c, a, point) >= 0;
}
