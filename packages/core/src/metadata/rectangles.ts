/**
 * Identifies the rectangle among the fields of a group of records, and its convention, by names and geometry.
 *
 * Every assignment of fields to sides that the names allow (without known names, any four numbers in a likely order) is read in every way
 * that the numbers allow: in pixels or fractions of the picture, y counted down or up. The assignments whose rectangles describe the
 * picture win. Cost: O(assignments × sampled records²), with few samples for most assignments and more for the best.
 */
import type { Rect } from "../model";
import type { Coverage } from "../raster";
import { type Assignment, anyCells, anyFour, named, numericFields } from "./assignments";
import { isSeen } from "./described";
import { type Evidence, evidenceOf, fitOf } from "./evidence";
import type { MetadataRecord, RecordGroup } from "./groups";
import { gridFor, isInside, rectangleOf } from "./rectangle-of";
import { numberAt, type RectReading } from "./values";
import { says } from "./words";

export interface FoundRectangles {
  readonly reading: RectReading;
  /** 0 to about 8: how well they describe the picture, and how well their names support it. */
  readonly fit: number;
  readonly evidence: Evidence;
  /** How many of the records have one inside the picture. */
  readonly placed: number;
  /** Whether names alone say what the fields mean. */
  readonly told: boolean;
  /** Another way of reading that describes the picture as well and means other rectangles; null if there is none. */
  readonly rival: RectReading | null;
}

/** For the first look and for the last. */
const FEW = 24;
const MANY = 120;
/** From here on, what names say needs no second opinion. */
const GOOD_FIT = 4.2;
/** The number of best candidates examined closely. */
const FINALISTS = 10;
/** Below this difference two readings are as good as each other. */
const CLOSE = 0.2;

interface Tried {
  readonly assignment: Assignment;
  readonly fit: number;
  readonly evidence: Evidence;
}

/** The best reading for a group, null if none gives enough rectangles inside the picture. */
export function findRectangles(group: RecordGroup, coverage: Coverage): FoundRectangles | null {
  const few = sampled(group.records, FEW);
  const numbers = numericFields(sampled(group.records, MANY));
  let tried = weigh(named(numbers, few), group, few, coverage);
  // Where names say nothing, or mislead, any four numbers are tried.
  if ((tried[0]?.fit ?? 0) < GOOD_FIT)
    tried = byFit([...tried, ...weigh([...anyFour(numbers), ...anyCells(numbers, few, coverage)], group, few, coverage)]);
  const many = sampled(group.records, MANY);
  const finalists =
    many.length === few.length
      ? tried
      : weigh(
          tried.slice(0, FINALISTS).map((each) => each.assignment),
          group,
          many,
          coverage,
          false,
        );
  const [best] = finalists;
  if (!best) return null;
  return {
    reading: readingOf(best.assignment),
    fit: best.fit,
    evidence: best.evidence,
    placed: Math.round((best.evidence.placed / many.length) * group.records.length),
    told: best.assignment.told,
    rival: rivalOf(finalists, group, many, coverage),
  };
}

function readingOf({ fields, rectAs, yAs, negated, inclusive, centred, indexFrom }: Assignment): RectReading {
  return {
    fields,
    ...(rectAs ? { rectAs } : {}),
    ...(yAs ? { yAs } : {}),
    ...(negated ? { negated } : {}),
    ...(inclusive ? { inclusive } : {}),
    ...(centred ? { centred } : {}),
    ...(indexFrom ? { indexFrom } : {}),
  };
}

const byFit = (tries: readonly Tried[]) => [...tries].sort((a, b) => b.fit - a.fit);

function weigh(
  assignments: readonly Assignment[],
  group: RecordGroup,
  sample: readonly MetadataRecord[],
  coverage: Coverage,
  ways = true,
): Tried[] {
  const tried: Tried[] = [];
  const ranges = rangesOf(sample);
  for (const each of assignments)
    for (const assignment of ways ? waysToMean(each, ranges, coverage) : [each]) {
      const rects = rectsOf(assignment, group, sample, coverage);
      const evidence = rects && evidenceOf(rects, coverage);
      if (!evidence) continue;
      const given = rects.filter((rect) => rect !== null).length;
      const fit = fitOf(evidence, sample.length, given, sample.length / group.records.length);
      tried.push({ assignment, evidence, fit: fit + assignment.bonus + orderBonus(rects) });
    }
  return byFit(tried);
}

/** The number of records examined before a reading is rejected. */
const GLANCE = 8;

/** The rectangles of all sampled records; null if few of the first lie inside the picture. */
function rectsOf(
  assignment: Assignment,
  group: RecordGroup,
  sample: readonly MetadataRecord[],
  coverage: Coverage,
): (Rect | null)[] | null {
  const grid = gridFor(group.records, assignment, coverage);
  const rects: (Rect | null)[] = [];
  let inside = 0;
  for (const record of sample) {
    const rect = rectangleOf(record, assignment, grid, coverage);
    if (rect && isInside(rect, coverage)) inside++;
    rects.push(rect);
    if (rects.length === GLANCE && inside < GLANCE / 3) return null;
  }
  return rects;
}

