/** Proposes which fields may be which side of a rectangle: by name, by position in lists, and any four numbers in a likely order. */
import type { Reading } from "../model";
import { numberOf } from "../notation";
import type { MetadataRecord } from "./groups";
import type { FieldPaths, RectReading } from "./values";
import { CELL_WORDS, INDEX_WORDS, says, sideOf, wordsOf } from "./words";

export interface Assignment extends RectReading {
  readonly fields: FieldPaths;
  /** How strongly names and order support it. */
  readonly bonus: number;
  /** Whether its names say it all. */
  readonly told: boolean;
  readonly yAs?: Reading["yAs"];
}

/** Fields that are numbers in most records, possibly with a unit of length, in order of appearance. */
export function numericFields(records: readonly MetadataRecord[]): string[] {
  const counts = new Map<string, number>();
  for (const { fields } of records)
    for (const [path, value] of fields)
      if (typeof value === "number" || (typeof value === "string" && numberOf(value) !== null && !/^[+-]?0\d/.test(value)))
        counts.set(path, (counts.get(path) ?? 0) + 1);
  return [...counts].filter(([, count]) => count >= records.length * 0.5).map(([path]) => path);
}

/** Everything that names, lists and cells allow. */
export function named(numbers: readonly string[], records: readonly MetadataRecord[]): Assignment[] {
  return [...namedSides(numbers, records), ...lists(numbers), ...cells(numbers, records)];
}

interface Sides {
  x?: string;
  y?: string;
  w?: string;
  h?: string;
  right?: string;
  bottom?: string;
}

function sidesByStem(numbers: readonly string[]): Map<string, Sides> {
  const byStem = new Map<string, Sides>();
  for (const path of numbers) {
    const side = sideOf(path);
    if (!side || side.side === "column" || side.side === "row") continue;
    const sides = byStem.get(side.stem) ?? {};
    byStem.set(side.stem, sides);
    if (sides[side.side] === undefined) sides[side.side] = path;
    // The second of two like sides is the far one: x0 and x1, u1 and u2.
    else if (side.side === "x") sides.right ??= path;
    else if (side.side === "y") sides.bottom ??= path;
  }
  return byStem;
}

const RECT_WORDS = ["frame", "rect", "region", "bounds", "area", "box", "crop", "atlas", "cut", "src", "texture", "place", "background"];
const OTHER_WORDS = [
  "source",
  "orig",
  "original",
  "full",
  "untrimmed",
  "logical",
  "collision",
  "hitbox",
  "hit",
  "hurt",
  "hurtbox",
  "body",
  "collider",
  "pivot",
  "origin",
  "anchor",
  "offset",
  "trim",
  "pad",
  "padding",
  "border",
];

function namedSides(numbers: readonly string[], records: readonly MetadataRecord[]): Assignment[] {
  const tries: Assignment[] = [];
  const stems = [...sidesByStem(numbers)];
  for (const [stem, place] of stems) {
    const { x, y } = place;
    if (x === undefined || y === undefined) continue;
    const plain = stem === "" || says(stem, RECT_WORDS) ? 0.4 : 0;
    const other = says(stem, OTHER_WORDS) ? -0.8 : 0;
    const told = other === 0;
    if (place.right !== undefined && place.bottom !== undefined)
      tries.push({ fields: { x, y, right: place.right, bottom: place.bottom }, bonus: 1.2 + plain + other, told });
    for (const [owner, size] of stems)
      if (size.w !== undefined && size.h !== undefined) {
        const own = owner === stem ? 1.2 : 0.6;
        const odd = says(owner, OTHER_WORDS) && owner !== stem ? -0.4 : 0;
        tries.push({ fields: { x, y, w: size.w, h: size.h }, bonus: own + plain + other + odd, told: told && owner === stem });
      }
    for (const [cellW, cellH] of sizesAround(records)) tries.push({ fields: { x, y, cellW, cellH }, bonus: 0.5 + plain + other, told });
  }
  return tries;
}

