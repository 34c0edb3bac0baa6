/** What the fields of frames' records mean beside the rectangle: told by names, and by what their numbers are equal to or lie within. */
import type { FrameField, Reading, Size } from "../model";
import { numberOf } from "../notation";
import type { MetadataRecord, RecordGroup } from "./groups";
import { INSET_WAYS, insetOf } from "./insets";
import { type FieldPaths, numberAt, valueAt } from "./values";
import {
  CLIP_WORDS,
  FACING_WORDS,
  FULL_WORDS,
  INSET_WORDS,
  lastPart,
  NAME_WORDS,
  ORIGIN_WORDS,
  PICTURE_WORDS,
  says,
  sideOf,
  TIME_WORDS,
  TURNED_WORDS,
} from "./words";

export interface OtherFields {
  readonly fields: FieldPaths;
  readonly insetAs?: Reading["insetAs"];
  readonly marks?: Reading["marks"];
  /** What could as well be meant otherwise, in words for people. */
  readonly doubts: readonly string[];
}

/** `sizesOf` gives the upright sizes of the records by the field that says which are turned, null where there is no rectangle. */
export function otherFields(
  group: RecordGroup,
  rectangle: FieldPaths,
  sizesOf: (turned: string | undefined) => readonly (Size | null)[],
  up: boolean,
): OtherFields {
  const { records } = group;
  const used = new Set(Object.values(rectangle));
  const paths = commonFields(records).filter((path) => !used.has(path));
  const found: FieldPaths = {};
  const doubts: string[] = [];
  const take = (field: FrameField, path: string | null | undefined) => {
    if (path === null || path === undefined || used.has(path)) return false;
    found[field] = path;
    used.add(path);
    return true;
  };
  const typed = (path: string, type: "number" | "string" | "boolean") => records.some((record) => typeof record.fields.get(path) === type);
  take("name", nameField(records, rectangle, group.keyed));
  const turned = turnedField(records, paths, typed);
  if (turned && take("turned", turned.path) && turned.guessed)
    doubts.push(`${turned.path} is taken for whether a frame is turned, being the only yes or no`);
  const numbers = paths.filter((path) => !used.has(path) && isNumeric(records, path));
  const pairs = pairsOf(numbers, rectangle);
  const sizes = sizesOf(found.turned);
  const free = (pair: Pair) => !used.has(pair.a) && !used.has(pair.b);
  // A rectangle of the very size of the trimmed one is where that sits in the whole.
  const twin = pairs.find(
    (pair) => pair.size && free(pair) && isSameSize(records, pair, sizes) && pairs.some((each) => isPlaceOf(each, pair)),
  );
  const twinPlace = twin && pairs.find((each) => isPlaceOf(each, twin));
  if (twin) used.add(twin.a).add(twin.b);
  // The origin before sizes and insets: its words are the plainest, and shares of a frame are nothing else.
  const points = pairs.filter((pair) => pair.place && free(pair) && pair !== twinPlace);
  const origin = points.find(({ stem }) => says(stem, ORIGIN_WORDS)) ?? points.find((pair) => isShares(records, pair));
  if (origin) [take("originX", origin.a), take("originY", origin.b)];
  const wholes = pairs.filter((pair) => pair.size && free(pair) && pair !== twin && isAtLeast(records, pair, sizes));
  const wholesNamed = wholes.filter(({ stem }) => says(stem, FULL_WORDS));
  const whole = largest(
    records,
    wholesNamed.length > 0
      ? wholesNamed
      : wholes.filter((pair) => pair.named || isLarger(records, pair, sizes) || isSameSize(records, pair, sizes)),
  );
  if (whole) [take("fullW", whole.a), take("fullH", whole.b)];
  let insetAs: Reading["insetAs"];
  if (whole || twinPlace) {
    const places = pairs.filter((pair) => pair.place && free(pair));
    const inset =
      twinPlace ??
      places.find(({ stem, named }) => named && says(stem, INSET_WORDS)) ??
      places.find((pair) => whole && insetWays(records, pair, whole, sizes, up).length > 0);
    if (inset && take("insetX", inset.a)) {
      take("insetY", inset.b);
      const ways = whole ? insetWays(records, inset, whole, sizes, up) : [];
      insetAs = ways[0]?.as === "corner" ? undefined : ways[0]?.as;
      if (ways[1]?.unlike)
        doubts.push(
          `insets (${inset.a}, ${inset.b}) may be counted ${WAY_WORDS[ways[1].as]} instead of ${WAY_WORDS[ways[0]?.as ?? "corner"]}`,
        );
    }
  }
  if (!origin) {
    // Whatever it is called: a pair that stands inside every frame, where an inset is found already or none is needed.
    const wholes = whole ? records.map((record) => ({ w: numberAt(record, whole.a) ?? 0, h: numberAt(record, whole.b) ?? 0 })) : sizes;
    const left = likeliestOrigin(
      records,
      pairs.filter(
        (pair) =>
          pair.place && free(pair) && isOriginLike(records, pair, wholes) && !pairs.some((each) => each.size && isPlaceOf(pair, each)),
      ),
      wholes,
    );
    if (left && !says(left.stem, ["offset", "position", "world"])) {
      take("originX", left.a);
      take("originY", left.b);
      if (!left.named) doubts.push(`${left.a} and ${left.b} are taken for the origin by their numbers alone`);
    }
  }
  const time = timeField(
    records,
    paths.filter((path) => !used.has(path)),
  );
  if (time && take("time", time.path) && time.guessed) doubts.push(`${time.path} is taken for the time by its numbers alone`);
  take(
    "picture",
    [...paths.filter((path) => typed(path, "string")), ...aroundFields(records)].find(
      (path) => says(lastPart(path.replace("../", "")), PICTURE_WORDS) && looksLikePictures(records, path),
    ) ??
      // Whatever it is called: what stands around frames and ends as a picture's name does is theirs.
      aroundFields(records).find((path) => looksLikePictures(records, path)),
  );
  take(
    "clip",
    paths.find((path) => typed(path, "string") && says(lastPart(path), CLIP_WORDS) && repeats(records, path)),
  );
  const facing = paths.find((path) => !used.has(path) && says(lastPart(path), FACING_WORDS) && repeats(records, path));
  if (found.clip) take("facing", facing);
  const marks = marksIn(
    records,
    pairs.filter((pair) => pair.named && free(pair)),
    sizes,
  );
  return { fields: found, ...(insetAs ? { insetAs } : {}), ...(marks.length > 0 ? { marks } : {}), doubts };
}

