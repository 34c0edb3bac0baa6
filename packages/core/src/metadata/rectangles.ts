/**
 * Which fields of a group of records are a rectangle, told by names and by geometry.
 *
 * Every assignment of fields to sides that names allow (and, where none do, any four numbers) makes rectangles; those win that lie
 * inside the picture, overlap little, and hold what is drawn.
 * Cost: O(assignments × sampled records²), with at most 160 records sampled.
 */
import { type GridSuggestion, suggestGrids } from "../cut";
import { type FrameField, overlaps, type Rect, type Size, type Spacing } from "../model";
import { type Coverage, countDrawn } from "../raster";
import { isSeen } from "./described";
import type { MetadataRecord, RecordGroup } from "./groups";
import { numberOf } from "./tree";
import { CELL_WORDS, INDEX_WORDS, says, sideOf, wordsOf } from "./words";

export type FieldPaths = Partial<Record<FrameField, string>>;

export interface FoundRectangles {
  readonly fields: FieldPaths;
  /** 0 to 7: how well they describe the picture. */
  readonly fit: number;
  /** How many of the records have one inside the picture. */
  readonly placed: number;
}

const SAMPLED = 120;

/** A record's value by its path: `$key`, `../$key` for the one around it, a field, or with `../` that of the nearest record around it. */
export function valueAt(record: MetadataRecord, path: string): unknown {
  if (path.endsWith("$key")) return record.keys.at(-1 - path.split("../").length + 1);
  if (!path.startsWith("../")) return record.fields.get(path);
  const wanted = path.slice(3);
  return record.around.find((each) => each.has(wanted))?.get(wanted);
}

export function numberAt(record: MetadataRecord, path: string | undefined): number | null {
  const value = path === undefined ? undefined : valueAt(record, path);
  if (typeof value === "string") return numberOf(value);
  return typeof value === "number" && Number.isFinite(value) ? value : null;
}

/** A grid for files that tell cells only by column and row: the picture's own. */
export interface CellGrid {
  readonly cell: Size;
  readonly margin: Spacing;
  readonly gap: Spacing;
  readonly columns: number;
}

/**
 * The rectangle that a record gives by these fields, null if a number is missing. Not yet checked against the picture. `grid` is used
 * where the file tells cells but not their size.
 */
export function rectangleOf(record: MetadataRecord, fields: FieldPaths, grid: CellGrid | null): Rect | null {
  const number = (field: FrameField) => numberAt(record, fields[field]);
  if (fields.index !== undefined || fields.column !== undefined) {
    const w = number("cellW") ?? grid?.cell.w ?? null;
    const h = number("cellH") ?? grid?.cell.h ?? null;
    const columns = number("columns") ?? grid?.columns ?? null;
    const index = number("index");
    const column = index !== null && columns !== null ? index % columns : number("column");
    const row = index !== null && columns !== null ? Math.floor(index / columns) : number("row");
    if (w === null || h === null || column === null || row === null) return null;
    const own = fields.cellW === undefined ? grid : null;
    const margin = own?.margin ?? { x: 0, y: 0 };
    const gap = own?.gap ?? { x: 0, y: 0 };
    return { x: margin.x + column * (w + gap.x), y: margin.y + row * (h + gap.y), w, h };
  }
  const x = number("x");
  const y = number("y");
  const right = number("right");
  const bottom = number("bottom");
  const w = right !== null && x !== null ? right - x : (number("w") ?? number("cellW"));
  const h = bottom !== null && y !== null ? bottom - y : (number("h") ?? number("cellH"));
  return x === null || y === null || w === null || h === null ? null : { x, y, w, h };
}

export function isInside({ x, y, w, h }: Rect, { width, height }: { width: number; height: number }): boolean {
  return [x, y, w, h].every(Number.isInteger) && x >= 0 && y >= 0 && w > 0 && h > 0 && x + w <= width && y + h <= height;
}