/** Lists of four numbers, and pairs of lists of two. */
function lists(numbers: readonly string[]): Assignment[] {
  const places = new Map<string, number[]>();
  for (const path of numbers) {
    const match = /^(.*?)\.?(\d+)$/.exec(path);
    if (match && (match[2] as string).length < 3 && (match[1] === "" || path.includes(".")))
      places.set(match[1] as string, [...(places.get(match[1] as string) ?? []), Number(match[2])]);
  }
  const at = (list: string, k: number) => (list === "" ? String(k) : `${list}.${k}`);
  const tries: Assignment[] = [];
  for (const [list, found] of places) {
    const has = new Set(found);
    const named = listBonus(list);
    for (const k of found) {
      if (![1, 2, 3].every((step) => has.has(k + step))) continue;
      const [a, b, c, d] = [at(list, k), at(list, k + 1), at(list, k + 2), at(list, k + 3)] as const;
      const late = k * 0.05;
      tries.push(
        { fields: { x: a, y: b, w: c, h: d }, bonus: 1 + named - late, told: false },
        { fields: { x: a, y: b, right: c, bottom: d }, bonus: 0.9 + named - late, told: false },
        { fields: { x: c, y: d, w: a, h: b }, bonus: 0.5 + named - late, told: false },
        { fields: { x: a, y: c, w: b, h: d }, bonus: 0.4 + named - late, told: false },
        { fields: { x: a, right: b, y: c, bottom: d }, bonus: 0.3 + named - late, told: false },
        // Top, left, height and width; top, right, bottom and left.
        { fields: { y: a, x: b, h: c, w: d }, bonus: 0.35 + named - late, told: false },
        { fields: { y: a, x: b, bottom: c, right: d }, bonus: 0.3 + named - late, told: false },
        { fields: { y: a, right: b, bottom: c, x: d }, bonus: 0.3 + named - late, told: false },
      );
    }
    if (!has.has(0) || !has.has(1)) continue;
    for (const [other, theirs] of places) {
      if (other === list || !theirs.includes(0) || !theirs.includes(1)) continue;
      const sized = says(other, ["size", "wh", "dim", "dimensions", "extent"]) && !says(other, OTHER_WORDS) ? 0.3 : 0;
      const placed = says(list, ["pos", "position", "xy", "at", "topleft", "place", "location"]) ? 0.3 : 0;
      const odd = (says(list, OTHER_WORDS) ? -0.4 : 0) + (says(other, OTHER_WORDS) ? -0.4 : 0);
      const [x, y, a, b] = [at(list, 0), at(list, 1), at(other, 0), at(other, 1)] as const;
      const told = sized > 0 && placed > 0;
      tries.push({ fields: { x, y, w: a, h: b }, bonus: 0.4 + sized + placed + odd, told });
      tries.push({ fields: { x, y, right: a, bottom: b }, bonus: 0.35 + odd, told: false });
      tries.push({ fields: { y: x, x: y, h: a, w: b }, bonus: 0.1 + odd, told: false });
    }
  }
  return tries;
}

function listBonus(list: string): number {
  return (says(list, RECT_WORDS) ? 0.2 : 0) + (says(list, OTHER_WORDS) ? -0.8 : 0);
}

/** As many numbers as are tried in every order; of more only neighbours are. */
const MOST_FREE = 6;
const MOST_NUMBERS = 16;

/** Any four numbers: in every order if there are few, otherwise as two pairs of neighbours. */
export function anyFour(numbers: readonly string[]): Assignment[] {
  const plain = numbers.slice(0, MOST_NUMBERS);
  if (plain.length < 4) return [];
  const fours = plain.length <= MOST_FREE ? orders(plain, 4) : pairsOfNeighbours(plain);
  return fours.flatMap((four) => {
    const [x, y, a, b] = four as [string, string, string, string];
    const bonus = closeness(four, plain);
    return [
      { fields: { x, y, w: a, h: b }, bonus, told: false },
      { fields: { x, y, right: a, bottom: b }, bonus: bonus - 0.1, told: false },
    ];
  });
}

function pairsOfNeighbours(list: readonly string[]): string[][] {
  const found: string[][] = [];
  for (let k = 0; k + 1 < list.length; k++)
    for (let other = 0; other + 1 < list.length; other++) {
      if (Math.abs(k - other) < 2) continue;
      const [a, b, c, d] = [list[k], list[k + 1], list[other], list[other + 1]] as [string, string, string, string];
      // x y w h; y x h w; x w y h; w x h y.
      found.push([a, b, c, d], [b, a, d, c], [a, c, b, d], [b, d, a, c]);
    }
  return found;
}

/** Adjacent fields in this order are likelier. */
function closeness(fields: readonly string[], all: readonly string[]): number {
  const places = fields.map((field) => all.indexOf(field));
  const inOrder = places.every((place, k) => k === 0 || place > (places[k - 1] as number));
  const adjacent = Math.max(...places) - Math.min(...places) === 3;
  // Left before top and width before height, whatever is between.
  const usual = (places[0] as number) < (places[1] as number) && (places[2] as number) < (places[3] as number);
  return (inOrder ? 0.2 : 0) + (adjacent ? 0.15 : 0) + (usual ? 0.15 : 0) - namesAgainst(fields);
}