/** Boxes and points of frames under names of their own: what is left of places and sizes, near the frame. */
function marksIn(records: readonly MetadataRecord[], pairs: readonly Pair[], sizes: Sizes): NonNullable<Reading["marks"]> {
  const marks: NonNullable<Reading["marks"]> = [];
  const taken = new Set<string>();
  for (const place of pairs) {
    const name = wordFor(place.stem);
    if (!place.place || taken.has(place.a) || name === null) continue;
    const near = share(records, sizes, (a, b, { w, h }) => a >= -w && b >= -h && a <= 3 * w && b <= 3 * h, place) >= 0.9;
    if (!near) continue;
    const size = pairs.find((each) => each.size && !taken.has(each.a) && isPlaceOf(place, each));
    for (const path of [place.a, place.b, ...(size ? [size.a, size.b] : [])]) taken.add(path);
    // A list of two numbers may be a size; only a list of four, or words, say more.
    if (!size && place.size) continue;
    marks.push({ name, x: place.a, y: place.b, ...(size ? { w: size.a, h: size.b } : {}) });
  }
  return marks.slice(0, 64);
}

/** The name of a mark from the words in front of its sides; null where they say something else of a frame. */
function wordFor(stem: string): string | null {
  const name = stem.replace(/\.$/, "").split(".").pop()?.trim() ?? "";
  if (name === "" || /^\d+$/.test(name) || name.length > 60) return null;
  return says(name, [...FULL_WORDS, ...INSET_WORDS, ...ORIGIN_WORDS, "rect", "frame", "scale", "position", "world", "border"])
    ? null
    : name;
}

const WAY_WORDS: Readonly<Record<NonNullable<Reading["insetAs"]>, string>> = {
  corner: "from the top left",
  negated: "as negative numbers",
  bottom: "up from the bottom",
  centre: "from the middle downward",
  "centre-up": "from the middle upward",
};

export function commonFields(records: readonly MetadataRecord[]): string[] {
  const counts = new Map<string, number>();
  for (const { fields } of records) for (const path of fields.keys()) counts.set(path, (counts.get(path) ?? 0) + 1);
  return [...counts].filter(([, count]) => count >= records.length * 0.3).map(([path]) => path);
}

function isNumeric(records: readonly MetadataRecord[], path: string): boolean {
  return records.some((record) => {
    const value = record.fields.get(path);
    return typeof value === "number" || (typeof value === "string" && numberOf(value) !== null && !/^[+-]?0\d/.test(value));
  });
}

