/**
 * Divides a side of a sheet into cells, in every plausible way, and says what speaks for each.
 *
 * Counts, cells, margins and gaps that people choose are tried, and the periods at which the side resembles itself or has figures at equal
 * distances. What speaks for a way: its lines cut through little, gaps and margins are clear, it repeats, and its numbers are usual ones.
 * Cost: O(drawn pixels + length² / 4).
 */
import { spreadBefore } from "./grid";
import { likenessAtShift, type Profile, regularityOf } from "./profile";
import type { Side } from "./suggestion";

/** One way to divide a side. */
export interface Way extends Side {
  /** px: spread between the cells, if the count leaves some over: fewer than there are cells. */
  readonly spread: number;
  /** Remainder at the end. */
  readonly end: number;
  /** Lower is better. */
  readonly cost: number;
  /** The part of the cost that ranks, but says nothing of how well the way fits. */
  readonly strictness: number;
}

const LEAST_CELL = 6; // px
const SPACES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 10, 12, 16, 20, 24, 32]; // px that people leave as margins and gaps
const MOST_SPACE = 32; // px
/** The spaces of a side: grids end without any space, or with that of their margin or gap. */
const SPACINGS = SPACES.flatMap((gap) => SPACES.flatMap((margin) => [...new Set([0, margin, gap])].map((end) => ({ margin, gap, end }))));
const WITHOUT_GAPS = SPACINGS.filter(({ gap }) => gap === 0);
/** px: drawing that begins later suggests that the grid begins inside the sheet. */
const MOST_USUAL_START = 8;
/** How far a grid may begin before the first drawn pixel, where it begins inside the sheet. */
const MOST_SLACK = 24; // px
const MOST_COUNT = 256;
const KEPT_WAYS = 40;
/** How much lines that cut something count, and below what cost they cut nothing to speak of. */
const LINES = 1.35;
const CUTS_NOTHING = 0.01;
const MOST_COST_OF_LINES = 3;
/** The cost of any number of empty cells at the end: less than that of a grid that ends before the sheet. */
const MOST_TRAILING = 0.1;
/** How much figures that stand at equal distances say, compared with figures that are alike. */
const REGULAR = 0.8;

/** px: smaller cells are not spread, because they would fit wherever larger ones do. */
const LEAST_SPREAD_CELL = 16;
/** What speaks against pixels that are spread, less on sides that are made to measure: of 512 px, 640, 1024. */
const MADE_TO = 64;
const SPREAD_MADE = 0.1;
const SPREAD = 0.45;
/** px: cells that are smaller are mostly drawn pixel by pixel, and put at whole ones. */
const LARGE = 48;
const SPREAD_SMALL = 0.2;

type Plan = Omit<Way, "cost" | "strictness">;
type CostOfSlack = (low: number, high: number) => number;

/** The likeliest ways, best first. On a free side the first cell may begin anywhere; `mayBeSpread` adds equal parts of the whole side. */
export function waysToDivide(profile: Profile, costOfSlack: CostOfSlack, free: boolean, mayBeSpread: boolean): Way[] {
  const { length } = profile;
  const likeness = new Map<number, number>();
  const regularity = regularityOf(profile);
  const alike = (shift: number): number => {
    const known = likeness.get(shift);
    if (known !== undefined) return known;
    const value = Math.max(likenessAtShift(profile, shift), REGULAR * regularity(shift));
    likeness.set(shift, value);
    return value;
  };
  const seen = new Set<number>();
  const ways: Way[] = [];
  const weigh = (count: number, cell: number, margin: number, gap: number) => {
    const end = length - margin - count * cell - (count - 1) * gap;
    if (!Number.isInteger(cell) || cell < Math.min(LEAST_CELL, length) || end < 0 || count < 1 || count > MOST_COUNT) return;
    const way = { count, cell, margin, gap: count === 1 ? 0 : gap, spread: 0, end };
    // Most ways leave too much outside of their cells: only the others are looked at closely, each once.
    const outside = costOutside(profile, way);
    if (outside > MOST_COST_OF_LINES) return;
    const key = ((count * length + cell) * length + margin) * (MOST_SPACE + 1) + way.gap;
    if (seen.has(key)) return;
    seen.add(key);
    add(way, outside, count === 1 ? 0 : alike(cell + gap), costOfSpaces(way, free) + costOfSize(cell));
  };
  // A cell of any size is a part of the side: only parts whose lines cut nothing say something.
  const weighSpread = (count: number) => {
    const cell = Math.floor(length / count);
    const spread = length - count * cell;
    if (spread === 0) return;
    const way = { count, cell, margin: 0, gap: 0, spread, end: spread - spreadBefore(count - 1, count, spread) };
    const outside = costOutside(profile, way);
    if (outside + costOfLines(profile, way) > CUTS_NOTHING) return;
    const pitch = length / count;
    const likeness = Math.max(likenessAtShift(profile, Math.round(pitch)), REGULAR * regularity(pitch));
    add(way, outside, likeness, (length % MADE_TO === 0 ? SPREAD_MADE : SPREAD) + (cell < LARGE ? SPREAD_SMALL : 0));
  };
  const add = (way: Plan, outside: number, likeness: number, costOfNumbers: number) => {
    const fit = outside + costOfLines(profile, way);
    if (fit > MOST_COST_OF_LINES) return;
    const period = costOfPeriod(way.count, likeness);
    const { low, high } = slackOf(profile, way);
    // Cells that figures fill from end to end. Where lines cut them, cells in the wrong place look filled too.
    const filling = low + high === 0 && fit < CUTS_NOTHING ? 0.25 : 0;
    ways.push({
      ...way,
      strictness: (LINES - 1) * fit,
      cost: LINES * fit + period + costOfNumbers + costOfSlack(low, high) - filling,
    });
  };
  if (mayBeSpread) for (let count = 2; count <= Math.min(MOST_COUNT, length / LEAST_SPREAD_CELL); count++) weighSpread(count);
  for (let count = 1; count <= Math.min(MOST_COUNT, length / LEAST_CELL); count++)
    for (const { margin, gap, end } of count === 1 ? WITHOUT_GAPS : SPACINGS) {
      const room = length - margin - end - (count - 1) * gap;
      if (room % count === 0) weigh(count, room / count, margin, gap);
    }
  // Sheets with something left over: by periods at which they look like themselves.
  const { first, last } = drawnEnds(profile);
  const inside = free || first > MOST_USUAL_START ? Array.from({ length: MOST_SLACK + 1 }, (_, slack) => first - slack) : [];
  for (const period of likelyPeriods(length, alike))
    for (const gap of SPACES) {
      const cell = period - gap;
      if (cell < LEAST_CELL) continue;
      const fitting = (margin: number) => Math.floor((length - margin + gap) / period);
      // A picture may be larger than its grid, which then ends where the drawing ends.
      const drawn = (margin: number) => {
        const most = fitting(margin);
        const isExact = [0, margin, gap].includes(length - margin - most * period + gap);
        return isExact ? most : Math.min(most, Math.ceil((last + 1 - margin + gap) / period));
      };
      for (const margin of SPACES) for (const count of [fitting(margin), drawn(margin)]) weigh(count, cell, margin, gap);
      for (const margin of inside) if (margin >= 0) weigh(drawn(margin), cell, margin, gap);
    }
  return bestOf(ways, profile);
}

