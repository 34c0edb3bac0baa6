import type { Micros } from "../model";

/**
 * Shares `total` out over `count` steps. Shares differ by at most 1 µs and sum to `total` exactly.
 * `total` must be at least `count`, so that no step is left without time.
 */
export function evenShares(total: Micros, count: number): Micros[] {
  // Cutting at rounded edges instead of rounding each share is what loses nothing.
  const edge = (k: number) => Math.floor((k * total) / count);
  return Array.from({ length: count }, (_, k) => edge(k + 1) - edge(k));
}

/**
 * Stretches durations to sum to `total` exactly, each keeping its proportion to the nearest microsecond, none below 1 µs.
 * Equal durations come out as `evenShares` does. `total` must be at least their number.
 */
export function stretched(durations: readonly Micros[], total: Micros): Micros[] {
  const count = durations.length;
  if (durations.every((each) => each === durations[0])) return evenShares(total, count);
  const old = durations.reduce((sum, each) => sum + each, 0);
  const shares: Micros[] = [];
  let sum = 0;
  let spent = 0;
  durations.forEach((each, k) => {
    sum += each;
    const wanted = Math.floor((sum / old) * total);
    // Leaves at least 1 µs to this step and to each that follows.
    const edge = k === count - 1 ? total : Math.min(Math.max(wanted, spent + 1), total - (count - 1 - k));
    shares.push(edge - spent);
    spent = edge;
  });
  return shares;
}

/** The three ways that people say how fast a clip is; all of one pass over its steps. */
export interface Pace {
  readonly total: Micros;
  /** Mean time of a step, in microseconds, not rounded. */
  readonly perStep: number;
  /** Mean steps a second. */
  readonly fps: number;
  /** Whether every step is equally long to within 1 µs. */
  readonly even: boolean;
}

/** Null for a clip without steps. */
export function paceOf(durations: readonly Micros[]): Pace | null {
  if (durations.length === 0) return null;
  const total = durations.reduce((sum, each) => sum + each, 0);
  const longest = durations.reduce((most, each) => Math.max(most, each), 0);
  const shortest = durations.reduce((least, each) => Math.min(least, each), longest);
  return { total, perStep: total / durations.length, fps: (durations.length * 1_000_000) / total, even: longest - shortest <= 1 };
}