/** Texts that tell the records apart: the key that they stand under, or a field. */
export function nameField(records: readonly MetadataRecord[], rectangle: FieldPaths, keyed: boolean): string | null {
  const used = new Set(Object.values(rectangle));
  const texts = commonFields(records).filter(
    (path) => !used.has(path) && records.every((record) => ["string", "number", "undefined"].includes(typeof record.fields.get(path))),
  );
  const count = (path: string) => new Set(records.map((record) => record.fields.get(path))).size;
  const distinct = (path: string) => count(path) >= records.length * 0.9;
  const isText = (path: string) => records.some((record) => typeof record.fields.get(path) === "string");
  const withoutHashes = texts.filter((path) => !looksRandom(records, path));
  const named = withoutHashes.filter((path) => says(lastPart(path), NAME_WORDS) && distinct(path) && isText(path));
  // Keys that are the same everywhere name a part of each record, not the record; those that we counted ourselves name nothing.
  const isNaming = new Set(records.map(({ keys }) => keys.join("\n"))).size === records.length;
  const counted = records.every(
    ({ keys }) => / \(\d+\)$/.test(keys.at(-1) as string) || records[0]?.keys.at(-1) === keys.at(-1)?.replace(/ \(\d+\)$/, ""),
  );
  const numbered = records.every(({ keys }) => /^\d+$/.test(keys.at(-1) as string));
  const byKey = keyed && isNaming && !counted && new Set(records.map(({ keys }) => keys.at(-1))).size > 1;
  // Beside plain numbers as keys, a name of its own is the name.
  if (byKey && !(numbered && named.length > 0)) return "$key";
  return (
    named[0] ??
    withoutHashes.find((path) => isText(path) && distinct(path) && records.length > 1) ??
    // Names that only their sections tell apart, also bare numbers where they are called a name.
    withoutHashes.find((path) => says(lastPart(path), ["name", "label", "title"]) && records.length > 1 && count(path) > 1) ??
    withoutHashes.find((path) => isText(path) && says(lastPart(path), NAME_WORDS) && records.length > 1 && count(path) > 1) ??
    (byKey ? "$key" : null)
  );
}