/** The best by their cost with that of parts, which takes longest to find: it only ever adds, so that it is asked of few. */
function bestOf(ways: Way[], profile: Profile): Way[] {
  const byCost = (a: Way, b: Way) => a.cost - b.cost;
  const best: Way[] = [];
  for (const way of ways.sort(byCost)) {
    if (best.length === KEPT_WAYS && way.cost >= (best.at(-1) as Way).cost) break;
    best.push({ ...way, cost: way.cost + costOfParts(profile, way) });
    best.sort(byCost);
    best.splice(KEPT_WAYS);
  }
  return best;
}

/** The first and the last place at which something is drawn. */
function drawnEnds({ length, drawn, total }: Profile): { first: number; last: number } {
  let first = 0;
  while (first < length && drawn[first + 1] === 0) first++;
  let last = length - 1;
  while (last > first && drawn[last] === total) last--;
  return { first, last };
}

/** Peaks of likeness, the highest first. */
function likelyPeriods(length: number, alike: (shift: number) => number): number[] {
  const peaks: { period: number; value: number }[] = [];
  for (let period = LEAST_CELL; period <= length / 2; period++) {
    const value = alike(period);
    if (value > 0.25 && value >= alike(period - 1) && value >= alike(period + 1)) peaks.push({ period, value });
  }
  return peaks
    .sort((a, b) => b.value - a.value)
    .slice(0, 8)
    .map(({ period }) => period);
}

/** Where the cell `k` begins. */
function startOf({ count, cell, margin, gap, spread }: Plan, k: number): number {
  return margin + k * (cell + gap) + (spread === 0 ? 0 : spreadBefore(k, count, spread));
}

/** What is drawn outside of the cells. */
function costOutside({ length, drawn, total }: Profile, { margin, end }: Plan): number {
  const outside = (drawn[margin] as number) + total - (drawn[length - end] as number);
  return (60 * outside) / total;
}

/** What the lines cut through, compared with arbitrary lines. */
function costOfLines({ length, drawn, tied, ties, total }: Profile, way: Plan): number {
  const { count, cell, gap } = way;
  const sum = (from: number, to: number) => (drawn[to] as number) - (drawn[from] as number);
  let cut = 0;
  let between = 0;
  for (let k = 1; k < count; k++) {
    const start = startOf(way, k);
    cut += (tied[start] as number) + (gap > 0 ? (tied[start - gap] as number) : 0);
    if (gap > 0) between += sum(start - gap, start);
  }
  const usualCut = ties / length;
  const usualDrawn = total / length;
  const lines = Math.max(1, count - 1) * (gap > 0 ? 2 : 1);
  let empty = 0;
  let trailing = 0;
  for (let k = 0; k < count; k++) {
    const start = startOf(way, k);
    trailing = sum(start, start + cell) === 0 ? trailing + 1 : 0;
    if (trailing > 0) empty++;
  }
  return (
    (usualCut > 0 ? (4 * cut) / lines / usualCut : 0) +
    (gap > 0 && count > 1 ? (4 * between) / (count - 1) / gap / usualDrawn : 0) +
    (2.5 * (empty - trailing)) / count +
    Math.min((2.5 * trailing) / count, MOST_TRAILING)
  );
}

