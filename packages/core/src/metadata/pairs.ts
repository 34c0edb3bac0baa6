/** Finds pairs of numbers in records, and their possible meanings from what they equal or lie within. */
import type { Size } from "../model";
import type { MetadataRecord } from "./groups";
import { type FieldPaths, numberAt } from "./values";
import { lastPart, says, sideOf, TIME_WORDS } from "./words";

/** Two numbers that belong together: a place, a size, or either where nothing says which. */
export interface Pair {
  readonly stem: string;
  readonly a: string;
  readonly b: string;
  readonly place: boolean;
  readonly size: boolean;
  /** Whether words say that they are a place or a size. */
  readonly named: boolean;
}

export function pairsOf(paths: readonly string[], rectangle: FieldPaths): Pair[] {
  const rectStem = rectangle.x === undefined ? null : (sideOf(rectangle.x)?.stem ?? null);
  const pairs: Pair[] = [];
  const has = new Set(paths);
  const taken = new Set<string>();
  const add = (pair: Pair) => {
    pairs.push(pair);
    taken.add(pair.a).add(pair.b);
  };
  const byStem = new Map<string, Partial<Record<string, string>>>();
  for (const path of paths) {
    const list = /^(.*?)\.?(\d+)$/.exec(path);
    if (list && (list[1] === "" || path.includes("."))) {
      const k = Number(list[2]);
      const next = path.replace(/\d+$/, String(k + 1));
      if (!has.has(next)) continue;
      const third = has.has(path.replace(/\d+$/, String(k + 2)));
      // Pairs in a longer list of mixed values start anywhere; in a list of two or four at 0 and 2.
      if (k % 2 === 0 || list[1] === "" || third)
        add({ stem: list[1] as string, a: path, b: next, place: true, size: true, named: (list[1] as string) !== "" });
      continue;
    }
    const side = sideOf(path);
    if (!side) continue;
    const sides = byStem.get(side.stem) ?? {};
    byStem.set(side.stem, sides);
    sides[side.side] ??= path;
  }
  for (const [stem, { x, y, w, h }] of byStem) {
    if (x && y && stem !== rectStem) add({ stem, a: x, b: y, place: true, size: false, named: true });
    if (w && h && stem !== rectStem) add({ stem, a: w, b: h, place: false, size: true, named: true });
  }
  // Unnamed neighbours.
  const rest = paths.filter(
    (path) => !taken.has(path) && !/(^|\.)\d+$/.test(path) && sideOf(path) === null && !says(lastPart(path), PLAIN_WORDS),
  );
  for (let k = 0; k + 1 < rest.length; k++) {
    const [a, b] = [rest[k] as string, rest[k + 1] as string];
    if (a.slice(0, a.lastIndexOf(".") + 1) !== b.slice(0, b.lastIndexOf(".") + 1)) continue;
    pairs.push({ stem: a.slice(0, Math.max(0, a.lastIndexOf("."))), a, b, place: true, size: true, named: false });
  }
  return pairs;
}

/** Words of numbers that are no place and no size. */
export const PLAIN_WORDS = [
  ...TIME_WORDS,
  "id",
  "index",
  "idx",
  "order",
  "version",
  "page",
  "scale",
  "hash",
  "colour",
  "color",
  "z",
  "layer",
  "depth",
  "ratio",
];

/** Whether a position precedes a size as the two halves of one rectangle. */
export function isPlaceOf(place: Pair, size: Pair): boolean {
  if (!place.place || place === size || place.stem !== size.stem) return false;
  const number = (path: string) => Number(/(\d+)$/.exec(path)?.[1] ?? Number.NaN);
  if (Number.isNaN(number(place.a))) return !place.size;
  return number(place.a) === number(size.a) - 2;
}

export type Sizes = readonly (Size | null)[];

export function share(
  records: readonly MetadataRecord[],
  sizes: Sizes,
  holds: (a: number, b: number, size: Size) => boolean,
  { a, b }: Pair,
): number {
  let asked = 0;
  let held = 0;
  for (const [k, record] of records.entries()) {
    const size = sizes[k];
    const [first, second] = [numberAt(record, a), numberAt(record, b)];
    if (!size || first === null || second === null) continue;
    asked++;
    if (holds(first, second, size)) held++;
  }
  return asked === 0 ? 0 : held / asked;
}

export function isSameSize(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  const varied = new Set(sizes.map((size) => (size ? `${size.w} ${size.h}` : ""))).size > 1;
  const oblong = sizes.some((size) => size !== null && size.w !== size.h);
  return (varied || pair.named || pair.stem !== "" || oblong) && share(records, sizes, (a, b, { w, h }) => a === w && b === h, pair) >= 0.9;
}

/** Whether sizes are nowhere below the rectangle's own: the size before trimming. */
export function isAtLeast(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  const most = Math.max(1, ...sizes.map((size) => (size ? Math.max(size.w, size.h) : 0)));
  const wanted = pair.named ? 0.75 : 0.99;
  return (
    share(
      records,
      sizes,
      (a, b, { w, h }) => Number.isInteger(a) && Number.isInteger(b) && a >= w && b >= h && a <= most * 8 && b <= most * 8,
      pair,
    ) >= wanted
  );
}

export function isLarger(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  return share(records, sizes, (a, b, { w, h }) => a > w || b > h, pair) > 0;
}

export function isOriginLike(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  const values = records.flatMap((record) => [numberAt(record, pair.a), numberAt(record, pair.b)]).filter((each) => each !== null);
  const isShare = values.every((each) => each >= -0.5 && each <= 1.5) && values.some((each) => !Number.isInteger(each));
  if (isShare) return true;
  if (!pair.named && (new Set(values).size < 2 || values.every((each) => each === 0))) return false;
  return share(records, sizes, (a, b, { w, h }) => a >= 0 && b >= 0 && a <= w * 1.5 && b <= h * 1.5, pair) >= 0.99;
}

/** Whether both are shares of something: within it, and not all whole. */
export function isShares(records: readonly MetadataRecord[], { a, b }: Pair): boolean {
  const values = records.flatMap((record) => [numberAt(record, a), numberAt(record, b)]);
  return values.every((each) => each !== null && each >= 0 && each <= 1) && values.some((each) => !Number.isInteger(each));
}

export function isConstant(records: readonly MetadataRecord[], { a, b }: Pair): boolean {
  const [first] = records;
  return (
    first !== undefined &&
    records.every((record) => numberAt(record, a) === numberAt(first, a) && numberAt(record, b) === numberAt(first, b))
  );
}
