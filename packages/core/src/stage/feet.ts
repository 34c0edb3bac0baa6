/**
 * Measures how far planted feet slide while a figure walks, and the speed at which they would not.
 *
 * A foot is where the figure's lower edge comes down furthest; it is planted while its line stays the same. From step to step it should
 * move backward in the frame as fast as the figure moves forward over the ground; the difference is its slide. Units: px and px per second;
 * x to the right from the frame's origin.
 */

import type { Drawn } from "../art";
import type { Micros } from "../model";
import { type Coverage, cropCoverage, isDrawn, turnedCoverage } from "../raster";

/** A frame as far as its feet go. */
export interface FootFrame {
  /** Its drawing, upright and scaled. */
  readonly coverage: Coverage;
  /** Its origin in it. */
  readonly origin: { readonly x: number; readonly y: number };
  readonly duration: Micros;
}

/** A frame as drawn on its picture, with its origin in untrimmed pixels. */
export function footFrame({ coverage, frame }: Drawn, origin: { readonly x: number; readonly y: number }, duration: Micros): FootFrame {
  const stored = cropCoverage(coverage, frame.rect);
  const upright = frame.turned ? turnedCoverage(stored, frame.turned === "counter" ? "clockwise" : "counter") : stored;
  const { x, y } = frame.inset ?? { x: 0, y: 0 };
  return { coverage: upright, origin: { x: origin.x - x, y: origin.y - y }, duration };
}

/** A foot is this much lower than its surroundings, in px. */
const STEP = 2;
/** A planted foot may seem to rise or sink by this much per step, in px: soles are not quite level. */
const LEVEL = 1;
/** No foot moves further between two steps than this fraction of the figure's width. */
const STRIDE = 0.6;
/** Feet are in the lowest part of the figure. */
const LOWEST_PART = 0.3;

/** A foot that reaches down: the middle of its sole from the origin, and its lowest line. */
interface Contact {
  readonly middle: number;
  readonly left: number;
  readonly right: number;
  readonly y: number;
}

export interface Feet {
  /** The feet at each step. */
  readonly contacts: readonly (readonly Contact[])[];
  readonly durations: readonly Micros[];
  readonly reach: number;
}

export function feetOf(frames: readonly FootFrame[]): Feet {
  return {
    contacts: frames.map(contactsIn),
    durations: frames.map(({ duration }) => duration),
    reach: Math.max(...frames.map(({ coverage }) => coverage.width)) * STRIDE,
  };
}

/** Local minima of the figure's lower edge: each place that is lower than its surroundings. */
function contactsIn({ coverage, origin }: FootFrame): Contact[] {
  const low = Array.from({ length: coverage.width }, (_, x) => lowestIn(coverage, x));
  const lowest = Math.max(...low);
  const top = low.reduce((least, y) => (y >= 0 ? Math.min(least, y) : least), lowest);
  const least = lowest - Math.max(STEP, (lowest - top) * LOWEST_PART, coverage.height * 0.12);
  const contacts: Contact[] = [];
  for (let x = 0; x < low.length; ) {
    const y = low[x] as number;
    let right = x + 1;
    while (right < low.length && low[right] === y) right++;
    const isFoot = y >= least && risesBeside(low, x - 1, -1, y) && risesBeside(low, right, 1, y);
    if (isFoot) {
      // The sole is everything within a pixel of its lowest line.
      let [from, to] = [x, right];
      while (from > 0 && (low[from - 1] as number) >= y - 1) from--;
      while (to < low.length && (low[to] as number) >= y - 1) to++;
      contacts.push({ left: from - origin.x, right: to - origin.x, middle: (from + to) / 2 - origin.x, y: y - origin.y });
    }
    x = right;
  }
  return contacts;
}

function lowestIn(coverage: Coverage, x: number): number {
  for (let y = coverage.height - 1; y >= 0; y--) if (isDrawn(coverage, x, y)) return y;
  return -1;
}

/** Whether the lower edge rises by a step before it comes down further. */
function risesBeside(low: readonly number[], from: number, way: 1 | -1, y: number): boolean {
  for (let x = from; x >= 0 && x < low.length; x += way) {
    if ((low[x] as number) > y) return false;
    if ((low[x] as number) <= y - STEP) return true;
  }
  return true;
}

/** For each step, how far a planted foot moves in the frame until the next one: every pairing of feet on one line that could be one foot. */
function movesAfter({ contacts, reach }: Feet, step: number): number[] {
  const next = contacts[(step + 1) % contacts.length] ?? [];
  return (contacts[step] ?? [])
    .flatMap((here) => next.filter(({ y }) => Math.abs(y - here.y) <= LEVEL).map((there) => moveOf(here, there)))
    .filter((move) => Math.abs(move) <= reach);
}

/** By its centre, or by whichever edge moved accordingly if the other is hidden or rolls off. */
function moveOf(here: Contact, there: Contact): number {
  return there.middle - here.middle;
}

/**
 * How far the planted foot slides over the ground from each step to the next, in px, at a speed in the figure's direction: along +x, or −x
 * if it is drawn facing that way. Null if no foot stays on the ground. Of two feet the one that slides less is the planted one.
 */
export function slides(feet: Feet, speed: number): (number | null)[] {
  return feet.contacts.map((_, step) => {
    const gone = (speed * (feet.durations[step] ?? 0)) / 1_000_000;
    const moves = movesAfter(feet, step).map((move) => move + gone);
    if (moves.length === 0) return null;
    return moves.reduce((least, each) => (Math.abs(each) < Math.abs(least) ? each : least));
  });
}

/** The greatest slide of a step, 0 if no foot is ever planted. */
export function worstSlide(feet: Feet, speed: number): number {
  return Math.max(0, ...slides(feet, speed).map((each) => Math.abs(each ?? 0)));
}

/** Nobody walks slower or faster than this. In px per second. */
const SLOWEST = 4;
const FASTEST = 600;

/**
 * The walking speed with the least sliding of planted feet, in whole px per second, with its worst slide; null if feet never move back. The
 * sum of slides decides, so that one badly drawn frame does not. Positive along +x, negative along −x.
 */
export function steadySpeed(feet: Feet): { readonly speed: number; readonly worst: number } | null {
  const moving = feet.contacts.some((_, step) => movesAfter(feet, step).some((move) => Math.abs(move) >= 1));
  if (!moving) return null;
  const tried: { readonly speed: number; readonly mean: number; readonly worst: number }[] = [];
  for (let speed = SLOWEST; speed <= FASTEST; speed++)
    for (const way of [1, -1]) {
      const all = slides(feet, speed * way).flatMap((each) => (each === null ? [] : [Math.abs(each)]));
      if (all.length === 0) return null;
      tried.push({ speed: speed * way, mean: all.reduce((sum, each) => sum + each * each, 0) / all.length, worst: Math.max(...all) });
    }
  const best = Math.min(...tried.map(({ mean }) => mean));
  // Legs that look alike fit higher speeds as well: the slowest of those that fit is meant, and the best of those around it.
  const first = tried.findIndex(({ mean }) => mean <= best + ABOUT);
  const near = tried.slice(first, first + 2 * NEARBY).reduce((least, each) => (each.mean < least.mean ? each : least));
  return { speed: near.speed, worst: near.worst };
}

/** The tolerance for an equally good fit, in px², and the range in px per second in which the best is searched. */
const ABOUT = 0.25;
const NEARBY = 8;
