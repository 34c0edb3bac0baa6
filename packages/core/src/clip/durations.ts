import type { Micros } from "../model";

/**
 * Divides `total` into `count` steps. Shares differ by at most 1 µs and sum to `total` exactly. `total` must be at least `count`, so that
 * every step gets some time.
 */
export function evenShares(total: Micros, count: number): Micros[] {
  // Cutting at rounded edges, instead of rounding each share, loses nothing.
  const edge = (k: number) => Math.floor((k * total) / count);
  return Array.from({ length: count }, (_, k) => edge(k + 1) - edge(k));
}

/** For shorter ones a microsecond is too large a part to count as rounding. */
const LEAST_ROUNDED: Micros = 1000;

/** Whether durations are equal but for the microsecond that even sharing leaves over. */
export function areEven(durations: readonly Micros[]): boolean {
  const longest = durations.reduce((most, each) => Math.max(most, each), 0);
  const off = longest >= LEAST_ROUNDED ? 1 : 0;
  return durations.every((each) => longest - each <= off);
}

/**
 * Stretches durations to sum to `total` exactly, each in proportion, none below 1 µs. Durations that are equal to within 1 µs stay equal
 * however often this is done: rounding remainders do not count as differences. Stretching to the current total changes nothing. `total`
 * must be at least their number.
 */
export function stretched(durations: readonly Micros[], total: Micros): Micros[] {
  const count = durations.length;
  if (durations.reduce((sum, each) => sum + each, 0) === total) return [...durations];
  if (areEven(durations)) return evenShares(total, count);
  const weights = proportionsOf(durations);
  const old = weights.reduce((sum, each) => sum + each, 0);
  const shares: Micros[] = [];
  let sum = 0;
  let spent = 0;
  weights.forEach((each, k) => {
    sum += each;
    // A small amount is added, so that a border on a whole microsecond is not moved by floating-point error.
    const wanted = Math.floor((sum / old) * total + 1e-6);
    // Leaves at least 1 µs to this step and to each that follows.
    const edge = k === count - 1 ? total : Math.min(Math.max(wanted, spent + 1), total - (count - 1 - k));
    shares.push(edge - spent);
    spent = edge;
  });
  return shares;
}

/** Proportions that people set are simple: 1 : 2, 3 : 4, and so on, up to this denominator. */
const FINEST = 24;

/**
 * What durations are meant to be to each other: those equal to within 1 µs get one weight, and a proportion that is simple but for the
 * microseconds that rounding took is that simple one. So proportions do not wander when a speed is changed many times.
 */
function proportionsOf(durations: readonly Micros[]): number[] {
  const sorted = [...new Set(durations)].sort((a, b) => a - b);
  if ((sorted[0] as Micros) < LEAST_ROUNDED) return [...durations];
  const means = new Map<Micros, number>();
  let run: Micros[] = [];
  const close = () => {
    const mean = run.reduce((sum, each) => sum + each, 0) / run.length;
    for (const each of run) means.set(each, mean);
    run = [];
  };
  for (const each of sorted) {
    if (run[0] !== undefined && each - run[0] > 1) close();
    run.push(each);
  }
  close();
  const least = means.get(sorted[0] as Micros) as number;
  return durations.map((each) => {
    const mean = means.get(each) as number;
    const ratio = mean / least;
    for (let parts = 1; parts <= FINEST; parts++) {
      const simple = Math.round(ratio * parts) / parts;
      // Each duration is off by at most a microsecond, and the least one by as much for each time that it fits into this one.
      if (Math.abs(simple * least - mean) <= 1 + ratio) return simple;
    }
    return ratio;
  });
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
  return { total, perStep: total / durations.length, fps: (durations.length * 1_000_000) / total, even: areEven(durations) };
}