/** The best assignment for a group, null if none gives any rectangle inside the picture. */
export function findRectangles(group: RecordGroup, coverage: Coverage): FoundRectangles | null {
  const sample = sampled(group.records);
  let best: FoundRectangles | null = null;
  const weigh = (tries: readonly Assignment[]) => {
    for (const { fields, bonus } of tries) {
      const fit = fitOf(sample, fields, coverage, gridFor(group.records, fields, coverage));
      if (!fit) continue;
      const found = { fields, fit: fit.score + bonus, placed: Math.round((fit.placed / sample.length) * group.records.length) };
      if (!best || found.fit > best.fit + 1e-9) best = found;
    }
  };
  const numbers = numericFields(sample);
  weigh([...namedSides(numbers, sample), ...lists(numbers), ...cells(numbers, sample)]);
  // Where names say nothing, or mislead, every choice of four numbers is tried.
  if (((best as FoundRectangles | null)?.fit ?? 0) < GOOD_FIT) weigh(anyFour(numbers));
  return best;
}

/** From here on, what names say needs no second opinion. */
const GOOD_FIT = 4;

/** The picture's own grid, for fields that tell cells without their size; null for others, or if there is none with enough cells. */
export function gridFor(records: readonly MetadataRecord[], fields: FieldPaths, coverage: Coverage): CellGrid | null {
  if ((fields.column === undefined && fields.index === undefined) || fields.cellW !== undefined) return null;
  if (!isSeen(coverage)) return null;
  const most = (path: string | undefined) => records.reduce((max, record) => Math.max(max, numberAt(record, path) ?? 0), 0);
  const enough = (columns: number, rows: number) =>
    fields.index === undefined ? columns > most(fields.column) && rows > most(fields.row) : columns * rows > most(fields.index);
  const suggested = gridsOf(coverage).find(({ columns, rows }) => enough(columns, rows));
  if (suggested) return suggested;
  const columns = most(fields.column) + 1;
  const rows = most(fields.row) + 1;
  const cell = { w: Math.floor(coverage.width / columns), h: Math.floor(coverage.height / rows) };
  return fields.index === undefined && cell.w > 0 && cell.h > 0 ? { cell, margin: NONE, gap: NONE, columns } : null;
}

const NONE: Spacing = { x: 0, y: 0 };

const knownGrids = new WeakMap<Coverage, GridSuggestion[]>();

/** Suggestions for a picture, found once however many readings ask. */
function gridsOf(coverage: Coverage): GridSuggestion[] {
  const known = knownGrids.get(coverage) ?? suggestGrids(coverage, 12);
  knownGrids.set(coverage, known);
  return known;
}

function sampled(records: readonly MetadataRecord[]): MetadataRecord[] {
  const step = Math.max(1, records.length / SAMPLED);
  return Array.from({ length: Math.min(records.length, SAMPLED) }, (_, k) => records[Math.floor(k * step)] as MetadataRecord);
}

interface Assignment {
  readonly fields: FieldPaths;
  /** What names speak for it. */
  readonly bonus: number;
}

function anyFour(numbers: readonly string[]): Assignment[] {
  const plain = numbers.filter((path) => !/(^|\.)\d+$/.test(path)).slice(0, 7);
  if (plain.length < 4) return [];
  return (orders(plain, 4) as [string, string, string, string][]).flatMap(([x, y, a, b]) => [
    { fields: { x, y, w: a, h: b }, bonus: closeness([x, y, a, b], plain) },
    { fields: { x, y, right: a, bottom: b }, bonus: closeness([x, y, a, b], plain) - 0.1 },
  ]);
}

/** Fields that are numbers in most records, in the order in which they stand. */
function numericFields(records: readonly MetadataRecord[]): string[] {
  const counts = new Map<string, number>();
  for (const { fields } of records)
    for (const [path, value] of fields) if (typeof value === "number") counts.set(path, (counts.get(path) ?? 0) + 1);
  return [...counts].filter(([, count]) => count >= records.length * 0.5).map(([path]) => path);
}

