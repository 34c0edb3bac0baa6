/**
 * Suggests the grids that a sheet may have been drawn on, best first.
 *
 * For each side separately, every plausible division (count, cell, margin, gap, with or without the same margin at the end) is scored by
 * the drawing: lines should cut through little, gaps and margins should be clear, and the sheet shifted by one period should resemble
 * itself (normalised correlation of its profile). Then the best divisions of both sides are paired. Pairs with matching margins and gaps
 * and with typical cell sizes come first, because clear space alone cannot distinguish a gap from a cell's own border. Fully drawn sheets
 * are left to `suggest-full.ts`, lines and boxes drawn around cells to `suggest-framed.ts`, text at the top or at the left to `headings.ts`.
 * Holds: every suggestion is a grid that `gridOf` accepts. Cost: O(drawn pixels + length² / 4) per side.
 */
import type { GridCut } from "../model";
import { type Coverage, isClear } from "../raster";
import { cellRect, gridOf } from "./grid";
import { type Free, withoutHeadings } from "./headings";
import { likenessAtShift, type Profile, profilesOf } from "./profile";
import { suggestFramed } from "./suggest-framed";
import { suggestFull } from "./suggest-full";
import type { GridSuggestion } from "./suggestion";

/**
 * At most `most` grids, best first; none if nothing is drawn. `whole` is the picture with its opaque ground, where `coverage` is without it:
 * lines between cells may have gone with the ground.
 */
export function suggestGrids(coverage: Coverage, most = 6, whole: Coverage = coverage): GridSuggestion[] {
  const plain = withoutHeadings(coverage, plainGrids(coverage, most), (part, free) => plainGrids(part, most, free)).slice(0, most);
  const framed = suggestFramed(coverage, whole);
  return framed ? [framed, ...plain].slice(0, most) : plain;
}

/** Grids of cells between which there is nothing, or no space. Along a free side the first cell may begin anywhere. */
function plainGrids(coverage: Coverage, most: number, free: Free = { x: false, y: false }): GridSuggestion[] {
  const full = suggestFull(coverage, most);
  if (full) return full;
  const { along, down } = profilesOf(coverage);
  if (along.total === 0) return [];
  const columns = waysToDivide(along, costOfSlackAlong, free.x);
  const rows = waysToDivide(down, costOfSlackDown, free.y);
  const pairs = columns.flatMap((x) => rows.map((y) => ({ x, y, cost: x.cost + y.cost + costOfPair(x, y) })));
  pairs.sort((a, b) => a.cost - b.cost);
  const best = pairs.slice(0, 40).map((pair) => ({ ...pair, cost: pair.cost + costOfEmpties(coverage, pair.x, pair.y) }));
  best.sort((a, b) => a.cost - b.cost);
  return best.slice(0, most).map(
    ({ x, y, cost }): GridSuggestion => ({
      cell: { w: x.cell, h: y.cell },
      margin: { x: x.margin, y: y.margin },
      gap: { x: x.gap, y: y.gap },
      columns: x.count,
      rows: y.count,
      score: Math.round(1000 / (1 + Math.exp(cost + 1.5))) / 1000,
    }),
  );
}

/** The cut that a suggestion stands for. */
export function cutOfSuggestion({ cell, margin, gap }: GridSuggestion): GridCut {
  return { by: "cell", cell, margin, gap, keepEmpty: false };
}

/** One way to divide a side. */
interface Way {
  readonly count: number;
  readonly cell: number;
  readonly margin: number;
  readonly gap: number;
  /** Remainder at the end. */
  readonly end: number;
  /** Lower is better. */
  readonly cost: number;
}

const LEAST_CELL = 6; // px
const SPACES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 10, 12, 16, 20, 24, 32]; // px that people leave as margins and gaps
const MOST_SPACE = 32; // px
/** How far a grid may begin before the first drawn pixel, where it begins inside the sheet. */
const MOST_SLACK = 24; // px
const MOST_COUNT = 256;
const KEPT_WAYS = 40;

type Plan = Omit<Way, "cost">;
type CostOfSlack = (low: number, high: number) => number;