/** Names with another meaning. */
function namesAgainst([x, y, a, b]: readonly string[]): number {
  const says = (path: string | undefined, sides: readonly string[]) => {
    const side = path === undefined ? null : sideOf(path);
    return side !== null && !sides.includes(side.side);
  };
  return (
    0.5 *
    [says(x, ["x", "column"]), says(y, ["y", "row", "bottom"]), says(a, ["w", "right", "x"]), says(b, ["h", "bottom", "y"])].filter(Boolean)
      .length
  );
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

/** Columns and rows, or running numbers of cells, with what the file says of cells somewhere around. */
function cells(numbers: readonly string[], records: readonly MetadataRecord[]): Assignment[] {
  const tries: Assignment[] = [];
  const around = spacesAround(records);
  const columns = columnsAround(records);
  const told = columns ? { columns } : {};
  const sizes = sizesAround(records).map(([cellW, cellH]) => ({ cellW, cellH, ...around }));
  const column = numbers.find((path) => sideOf(path)?.side === "column");
  const row = numbers.find((path) => sideOf(path)?.side === "row");
  const places = numbers
    .filter((path) => sideOf(path)?.side === "x")
    .map((x): [string, string] => [x, x.replace(/x$/i, (letter) => (letter === "x" ? "y" : "Y"))]);
  if (column && row) places.push([column, row]);
  const list = pairLists(numbers);
  for (const size of sizes) {
    for (const [along, down] of [...places, ...list])
      if (numbers.includes(down))
        tries.push({ fields: { column: along, row: down, ...size }, bonus: along === column ? 1.1 : 0.1, told: along === column });
  }
  if (sizes.length === 0 && column && row) tries.push({ fields: { column, row }, bonus: 0.8, told: true });
  if (column && !row) for (const size of sizes) tries.push({ fields: { column, ...size }, bonus: 0.3, told: true });
  for (const index of numbers.filter((path) => path === "" || says(path, INDEX_WORDS))) {
    for (const size of sizes) tries.push({ fields: { index, ...size, ...told }, bonus: 0.4, told: true });
    if (sizes.length === 0) tries.push({ fields: { index, ...told }, bonus: 0.1, told: false });
  }
  return tries;
}

/** Sizes and cell numbers without known names: counting whole numbers, beside two surrounding numbers that divide the picture. */
export function anyCells(
  numbers: readonly string[],
  records: readonly MetadataRecord[],
  picture: { width: number; height: number },
): Assignment[] {
  const around = [...numbersAround(records), ...constants(numbers, records)].filter(
    ([path]) => !says(path, ["version", "count", "fps", "id"]),
  );
  const sizes: FieldPaths[] = [];
  for (const [cellW, w] of around)
    for (const [cellH, h] of around)
      if (w >= 4 && h >= 4 && w < picture.width && h <= picture.height && picture.width % w === 0 && picture.height % h === 0)
        if (cellW !== cellH || picture.width !== picture.height || w * h < picture.width * picture.height)
          sizes.push({ cellW, cellH, ...columnsOf(around, picture.width / w) });
  const counted = numbers.filter((path) => isCount(records, path)).slice(0, MOST_NUMBERS);
  const tries: Assignment[] = [];
  for (const size of [...sizes.slice(0, 24), {}]) {
    const sized = "cellW" in size ? 0.2 : -0.3;
    const inOrder =
      "cellW" in size && around.findIndex(([path]) => path === size.cellW) > around.findIndex(([path]) => path === size.cellH) ? -0.1 : 0;
    for (const index of counted) tries.push({ fields: { index, ...size }, bonus: sized + inOrder, told: false });
    for (let k = 0; k + 1 < numbers.length && k < MOST_NUMBERS; k++) {
      const [column, row] = [numbers[k] as string, numbers[k + 1] as string];
      if (!arePlaces(records, column, row)) continue;
      tries.push({ fields: { column, row, ...size }, bonus: sized + inOrder + 0.05, told: false });
      tries.push({ fields: { column: row, row: column, ...size }, bonus: sized + inOrder - 0.05, told: false });
    }
  }
  return tries;
}

function columnsOf(around: readonly (readonly [string, number])[], columns: number): FieldPaths {
  const path = around.find(([, value]) => value === columns)?.[0];
  return path === undefined ? {} : { columns: path };
}

/** Numbers that are whole, not negative and mostly unlike each other. */
function isCount(records: readonly MetadataRecord[], path: string): boolean {
  const values = records.map((record) => record.fields.get(path));
  return (
    values.every((value) => typeof value === "number" && Number.isInteger(value) && value >= 0) &&
    new Set(values).size >= values.length * 0.9
  );
}

/** Whether two numbers are a column and a row for each record, no two alike: whole, small, from 0 or 1. */
function arePlaces(records: readonly MetadataRecord[], column: string, row: string): boolean {
  const places = new Set<string>();
  for (const { fields } of records) {
    const [a, b] = [fields.get(column), fields.get(row)];
    if (!Number.isInteger(a) || !Number.isInteger(b) || (a as number) < 0 || (b as number) < 0) return false;
    if ((a as number) > MOST_CELLS_ALONG || (b as number) > MOST_CELLS_ALONG) return false;
    places.add(`${a} ${b}`);
  }
  return places.size >= records.length * 0.9;
}

const MOST_CELLS_ALONG = 256;

/** Positive whole numbers that are the same in all records. */
function constants(numbers: readonly string[], records: readonly MetadataRecord[]): [string, number][] {
  const [first] = records;
  return numbers.flatMap((path): [string, number][] => {
    const value = first?.fields.get(path);
    const same =
      typeof value === "number" && Number.isInteger(value) && value > 0 && records.every(({ fields }) => fields.get(path) === value);
    return same ? [[path, value]] : [];
  });
}

/** Positive whole numbers around the records, the innermost first. */
function numbersAround(records: readonly MetadataRecord[]): [string, number][] {
  const found = new Map<string, number>();
  for (const outer of records[0]?.around ?? [])
    for (const [path, value] of outer)
      if (typeof value === "number" && Number.isInteger(value) && value > 0 && !found.has(`../${path}`) && found.size < 8)
        found.set(`../${path}`, value);
  return [...found];
}

/** Lists of two numbers, which may be a column and a row. */
function pairLists(numbers: readonly string[]): [string, string][] {
  return numbers.flatMap((path): [string, string][] => {
    const list = /^(.*?)\.?0$/.exec(path)?.[1];
    if (list === undefined) return [];
    const at = (k: number) => (list === "" ? String(k) : `${list}.${k}`);
    return numbers.includes(at(1)) && !numbers.includes(at(2)) ? [[at(0), at(1)]] : [];
  });
}

export function columnsAround(records: readonly MetadataRecord[]): string | null {
  for (const outer of records[0]?.around ?? [])
    for (const [path, value] of outer)
      if (typeof value === "number" && value > 0 && says(path, ["columns", "cols", "across", "hframes", "perrow"])) return `../${path}`;
  return null;
}

/** The margin before the first cell and the gap between cells, given once for both sides or separately. */
export function spacesAround(records: readonly MetadataRecord[]): FieldPaths {
  const found: FieldPaths = {};
  for (const outer of records[0]?.around ?? [])
    for (const [path, value] of outer) {
      if (typeof value !== "number" || value < 0) continue;
      const isMargin = says(path, ["margin", "border", "inset", "offset"]);
      const isGap = says(path, ["spacing", "gap", "gutter", "separation", "padding", "between"]);
      if (!isMargin && !isGap) continue;
      const side = sideOf(path)?.side ?? (/\.0$/.test(path) ? "x" : /\.1$/.test(path) ? "y" : null);
      const both = side === null;
      if (both || side === "x" || side === "w") found[isMargin ? "marginX" : "gapX"] ??= `../${path}`;
      if (both || side === "y" || side === "h") found[isMargin ? "marginY" : "gapY"] ??= `../${path}`;
    }
  return found;
}

/** Fields around the records that may be the width and height of a cell. */
export function sizesAround(records: readonly MetadataRecord[]): [string, string][] {
  const [first] = records;
  if (!first) return [];
  const found: [string, string][] = [];
  for (const outer of first.around)
    for (const [path, value] of outer) {
      if (typeof value !== "number" || value <= 0) continue;
      const side = sideOf(path);
      if (side?.side === "w" && says(`${side.stem} ${path}`, CELL_WORDS))
        for (const [other] of outer) {
          const partner = sideOf(other);
          if (partner?.side === "h" && partner.stem === side.stem) found.push([`../${path}`, `../${other}`]);
        }
      else if (/\.0$|^0$/.test(path) && says(path, CELL_WORDS) && outer.has(path.replace(/0$/, "1")))
        found.push([`../${path}`, `../${path.replace(/0$/, "1")}`]);
      else if (!side && says(path, ["size", "cell", "tile"]) && wordsOf(path).length <= 3 && !says(path, ["count", "columns", "rows"]))
        found.push([`../${path}`, `../${path}`]);
    }
  return found;
}