function namedSides(numbers: readonly string[], records: readonly MetadataRecord[]): Assignment[] {
  const byStem = new Map<string, Partial<Record<string, string>>>();
  for (const path of numbers) {
    const named = sideOf(path);
    if (!named) continue;
    const sides = byStem.get(named.stem) ?? {};
    byStem.set(named.stem, sides);
    sides[named.side] ??= path;
  }
  const tries: Assignment[] = [];
  const stems = [...byStem];
  for (const [stem, place] of stems) {
    if (place.x === undefined || place.y === undefined) continue;
    const plain = says(stem, ["frame", "rect", "region", "bounds", "area", "box", "crop", "atlas"]) || stem === "" ? 0.4 : 0;
    const { x, y } = place as { x: string; y: string };
    if (place.right !== undefined && place.bottom !== undefined)
      tries.push({ fields: { x, y, right: place.right, bottom: place.bottom }, bonus: 1.2 + plain });
    for (const [other, size] of stems)
      if (size.w !== undefined && size.h !== undefined)
        tries.push({ fields: { x, y, w: size.w, h: size.h }, bonus: (other === stem ? 1.2 : 0.6) + plain });
    for (const [w, h] of sizesAround(records)) tries.push({ fields: { x, y, cellW: w, cellH: h }, bonus: 0.5 + plain });
  }
  return tries;
}

/** Lists of four numbers, and pairs of lists of two. */
function lists(numbers: readonly string[]): Assignment[] {
  const lengths = new Map<string, number>();
  for (const path of numbers) {
    const match = /^(.*?)\.?(\d+)$/.exec(path);
    if (match && (match[2] as string).length < 3)
      lengths.set(match[1] as string, Math.max(lengths.get(match[1] as string) ?? 0, Number(match[2]) + 1));
  }
  const at = (list: string, k: number) => (list === "" ? String(k) : `${list}.${k}`);
  const tries: Assignment[] = [];
  for (const [list, length] of lengths) {
    for (let k = 0; k + 4 <= length && k < 4; k++) {
      const [x, y, a, b] = [at(list, k), at(list, k + 1), at(list, k + 2), at(list, k + 3)];
      tries.push({ fields: { x, y, w: a, h: b }, bonus: 1 - k * 0.1 }, { fields: { x, y, right: a, bottom: b }, bonus: 0.9 - k * 0.1 });
    }
    if (length < 2) continue;
    for (const [other, otherLength] of lengths)
      if (other !== list && otherLength >= 2) {
        const sized = says(other, ["size", "wh", "dim", "dimensions", "extent"]) && !says(other, ["orig", "source", "full"]) ? 0.3 : 0;
        const placed = says(list, ["pos", "position", "xy", "at", "topleft", "place"]) ? 0.3 : 0;
        const fields = { x: at(list, 0), y: at(list, 1) };
        tries.push({ fields: { ...fields, w: at(other, 0), h: at(other, 1) }, bonus: 0.4 + sized + placed });
        tries.push({ fields: { ...fields, right: at(other, 0), bottom: at(other, 1) }, bonus: 0.35 });
      }
  }
  return tries;
}

/** Columns and rows, or running numbers of cells, with a cell size that the file says somewhere around. */
function cells(numbers: readonly string[], records: readonly MetadataRecord[]): Assignment[] {
  const tries: Assignment[] = [];
  const sizes = sizesAround(records);
  const column = numbers.find((path) => sideOf(path)?.side === "column");
  const row = numbers.find((path) => sideOf(path)?.side === "row");
  const places = numbers
    .filter((path) => sideOf(path)?.side === "x")
    .map((x): [string, string] => [x, x.replace(/x$/i, (letter) => (letter === "x" ? "y" : "Y"))]);
  if (column && row) places.push([column, row]);
  for (const [cellW, cellH] of sizes) {
    for (const [along, down] of places)
      if (numbers.includes(down)) tries.push({ fields: { column: along, row: down, cellW, cellH }, bonus: along === column ? 1.1 : 0.1 });
  }
  if (sizes.length === 0 && column && row) tries.push({ fields: { column, row }, bonus: 0.8 });
  for (const index of numbers.filter((path) => says(path, INDEX_WORDS))) {
    const columns = columnsAround(records);
    for (const [cellW, cellH] of columns ? sizes : [])
      tries.push({ fields: { index, cellW, cellH, ...(columns ? { columns } : {}) }, bonus: 0.4 });
    tries.push({ fields: { index, ...(columns ? { columns } : {}) }, bonus: 0.1 });
  }
  return tries;
}