function waysToDivide(profile: Profile, costOfSlack: CostOfSlack, free: boolean): Way[] {
  const { length } = profile;
  const likeness = new Map<number, number>();
  const alike = (shift: number): number => {
    const known = likeness.get(shift);
    if (known !== undefined) return known;
    const value = likenessAtShift(profile, shift);
    likeness.set(shift, value);
    return value;
  };
  const seen = new Set<string>();
  const ways: Way[] = [];
  const weigh = (count: number, cell: number, margin: number, gap: number) => {
    const end = length - margin - count * cell - (count - 1) * gap;
    if (!Number.isInteger(cell) || cell < Math.min(LEAST_CELL, length) || end < 0 || count < 1 || count > MOST_COUNT) return;
    const key = `${count} ${cell} ${margin} ${count === 1 ? 0 : gap}`;
    if (seen.has(key)) return;
    seen.add(key);
    const way = { count, cell, margin, gap: count === 1 ? 0 : gap, end };
    const fit = costOfLines(profile, way);
    if (fit > 3) return;
    const period = costOfPeriod(count, count === 1 ? 0 : alike(cell + gap));
    const { low, high } = slackOf(profile, way);
    ways.push({
      ...way,
      cost: fit + period + costOfParts(profile, way) + costOfSpaces(way, free) + costOfSize(cell) + costOfSlack(low, high),
    });
  };
  for (let count = 1; count <= Math.min(MOST_COUNT, length / LEAST_CELL); count++)
    for (const gap of count === 1 ? [0] : SPACES)
      for (const margin of SPACES)
        for (const end of new Set([0, margin, gap])) weigh(count, (length - margin - end - (count - 1) * gap) / count, margin, gap);
  // Sheets with something left over: by periods at which they look like themselves.
  const { first, last } = drawnEnds(profile);
  const inside = free || first > MOST_SPACE ? Array.from({ length: MOST_SLACK + 1 }, (_, slack) => first - slack) : [];
  for (const period of likelyPeriods(length, alike))
    for (const gap of SPACES) {
      const cell = period - gap;
      if (cell < LEAST_CELL) continue;
      for (const margin of SPACES) weigh(Math.floor((length - margin + gap) / period), cell, margin, gap);
      // A grid that begins well inside the sheet ends where the drawing ends.
      for (const margin of inside) {
        if (margin < 0) break;
        const fits = Math.floor((length - margin + gap) / period);
        weigh(Math.min(fits, Math.ceil((last + 1 - margin + gap) / period)), cell, margin, gap);
      }
    }
  return ways.sort((a, b) => a.cost - b.cost).slice(0, KEPT_WAYS);
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

/** What the lines cut through and what lies outside the cells, compared with arbitrary lines. */
function costOfLines({ length, drawn, tied, ties, total }: Profile, { count, cell, margin, gap, end }: Plan): number {
  const sum = (from: number, to: number) => (drawn[Math.max(from, 0)] !== undefined ? (drawn[to] as number) - (drawn[from] as number) : 0);
  const outside = sum(0, margin) + sum(length - end, length);
  let cut = 0;
  let between = 0;
  for (let k = 1; k < count; k++) {
    const start = margin + k * (cell + gap);
    cut += (tied[start] as number) + (gap > 0 ? (tied[start - gap] as number) : 0);
    if (gap > 0) between += sum(start - gap, start);
  }
  const usualCut = ties / length;
  const usualDrawn = total / length;
  const lines = Math.max(1, count - 1) * (gap > 0 ? 2 : 1);
  let empty = 0;
  for (let k = 0; k < count; k++) {
    const start = margin + k * (cell + gap);
    if (sum(start, start + cell) === 0) empty++;
  }
  return (
    (usualCut > 0 ? (4 * cut) / lines / usualCut : 0) +
    (gap > 0 && count > 1 ? (4 * between) / (count - 1) / gap / usualDrawn : 0) +
    (60 * outside) / total +
    (2.5 * empty) / count
  );
}

/** Cells that fall apart into equal parts, all with something in them and nothing cut, are two cells or more each. */
function costOfParts(profile: Profile, way: Plan): number {
  for (let parts = 2; parts <= 6; parts++)
    for (const inner of new Set([way.gap, 0, 1, 2, 4, 8])) {
      const cell = (way.cell - (parts - 1) * inner) / parts;
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
    const start = way.margin + k * (way.cell + way.gap);
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
function slackOf({ drawn }: Profile, { count, cell, margin, gap }: Plan): { low: number; high: number } {
  const clear = (offset: number) => {
    for (let k = 0; k < count; k++) {
      const at = margin + k * (cell + gap) + offset;
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
function costOfSlackAlong(low: number, high: number): number {
  return 0.02 * Math.min(8, Math.abs(low - high)) - (low + high === 0 ? 0.25 : 0);
}

/** Figures usually stand at the bottom of their cells. */
function costOfSlackDown(low: number, high: number): number {
  return 0.06 * Math.min(6, high) - (low + high === 0 ? 0.25 : 0);
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

/** Spaces are mostly the same along and down, cells mostly of like proportions. */
function costOfPair(x: Way, y: Way): number {
  const margins = x.margin === y.margin ? 0 : x.margin === 0 || y.margin === 0 ? 0.3 : 0.4;
  const gaps = x.gap === y.gap ? 0 : x.count === 1 || y.count === 1 ? 0.1 : 0.4;
  const shape = Math.abs(Math.log2(x.cell / y.cell));
  return margins + gaps + Math.max(0, shape - 1) * 0.25 + (x.cell === y.cell ? -0.08 : 0);
}

/** A grid that is mostly empty is too fine, unless whole row ends are missing. */
function costOfEmpties(coverage: Coverage, x: Way, y: Way): number {
  const cut = cutOfSuggestion({
    cell: { w: x.cell, h: y.cell },
    margin: { x: x.margin, y: y.margin },
    gap: { x: x.gap, y: y.gap },
    columns: x.count,
    rows: y.count,
    score: 0,
  });
  const grid = gridOf({ w: coverage.width, h: coverage.height }, cut, "suggestion");
  let holes = 0;
  for (let row = 0; row < grid.rows; row++) {
    let trailing = true;
    for (let column = grid.columns - 1; column >= 0; column--)
      if (!isClear(coverage, cellRect(grid, column, row))) trailing = false;
      else if (!trailing) holes++;
  }
  return (1.2 * holes) / (grid.columns * grid.rows);
}