/** Cells that fall apart into equal parts, all with something in them and nothing cut, are two cells or more each. */
function costOfParts(profile: Profile, way: Plan): number {
  for (let parts = 2; parts <= 6; parts++)
    for (const inner of new Set([way.gap, 0, 1, 2, 4, 8])) {
      const room = (way.cell - (parts - 1) * inner) / parts;
      const cell = way.spread > 0 ? Math.floor(room) : room;
      if (!Number.isInteger(cell) || cell < LEAST_CELL * 2) continue;
      const lines = Array.from({ length: parts - 1 }, (_, k) => (k + 1) * (cell + inner) - inner);
      if (costOfInnerLines(profile, way, lines, inner) < 0.3) return 0.7;
    }
  return 0;
}

/** As `costOfLines`, for lines drawn inside every cell; high if a part between them is empty in most cells. */
function costOfInnerLines({ length, drawn, tied, ties, total }: Profile, way: Plan, lines: readonly number[], gap: number): number {
  let cut = 0;
  let between = 0;
  let empty = 0;
  let run = 0; // of empty parts; those at the very end prove nothing
  for (let k = 0; k < way.count; k++) {
    const start = startOf(way, k);
    let from = start;
    for (const line of [...lines, way.cell]) {
      if (drawn[start + line] === drawn[from]) run++;
      else {
        empty += run;
        run = 0;
      }
      from = start + line + gap;
      if (line === way.cell) continue;
      cut += tied[start + line] as number;
      between += (drawn[start + line + gap] as number) - (drawn[start + line] as number);
    }
  }
  const count = way.count * lines.length;
  const usualCut = ties / length;
  const usualDrawn = total / length;
  const cost = (usualCut > 0 ? (4 * cut) / count / usualCut : 0) + (gap > 0 ? (4 * between) / count / gap / usualDrawn : 0);
  return cost + (2 * empty) / (way.count * (lines.length + 1));
}

/** How many pixels no cell draws on, at the beginning and at the end of the cells. */
function slackOf({ drawn }: Profile, way: Plan): { low: number; high: number } {
  const { count, cell } = way;
  const clear = (offset: number) => {
    for (let k = 0; k < count; k++) {
      const at = startOf(way, k) + offset;
      if (drawn[at + 1] !== drawn[at]) return false;
    }
    return true;
  };
  let low = 0;
  while (low < cell && clear(low)) low++;
  let high = 0;
  while (high < cell - low && clear(cell - 1 - high)) high++;
  return { low, high };
}

/** Figures are usually centred in their cells. */
export function costOfSlackAlong(low: number, high: number): number {
  return 0.02 * Math.min(8, Math.abs(low - high));
}

/** Figures usually stand at the bottom of their cells. */
export function costOfSlackDown(_low: number, high: number): number {
  return 0.06 * Math.min(6, high);
}

/** A side that repeats scores a lot; more repeats a little more, so that a period beats its double. */
function costOfPeriod(count: number, likeness: number): number {
  if (count === 1) return -0.35;
  return -1.6 * likeness - 0.16 * Math.log2(count);
}

/** Spaces that fill the side exactly, and simple ones, are likelier. */
function costOfSpaces({ margin, gap, end, count }: Plan, free: boolean): number {
  // Behind a heading grids begin anywhere, and mostly end with the sheet.
  if (free) return (end === 0 ? 0.1 : end === gap ? 0.15 : 0.4) + (gap === 0 ? 0 : 0.16) + 0.006 * gap + usualSpace(gap) * 0.15;
  // If a grid begins well inside the sheet, its position says nothing about its likelihood.
  if (margin > MOST_SPACE) return 0.3 + (gap === 0 ? 0 : 0.12) + 0.006 * gap + usualSpace(gap) * 0.15;
  const exact = end === margin || (end === 0 && margin === 0) ? 0 : end === 0 ? 0.12 : end === gap && margin <= gap ? 0.1 : 0.45;
  const plain = margin === 0 && gap === 0 ? 0 : margin === 0 || gap === 0 || margin === gap ? 0.16 : 0.24;
  const wide = 0.006 * (margin + (count > 1 ? gap : 0));
  return exact + plain + wide + (usualSpace(margin) + usualSpace(gap)) * 0.15;
}

function usualSpace(px: number): number {
  return [0, 1, 2, 4, 8, 16].includes(px) ? 0 : 1;
}

/** Cells that people choose: the rounder in powers of two, the likelier. */
function costOfSize(cell: number): number {
  if (cell % 16 === 0) return 0;
  if (cell % 8 === 0) return 0.04;
  if (cell % 10 === 0) return 0.12;
  if (cell % 4 === 0) return 0.18;
  return cell % 2 === 0 ? 0.34 : 0.42;
}