/** Hashes, identifiers and colours are no names. */
function looksRandom(records: readonly MetadataRecord[], path: string): boolean {
  const values = records.map((record) => record.fields.get(path)).filter((value): value is string => typeof value === "string");
  if (values.length === 0) return false;
  const isColour = values.every((value) => /^(#|0x)[0-9a-f]{3,8}$/i.test(value));
  const isHash = values.every(
    (value) => /^[0-9a-f]{6,}$|^[0-9a-f]{8}-[0-9a-f-]{20,}$|^[A-Za-z0-9+/]{20,}={0,2}$/i.test(value) && /\d/.test(value),
  );
  return isColour || isHash;
}

function turnedField(
  records: readonly MetadataRecord[],
  paths: readonly string[],
  typed: (path: string, type: "number" | "string" | "boolean") => boolean,
): { path: string; guessed: boolean } | null {
  const named = paths.find(
    (path) => says(lastPart(path), TURNED_WORDS) && (typed(path, "boolean") || isQuarterTurns(records, path) || isYesOrNo(records, path)),
  );
  if (named !== undefined) return { path: named, guessed: false };
  const flags = paths.filter((path) => typed(path, "boolean"));
  const [only] = flags;
  // A yes or no that differs and that no word calls something else.
  const free =
    flags.length === 1 &&
    only !== undefined &&
    !says(lastPart(only), OTHER_FLAGS) &&
    records.some((record) => record.fields.get(only) === true);
  return free ? { path: only, guessed: true } : null;
}

const OTHER_FLAGS = [
  "trim",
  "trimmed",
  "cropped",
  "loop",
  "looping",
  "repeat",
  "visible",
  "hidden",
  "enabled",
  "active",
  "mirror",
  "mirrored",
  "flip",
  "flipped",
  "polygon",
  "alpha",
  "packed",
  "smooth",
];

function isQuarterTurns(records: readonly MetadataRecord[], path: string): boolean {
  return records.every((record) => [0, 1, 90, 180, 270, -90, null].includes(numberAt(record, path)));
}

function isYesOrNo(records: readonly MetadataRecord[], path: string): boolean {
  return records.every((record) =>
    /^(yes|no|true|false|y|n|cw|ccw|none|clockwise|counter-?clockwise)$/i.test(String(valueAt(record, path))),
  );
}

/** Two numbers that belong together: a place, a size, or either where nothing says which. */
interface Pair {
  readonly stem: string;
  readonly a: string;
  readonly b: string;
  readonly place: boolean;
  readonly size: boolean;
  /** Whether words say that they are a place or a size. */
  readonly named: boolean;
}

function pairsOf(paths: readonly string[], rectangle: FieldPaths): Pair[] {
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
      // Pairs of a longer list of mixed values stand anywhere; of a list of two or four they begin at 0 and 2.
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
  // Neighbours that no word tells.
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
const PLAIN_WORDS = [
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

/** Whether a place stands before a size as the two halves of one rectangle. */
function isPlaceOf(place: Pair, size: Pair): boolean {
  if (!place.place || place === size || place.stem !== size.stem) return false;
  const number = (path: string) => Number(/(\d+)$/.exec(path)?.[1] ?? Number.NaN);
  if (Number.isNaN(number(place.a))) return !place.size;
  return number(place.a) === number(size.a) - 2;
}

type Sizes = readonly (Size | null)[];

function share(
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

function isSameSize(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  const varied = new Set(sizes.map((size) => (size ? `${size.w} ${size.h}` : ""))).size > 1;
  const oblong = sizes.some((size) => size !== null && size.w !== size.h);
  return (varied || pair.named || pair.stem !== "" || oblong) && share(records, sizes, (a, b, { w, h }) => a === w && b === h, pair) >= 0.9;
}

/** Whether sizes are nowhere below the rectangle's own: the size before trimming. */
function isAtLeast(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
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

function isLarger(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  return share(records, sizes, (a, b, { w, h }) => a > w || b > h, pair) > 0;
}

function isOriginLike(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): boolean {
  const values = records.flatMap((record) => [numberAt(record, pair.a), numberAt(record, pair.b)]).filter((each) => each !== null);
  const isShare = values.every((each) => each >= -0.5 && each <= 1.5) && values.some((each) => !Number.isInteger(each));
  if (isShare) return true;
  if (!pair.named && (new Set(values).size < 2 || values.every((each) => each === 0))) return false;
  return share(records, sizes, (a, b, { w, h }) => a >= 0 && b >= 0 && a <= w * 1.5 && b <= h * 1.5, pair) >= 0.99;
}

/** Whether both are shares of something: within it, and not all whole. */
function isShares(records: readonly MetadataRecord[], { a, b }: Pair): boolean {
  const values = records.flatMap((record) => [numberAt(record, a), numberAt(record, b)]);
  return values.every((each) => each !== null && each >= 0 && each <= 1) && values.some((each) => !Number.isInteger(each));
}

function isConstant(records: readonly MetadataRecord[], { a, b }: Pair): boolean {
  const [first] = records;
  return (
    first !== undefined &&
    records.every((record) => numberAt(record, a) === numberAt(first, a) && numberAt(record, b) === numberAt(first, b))
  );
}

/** Share of frames in which a point is near the middle or under the feet. */
function usualOrigin(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): number {
  return share(records, sizes, (a, b, { w, h }) => Math.abs(a - w / 2) <= w / 5 && (b >= h * 0.7 || Math.abs(b - h / 2) <= h / 5), pair);
}

/** Of several points the one that is most often near the middle or under the feet. */
function likeliestOrigin(records: readonly MetadataRecord[], points: readonly Pair[], sizes: Sizes): Pair | undefined {
  const fit = (pair: Pair) => usualOrigin(records, pair, sizes);
  // A point with a name of its own is a point; only one that stands where origins do is taken for one.
  const pairs = points.filter((pair) => !pair.named || wordFor(pair.stem) === null || fit(pair) >= 0.8);
  return pairs.toSorted((a, b) => fit(b) - fit(a))[0];
}

function largest(records: readonly MetadataRecord[], pairs: readonly Pair[]): Pair | null {
  const sum = ({ a, b }: Pair) => records.reduce((total, record) => total + (numberAt(record, a) ?? 0) + (numberAt(record, b) ?? 0), 0);
  const named = pairs.filter((pair) => pair.named);
  if (named.length > 0) return named.toSorted((a, b) => sum(b) - sum(a))[0] ?? null;
  // Frames of one character mostly have one size before they are trimmed.
  return pairs.find((pair) => isConstant(records, pair)) ?? pairs[0] ?? null;
}

interface InsetWay {
  readonly as: NonNullable<Reading["insetAs"]>;
  /** Whether it puts any frame elsewhere than the first way does. */
  readonly unlike: boolean;
}

/**
 * Ways of counting insets by which every trimmed rectangle lies in its whole, the likeliest first; a second one only if it is about as likely.
 * Figures of one clip stand on one line: the way by which their lower edges differ least is likelier.
 */
function insetWays(records: readonly MetadataRecord[], inset: Pair, whole: Pair, sizes: Sizes, up: boolean): InsetWay[] {
  const found: { as: InsetWay["as"]; tops: number[]; score: number }[] = [];
  for (const as of INSET_WAYS) {
    const tops: number[] = [];
    const heights: number[] = [];
    let held = 0;
    let asked = 0;
    for (const [k, record] of records.entries()) {
      const size = sizes[k];
      const [x, y] = [numberAt(record, inset.a), numberAt(record, inset.b)];
      const full = { w: numberAt(record, whole.a) ?? 0, h: numberAt(record, whole.b) ?? 0 };
      if (!size || x === null || y === null) continue;
      asked++;
      const at = insetOf(x, y, size, full, as);
      const given = as === "corner" || as === "negated" || as === "bottom";
      if (
        at.x >= 0 &&
        at.y >= 0 &&
        at.x + size.w <= full.w &&
        at.y + size.h <= full.h &&
        (!given || (Number.isInteger(x) && Number.isInteger(y)))
      )
        held++;
      tops.push(at.y);
      heights.push(size.h);
    }
    if (asked === 0 || held < asked * 0.99) continue;
    found.push({ as, tops, score: PRIORS[as] + (as === "bottom" && up ? 0.5 : 0) - unevenness(tops, heights) });
  }
  const [best, ...others] = found.toSorted((a, b) => b.score - a.score);
  if (!best) return [];
  const rival = others.find((each) => each.tops.some((y, k) => y !== best.tops[k]));
  const close = rival !== undefined && best.score - rival.score < 0.25;
  return [{ as: best.as, unlike: false }, ...(close ? [{ as: rival.as, unlike: true }] : [])];
}

/** How usual each way is. */
const PRIORS: Readonly<Record<InsetWay["as"], number>> = { corner: 0, negated: -0.3, bottom: -0.3, "centre-up": -0.4, centre: -0.5 };

/** How much lower edges differ within runs of frames, 0 to 1: by how much their heights do. */
function unevenness(tops: readonly number[], heights: readonly number[]): number {
  let varied = 0;
  let usual = 0;
  for (let k = 1; k < tops.length; k++) {
    const [top, before, h, last] = [tops[k], tops[k - 1], heights[k], heights[k - 1]] as [number, number, number, number];
    varied += Math.abs(top + h - before - last);
    usual += Math.abs(h - last) + 1;
  }
  // Of a few frames nothing can be said.
  return usual === 0 ? 0 : Math.min(1, varied / usual) * Math.min(1, tops.length / 8);
}

function timeField(records: readonly MetadataRecord[], paths: readonly string[]): { path: string; guessed: boolean } | null {
  const isTime = (path: string) =>
    records.some((record) => {
      const value = record.fields.get(path);
      return (typeof value === "number" && value > 0) || (typeof value === "string" && /^\d+\.?\d*\s*(ms|s|msec|sec)$/i.test(value));
    });
  const named = paths.find((path) => isTime(path) && (says(lastPart(path), TIME_WORDS) || says(lastPart(path), TICK_WORDS)));
  const withUnit = named ?? paths.find((path) => records.every((record) => /^\d+\.?\d*\s*m?s$/i.test(String(record.fields.get(path)))));
  if (withUnit !== undefined) return { path: withUnit, guessed: false };
  // Whatever it is called: the one number that is left, of few values, all of them times that people choose.
  const left = paths.filter((path) => isTime(path) && sideOf(path) === null && !says(lastPart(path), PLAIN_WORDS));
  const likely = left.filter((path) => {
    const values = records.map((record) => record.fields.get(path));
    const plausible = values.every((value) => typeof value === "number" && value >= 16 && value <= 5000 && value % 5 === 0);
    return plausible && new Set(values).size <= Math.max(1, records.length / 2);
  });
  return likely.length === 1 ? { path: likely[0] as string, guessed: true } : null;
}

const TICK_WORDS = ["tick", "ticks", "jiffies", "vblanks"];

function aroundFields(records: readonly MetadataRecord[]): string[] {
  return (records[0]?.around ?? []).flatMap((outer) =>
    [...outer].filter(([, value]) => typeof value === "string").map(([path]) => `../${path}`),
  );
}

function looksLikePictures(records: readonly MetadataRecord[], path: string): boolean {
  const values = new Set(records.map((record) => valueAt(record, path)));
  const few = path.startsWith("../") || values.size <= Math.max(1, records.length / 2);
  return few && [...values].some((value) => typeof value === "string" && /\.(png|webp|gif|jpe?g|avif|bmp|apng|tga)$/i.test(value));
}

function repeats(records: readonly MetadataRecord[], path: string): boolean {
  return new Set(records.map((record) => record.fields.get(path))).size < records.length;
}