/** The range of a field's values, and whether they are whole. */
interface Range {
  readonly least: number;
  readonly most: number;
  readonly whole: boolean;
  readonly count: number;
}

/** Ranges by path, each found once however many assignments ask. */
function rangesOf(sample: readonly MetadataRecord[]): (path: string | undefined) => Range {
  const known = new Map<string, Range>();
  return (path) => {
    if (path === undefined) return NO_RANGE;
    const found = known.get(path);
    if (found) return found;
    const values = sample.flatMap((record) => numberAt(record, path) ?? []);
    const range = { least: Math.min(...values), most: Math.max(...values), whole: values.every(Number.isInteger), count: values.length };
    known.set(path, range);
    return range;
  };
}

const NO_RANGE: Range = { least: Number.POSITIVE_INFINITY, most: Number.NEGATIVE_INFINITY, whole: true, count: 0 };

/** Pixels counted down, and the other possible meanings: fractions of the picture, y up, negated positions, cells counted from 1. */
function waysToMean(assignment: Assignment, rangeOf: (path: string | undefined) => Range, coverage: Coverage): Assignment[] {
  const { fields, bonus } = assignment;
  const together = (paths: readonly (string | undefined)[]) => {
    const ranges = paths.map(rangeOf);
    return {
      least: Math.min(...ranges.map(({ least }) => least)),
      most: Math.max(...ranges.map(({ most }) => most)),
      whole: ranges.every(({ whole }) => whole),
      count: ranges.reduce((sum, { count }) => sum + count, 0),
    };
  };
  if (fields.index !== undefined || fields.column !== undefined) {
    const counted = together([fields.index, fields.column, fields.row]);
    const flipped = fields.index === undefined ? [{ ...assignment, yAs: "up" as const, bonus: bonus - 0.5 }] : [];
    return counted.least === 0 ? [assignment, ...flipped] : [assignment, { ...assignment, indexFrom: 1, bonus: bonus - 0.02 }, ...flipped];
  }
  const places = together([fields.x, fields.y]);
  const all = together([fields.x, fields.y, fields.w, fields.h, fields.right, fields.bottom]);
  if (all.count === 0) return [];
  // A picture of unknown size has no shares and no bottom to count from.
  if (!isSeen(coverage)) return [assignment];
  const share = all.least >= 0 && all.most <= 1.0001 && !all.whole;
  const up = (each: Assignment): Assignment[] => {
    if (each.yAs) return [each];
    const edges = fields.bottom !== undefined;
    const middle =
      (!edges && says(`${fields.x} ${fields.y}`, ["center", "centre", "middle", "mid"])) || /(^|\.)c[._]?x$/i.test(fields.x ?? "");
    return [
      each,
      ...(edges && each.rectAs !== "share" ? [{ ...each, inclusive: true, bonus: each.bonus - 0.35 }] : []),
      ...(middle ? [{ ...each, centred: true, bonus: each.bonus + 0.2 }] : []),
      { ...each, yAs: "up", bonus: each.bonus - 0.15 },
      ...(edges ? [] : [{ ...each, yAs: "top-up" as const, bonus: each.bonus - 0.3 }]),
    ];
  };
  if (share) return up({ ...assignment, rectAs: "share" });
  if (places.count > 2 && places.most <= 0 && places.least < 0) return [{ ...assignment, negated: true }];
  return up(assignment);
}

/** Records are usually in reading order: that distinguishes y down from y up, and x from y, if the picture is uniform. */
function orderBonus(rects: readonly (Rect | null)[]): number {
  let right = 0;
  let wrong = 0;
  for (let k = 1; k < rects.length; k++) {
    const a = rects[k - 1];
    const b = rects[k];
    if (!a || !b) continue;
    const below = b.y >= a.y + a.h;
    const above = b.y + b.h <= a.y;
    if (below || (!above && b.x >= a.x + a.w)) right++;
    else if (above) wrong++;
  }
  return right + wrong === 0 ? 0 : (0.12 * (right - 2 * wrong)) / (right + wrong);
}

function rivalOf(
  finalists: readonly Tried[],
  group: RecordGroup,
  sample: readonly MetadataRecord[],
  coverage: Coverage,
): RectReading | null {
  const [best, ...others] = finalists;
  if (!best) return null;
  const rectsOf = (assignment: Assignment) => {
    const grid = gridFor(group.records, assignment, coverage);
    return sample.map((record) => {
      const rect = rectangleOf(record, assignment, grid, coverage);
      return rect ? `${rect.x} ${rect.y} ${rect.w} ${rect.h}` : "";
    });
  };
  const meant = rectsOf(best.assignment);
  for (const other of others) {
    if (other.fit < best.fit - CLOSE) return null;
    const theirs = rectsOf(other.assignment);
    if (theirs.some((rect, k) => rect !== meant[k])) return readingOf(other.assignment);
  }
  return null;
}

function sampled(records: readonly MetadataRecord[], most: number): MetadataRecord[] {
  const step = Math.max(1, records.length / most);
  return Array.from({ length: Math.min(records.length, most) }, (_, k) => records[Math.floor(k * step)] as MetadataRecord);
}
