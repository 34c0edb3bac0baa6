/** Shared parts of the page searches: starting points, budgets, and a random sequence that is the same everywhere. */
import type { Skyline, Taste } from "./skyline";

/** Positions of items on one page; x is -1 for an item that found no place. */
export interface Layout {
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly turned: Uint8Array;
  /** How many items were placed, and the sum of their areas. */
  readonly placed: number;
  readonly area: number;
  /** Right and bottom edge of what was placed. */
  readonly usedW: number;
  readonly usedH: number;
}

/** What the skyline holds now, kept. */
export function layoutOf({ x, y, turned, placed, area, usedW, usedH }: Skyline): Layout {
  return { x: x.slice(), y: y.slice(), turned: turned.slice(), placed, area, usedW, usedH };
}

/** Measured on sets of figures, effects and props of 16 to 160 px: none of them is best on all (bench/packing.ts). */
export const TASTES: readonly Taste[] = [
  { narrow: 0, spare: 0 },
  { narrow: 1.3, spare: 0 },
  { narrow: 2.5, spare: 0.8 },
  { narrow: 2, spare: 0.5 },
];

/**
 * The search budget for this many items: under a second for 400, under four for 2,000, little more per item beyond; few items need little.
 */
export function workFor(count: number, effort: "normal" | "high"): number {
  const normal = Math.min(400 * count * count, 20_000 * count, 2_000_000 + 800 * count);
  return effort === "high" ? 7 * normal : normal;
}

/** Orders with large items first, each deterministic: ties go by the other side, then by index. */
export function ordersOf(w: Int32Array, h: Int32Array): Int32Array[] {
  const by = (first: (k: number) => number, second: (k: number) => number) =>
    Int32Array.from([...w.keys()].sort((a, b) => first(b) - first(a) || second(b) - second(a) || a - b));
  const wide = (k: number) => w[k] as number;
  const high = (k: number) => h[k] as number;
  return [by(high, wide), by((k) => wide(k) * high(k), high), by((k) => Math.max(wide(k), high(k)), wide)];
}

/** Exchanges two ranks. */
export function exchange(order: Int32Array, a: number, b: number): void {
  const held = order[a] as number;
  order[a] = order[b] as number;
  order[b] = held;
}

/** Whole numbers below a bound from a fixed sequence: xorshift, G. Marsaglia, 2003. */
export function chance(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) % below;
  };
}
