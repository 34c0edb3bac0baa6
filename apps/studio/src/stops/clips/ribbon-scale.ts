/** Converts between time and width: where each step of a clip begins and how wide it is. Pure, and tested. */
import type { Clip, Micros } from "@caravan/core/model";

/** Room for a step's number and time. */
const LEAST_STEP = 28; // px
const MOST_WIDTH = 400_000; // px: beyond this browsers lose places to rounding

/**
 * CSS pixels per microsecond: the clip fills `width`, unless its shortest step would then be too narrow to hold; but no
 * clip of two or three long steps is stretched beyond what looks like time.
 */
export function ribbonScale(clip: Clip, width: number): number {
  const total = clip.steps.reduce((sum, step) => sum + step.duration, 0);
  if (total === 0) return width / 1_000_000;
  const shortest = clip.steps.reduce((least, step) => Math.min(least, step.duration), total);
  return Math.min(Math.max(width / total, LEAST_STEP / shortest), MOST_WIDTH / total);
}

/** Starts of all steps, and the end. */
export function edgesOf(clip: Clip): Micros[] {
  const edges = [0];
  for (const { duration } of clip.steps) edges.push((edges.at(-1) as number) + duration);
  return edges;
}

/** Steps within a time interval, both ends included, in order. */
export function stepsBetween(edges: readonly Micros[], a: Micros, b: Micros): number[] {
  const [from, to] = a < b ? [a, b] : [b, a];
  const steps: number[] = [];
  for (let k = 0; k + 1 < edges.length; k++) if ((edges[k + 1] as number) > from && (edges[k] as number) <= to) steps.push(k);
  return steps;
}

/** The edge nearest to a time, by index; of two as near the earlier one. */
export function nearestEdge(edges: readonly Micros[], t: Micros): number {
  return edges.reduce((best, edge, k) => (Math.abs(edge - t) < Math.abs((edges[best] as number) - t) ? k : best), 0);
}

/** Every second step as a rectangle, all in one SVG path: one element however many steps there are. */
export function bandsOf(edges: readonly Micros[], scale: number, height: number): string {
  let path = "";
  for (let k = 0; k + 1 < edges.length; k += 2) {
    const [left, right] = [(edges[k] as number) * scale, (edges[k + 1] as number) * scale];
    path += `M${left.toFixed(2)} 0H${right.toFixed(2)}V${height}H${left.toFixed(2)}Z`;
  }
  return path;
}

/** Marks of the ruler at a round distance that leaves each its room, in microseconds. */
export function rulerMarks(end: Micros, scale: number): Micros[] {
  const least = 64 / scale;
  const round = [1, 2, 5].flatMap((lead) => [1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9].map((power) => lead * power)).sort((a, b) => a - b);
  const apart = round.find((each) => each >= least) ?? (round.at(-1) as number);
  return Array.from({ length: Math.min(2000, Math.floor(end / apart) + 1) }, (_, k) => k * apart);
}

/** The width of a digit of the small numbers under steps, in CSS pixels, and the space beside them. */
const DIGIT = 7.4;
const BESIDE = 6;

/** A step's time as it has room under it: in full, without its unit, to the nearest tenth or whole ms (marked as such), or not at all. Never cut off. */
export function timeThatFits(ms: string, width: number): string {
  const value = Number(ms);
  const nearest = [Math.round(value * 10) / 10, Math.round(value)]
    .filter((each) => each > 0)
    .map((each) => (String(each) === ms ? ms : `≈${each}`));
  return [`${ms} ms`, ms, ...nearest].find((text) => text.length * DIGIT + BESIDE <= width) ?? "";
}
