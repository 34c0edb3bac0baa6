/** The usual greedy simplification, as a baseline for the fewest corners. */
import type { Polygon } from "./polygon";

/** Points dropped as long as all between two kept ones are near their straight line (Ramer 1972, Douglas & Peucker 1973). */
export function greedyCorners(line: Polygon, withinPx: number): Polygon {
  const far = (from: number, to: number): [number, number] => {
    let worst: [number, number] = [-1, 0];
    const [a, b] = [line[from] as Polygon[number], line[to % line.length] as Polygon[number]];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    for (let k = from + 1; k < to; k++) {
      const { x, y } = line[k] as Polygon[number];
      const along = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / (length * length)));
      const away = Math.hypot(x - a.x - along * (b.x - a.x), y - a.y - along * (b.y - a.y));
      if (away > worst[1]) worst = [k, away];
    }
    return worst;
  };
  const between = (from: number, to: number): number[] => {
    const [place, away] = far(from, to);
    return away > withinPx ? [...between(from, place), place, ...between(place, to)] : [];
  };
  const half = line.length >> 1;
  return [0, ...between(0, half), half, ...between(half, line.length)].map((place) => line[place] as Polygon[number]);
}