function columnsAround(records: readonly MetadataRecord[]): string | null {
  for (const outer of records[0]?.around ?? [])
    for (const [path, value] of outer) if (typeof value === "number" && says(path, ["columns", "cols", "across"])) return `../${path}`;
  return null;
}

/** Fields around the records that may be the width and height of a cell. */
function sizesAround(records: readonly MetadataRecord[]): [string, string][] {
  const [first] = records;
  if (!first) return [];
  const found: [string, string][] = [];
  for (const outer of first.around)
    for (const [path, value] of outer) {
      if (typeof value !== "number") continue;
      const named = sideOf(path);
      if (named?.side === "w" && says(`${named.stem} ${path}`, CELL_WORDS))
        for (const [other] of outer) {
          const partner = sideOf(other);
          if (partner?.side === "h" && partner.stem === named.stem) found.push([`../${path}`, `../${other}`]);
        }
      else if (/\.0$|^0$/.test(path) && says(path, CELL_WORDS)) found.push([`../${path}`, `../${path.replace(/0$/, "1")}`]);
      else if (!named && says(path, ["size", "cell", "tile"]) && wordsOf(path).length <= 3) found.push([`../${path}`, `../${path}`]);
    }
  return found;
}

/** Fields that stand side by side and in this order are likelier. */
function closeness(fields: readonly string[], all: readonly string[]): number {
  const places = fields.map((field) => all.indexOf(field));
  const inOrder = places.every((place, k) => k === 0 || place > (places[k - 1] as number));
  return inOrder ? 0.3 : 0;
}

function orders(list: readonly string[], length: number): string[][] {
  if (length === 0) return [[]];
  return list.flatMap((each) =>
    orders(
      list.filter((other) => other !== each),
      length - 1,
    ).map((rest) => [each, ...rest]),
  );
}

/** How well rectangles describe the picture; null if fewer than half lie inside it. */
function fitOf(
  records: readonly MetadataRecord[],
  fields: FieldPaths,
  coverage: Coverage,
  grid: CellGrid | null,
): { score: number; placed: number } | null {
  const rects: Rect[] = [];
  let given = 0;
  for (const [k, record] of records.entries()) {
    if (k === 24 && rects.length < 6) return null;
    const rect = rectangleOf(record, fields, grid);
    if (!rect) continue;
    given++;
    if (isInside(rect, coverage)) rects.push(rect);
  }
  if (rects.length === 0 || rects.length < records.length * 0.34) return null;
  const distinct = [...new Map(rects.map((rect) => [`${rect.x} ${rect.y} ${rect.w} ${rect.h}`, rect])).values()];
  let area = 0;
  let shared = 0;
  let drawn = 0;
  let filled = 0;
  for (let k = 0; k < distinct.length; k++) {
    const rect = distinct[k] as Rect;
    area += rect.w * rect.h;
    for (let other = 0; other < k; other++) shared += commonArea(rect, distinct[other] as Rect);
    const here = drawnIn(coverage, rect);
    drawn += here;
    if (here > 0) filled++;
  }
  const total = drawnIn(coverage, { x: 0, y: 0, w: coverage.width, h: coverage.height });
  const explained = total === 0 ? 0 : Math.max(0, Math.min(1, drawn / total) - shared / Math.max(1, area));
  const dense = area === 0 ? 0 : drawn / area;
  // One rectangle for all records says nothing.
  const unlike = distinct.length / Math.max(1, rects.length);
  const score =
    (2 * rects.length) / records.length +
    (0.5 * given) / records.length -
    Math.min(2, (3 * shared) / Math.max(1, area)) +
    filled / distinct.length +
    1.5 * explained +
    0.4 * dense +
    0.4 * unlike -
    (rects.length > 1 && distinct.length === 1 ? 1.5 : 0);
  return { score, placed: rects.length };
}

/** Of a picture that nobody has seen nothing counts as drawn: only the rectangles among themselves can tell. */
function drawnIn(coverage: Coverage, rect: Rect): number {
  return isSeen(coverage) ? countDrawn(coverage, rect) : 0;
}

function commonArea(a: Rect, b: Rect): number {
  if (!overlaps(a, b)) return 0;
  return (Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) * (Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));
}
