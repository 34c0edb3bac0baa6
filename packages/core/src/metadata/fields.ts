/** Identifies the other fields of frame records, by their names and by what their numbers equal or lie within. */
import type { FrameField, Reading, Size } from "../model";
import { numberOf } from "../notation";
import { inLanguage, t } from "../words";
import { eventField } from "./events";
import type { MetadataRecord, RecordGroup } from "./groups";
import { insetWays } from "./inset-ways";
import { commonFields, nameField } from "./name-field";
import {
  isAtLeast,
  isConstant,
  isLarger,
  isOriginLike,
  isPlaceOf,
  isSameSize,
  isShares,
  type Pair,
  PLAIN_WORDS,
  pairsOf,
  type Sizes,
  share,
} from "./pairs";
import { type FieldPaths, numberAt, valueAt } from "./values";
import {
  CLIP_WORDS,
  FACING_WORDS,
  FULL_WORDS,
  INSET_WORDS,
  lastPart,
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

/** `sizesOf` gives the records' upright sizes, depending on the field that says which are turned; null without a rectangle. */
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
    doubts.push(t("{path} is read as whether a frame is turned, because it is the only yes or no", { path: turned.path }));
  const numbers = paths.filter((path) => !used.has(path) && isNumeric(records, path));
  const pairs = pairsOf(numbers, rectangle);
  const sizes = sizesOf(found.turned);
  const free = (pair: Pair) => !used.has(pair.a) && !used.has(pair.b);
  // A rectangle with exactly the trimmed size is its position in the untrimmed frame.
  const twin = pairs.find(
    (pair) => pair.size && free(pair) && isSameSize(records, pair, sizes) && pairs.some((each) => isPlaceOf(each, pair)),
  );
  const twinPlace = twin && pairs.find((each) => isPlaceOf(each, twin));
  if (twin) used.add(twin.a).add(twin.b);
  // The origin before sizes and insets: its words are the clearest, and fractions of a frame mean nothing else.
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
          t("insets ({a}, {b}) may be counted {how} instead of {otherwise}", {
            a: inset.a,
            b: inset.b,
            how: inLanguage(WAY_WORDS[ways[1].as]),
            otherwise: inLanguage(WAY_WORDS[ways[0]?.as ?? "corner"]),
          }),
        );
    }
  }
  if (!origin) {
    // Under any name: a pair that lies inside every frame, if an inset is already known or unnecessary.
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
      if (!left.named) doubts.push(t("{a} and {b} are read as the origin by their numbers alone", { a: left.a, b: left.b }));
    }
  }
  const time = timeField(
    records,
    paths.filter((path) => !used.has(path)),
  );
  if (time && take("time", time.path) && time.guessed)
    doubts.push(t("{path} is read as the duration by its numbers alone", { path: time.path }));
  take(
    "picture",
    [...paths.filter((path) => typed(path, "string")), ...aroundFields(records)].find(
      (path) => says(lastPart(path.replace("../", "")), PICTURE_WORDS) && looksLikePictures(records, path),
    ) ??
      // Under any name: text around frames that ends like a picture's file name.
      aroundFields(records).find((path) => looksLikePictures(records, path)),
  );
  take(
    "clip",
    paths.find((path) => typed(path, "string") && says(lastPart(path), CLIP_WORDS) && repeats(records, path)),
  );
  const facing = paths.find((path) => !used.has(path) && says(lastPart(path), FACING_WORDS) && repeats(records, path));
  if (found.clip) take("facing", facing);
  take("event", eventField(records, used));
  const marks = marksIn(
    records,
    pairs.filter((pair) => pair.named && free(pair)),
    sizes,
  );
  return { fields: found, ...(insetAs ? { insetAs } : {}), ...(marks.length > 0 ? { marks } : {}), doubts };
}

/** Named boxes and points of frames: remaining positions and sizes near the frame. */
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

/** The name of a mark from the words before its sides; null if they describe something else of a frame. */
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
  centre: "from the centre downward",
  "centre-up": "from the centre upward",
};

function isNumeric(records: readonly MetadataRecord[], path: string): boolean {
  return records.some((record) => {
    const value = record.fields.get(path);
    return typeof value === "number" || (typeof value === "string" && numberOf(value) !== null && !/^[+-]?0\d/.test(value));
  });
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
  // A boolean that varies and has no other meaning by name.
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

/** Share of frames in which a point is near the middle or under the feet. */
function usualOrigin(records: readonly MetadataRecord[], pair: Pair, sizes: Sizes): number {
  return share(records, sizes, (a, b, { w, h }) => Math.abs(a - w / 2) <= w / 5 && (b >= h * 0.7 || Math.abs(b - h / 2) <= h / 5), pair);
}

/** Of several points the one that is most often near the middle or under the feet. */
function likeliestOrigin(records: readonly MetadataRecord[], points: readonly Pair[], sizes: Sizes): Pair | undefined {
  const fit = (pair: Pair) => usualOrigin(records, pair, sizes);
  // A named point is a mark; only one where origins usually are is read as the origin.
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

function timeField(records: readonly MetadataRecord[], paths: readonly string[]): { path: string; guessed: boolean } | null {
  const isTime = (path: string) =>
    records.some((record) => {
      const value = record.fields.get(path);
      return (typeof value === "number" && value > 0) || (typeof value === "string" && /^\d+\.?\d*\s*(ms|s|msec|sec)$/i.test(value));
    });
  const named = paths.find((path) => isTime(path) && (says(lastPart(path), TIME_WORDS) || says(lastPart(path), TICK_WORDS)));
  const withUnit = named ?? paths.find((path) => records.every((record) => /^\d+\.?\d*\s*m?s$/i.test(String(record.fields.get(path)))));
  if (withUnit !== undefined) return { path: withUnit, guessed: false };
  // Under any name: the one remaining number with few values, all of them typical durations.
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
