/** Profiles how much is drawn along one side of a sheet, as input for grid suggestions. */
import { bitsSet, type Coverage } from "../raster";

/** Along one axis; for columns, index x is the column of pixels at x. */
export interface Profile {
  /** Length of the side in pixels. */
  readonly length: number;
  /** Drawn pixels at each place, summed up: those at places from ≤ k < to are `drawn[to] - drawn[from]`. */
  readonly drawn: Float64Array;
  /** `tied[k]`: how many pixels drawn at k touch one drawn at k − 1. Cutting there parts them. */
  readonly tied: Float64Array;
  readonly total: number;
  /** The sum of `tied`. */
  readonly ties: number;
}

/** Profiles along (by columns) and down (by rows). Cost: O(pixels / 32 + drawn pixels). */
export function profilesOf({ width, height, bits }: Coverage): { along: Profile; down: Profile } {
  const stride = Math.ceil(width / 32);
  const columns = new Float64Array(width);
  const rows = new Float64Array(height);
  const tiedAlong = new Float64Array(width);
  const tiedDown = new Float64Array(height);
  for (let y = 0; y < height; y++)
    for (let word = 0; word < stride; word++) {
      const at = y * stride + word;
      const here = bits[at] as number;
      if (here === 0) continue;
      const left = word > 0 ? (bits[at - 1] as number) >>> 31 : 0;
      const above = y > 0 ? (bits[at - stride] as number) : 0;
      rows[y] = (rows[y] as number) + bitsSet(here);
      tiedDown[y] = (tiedDown[y] as number) + bitsSet(here & above);
      addBits(columns, word * 32, here);
      addBits(tiedAlong, word * 32, here & ((here << 1) | left));
    }
  return { along: profileOf(columns, tiedAlong), down: profileOf(rows, tiedDown) };
}

function profileOf(counts: Float64Array, tied: Float64Array): Profile {
  const drawn = new Float64Array(counts.length + 1);
  for (let k = 0; k < counts.length; k++) drawn[k + 1] = (drawn[k] as number) + (counts[k] as number);
  const ties = tied.reduce((sum, value) => sum + value, 0);
  return { length: counts.length, drawn, tied, total: drawn[counts.length] as number, ties };
}

function addBits(to: Float64Array, from: number, bits: number): void {
  for (let rest = bits; rest !== 0; rest &= rest - 1) {
    const k = from + 31 - Math.clz32(rest & -rest);
    to[k] = (to[k] as number) + 1;
  }
}

/** How alike a profile is to itself moved by `shift`: 1 the same, 0 unrelated, below 0 opposite. Cost: O(length). */
export function likenessAtShift({ length, drawn }: Profile, shift: number): number {
  const count = length - shift;
  if (count < 1) return 0;
  let sumA = 0;
  let sumB = 0;
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let k = 0; k < count; k++) {
    const a = (drawn[k + 1] as number) - (drawn[k] as number);
    const b = (drawn[k + shift + 1] as number) - (drawn[k + shift] as number);
    sumA += a;
    sumB += b;
    ab += a * b;
    aa += a * a;
    bb += b * b;
  }
  const spread = Math.sqrt((aa - (sumA * sumA) / count) * (bb - (sumB * sumB) / count));
  return spread > 0 ? (ab - (sumA * sumB) / count) / spread : 0;
}

/** A run that is drawn from one clear place to the next, half-open. */
interface Run {
  readonly start: number;
  readonly end: number;
}

function runsOf({ length, drawn }: Profile): Run[] {
  const runs: Run[] = [];
  let start: number | null = null;
  for (let k = 0; k <= length; k++) {
    const isDrawn = k < length && drawn[k + 1] !== drawn[k];
    if (isDrawn) start ??= k;
    else if (start !== null) {
      runs.push({ start, end: k });
      start = null;
    }
  }
  return runs;
}

/** px: how far an end or a centre may be off. */
const OFF = 1;
const FEWEST_RUNS = 3;

/**
 * How regularly what is drawn between clear places follows itself at a distance: the fraction of places, counted from the last run to the
 * first, at which another one ends, or has its centre. Unlike likeness it sees rows of unlike figures that stand on lines.
 */
export function regularityOf(profile: Profile): (distance: number) => number {
  const runs = runsOf(profile);
  if (runs.length < FEWEST_RUNS) return () => 0;
  const kinds = [runs.map(({ end }) => end), runs.map(({ start, end }) => (start + end) / 2)].map((places) => {
    const near = new Set(places.flatMap((place) => [Math.floor(place) - OFF, Math.floor(place), Math.floor(place) + OFF]));
    return { near, first: places[0] as number, last: places.at(-1) as number };
  });
  return (distance) => Math.max(...kinds.map((kind) => shareOf(kind, distance)));
}

function shareOf({ near, first, last }: { near: ReadonlySet<number>; first: number; last: number }, distance: number): number {
  const steps = Math.round((last - first) / distance);
  if (steps + 1 < FEWEST_RUNS || Math.abs(last - first - steps * distance) > OFF) return 0;
  let met = 0;
  for (let k = 0; k <= steps; k++) if (near.has(Math.floor(last - k * distance))) met++;
  return met / (steps + 1);
}
