/**
 * Understanding a metadata file of any make by its structure: which records describe the frames of a picture, and which of their
 * fields mean what. Nothing here knows who wrote the file.
 */
import type { CaravanError, FrameField, Reading } from "../model";
import { recogniseClips } from "./clips";
import { clipsAround } from "./clips-around";
import { type Described, isSeen } from "./described";
import { groupsOf, type MetadataRecord, type RecordGroup } from "./groups";
import { readFrames } from "./read";
import { type FieldPaths, findRectangles, numberAt, valueAt } from "./rectangles";
import { type ParsedMetadata, parseMetadata, problem } from "./tree";
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
  unitOfTimes,
} from "./words";

/**
 * The reading that fits best. Throws `bad-metadata` if none does, with what was tried and what came closest. `where` names the file.
 */
export function recognise(text: string, described: Described, where: string): { parsed: ParsedMetadata; reading: Reading } {
  const parsed = parseMetadata(text, where);
  const groups = groupsOf(parsed.tree);
  let best: { group: RecordGroup; fields: FieldPaths; score: number } | null = null;
  for (const group of groups) {
    const found = findRectangles(group, described.coverage);
    if (!found) continue;
    const depth = group.pattern.split(".").filter((part) => part === "*").length;
    const score =
      found.fit + 0.25 * Math.log2(found.placed) - 0.1 * depth + (nameField(group.records, found.fields, group.keyed) ? 0.3 : 0);
    if (!best || score > best.score) best = { group, fields: found.fields, score };
  }
  if (!best) throw nothingFits(groups, parsed, described, where);
  const { group } = best;
  const rest = otherFields(group, best.fields);
  const plain: Reading = {
    name: readingName(where),
    container: parsed.container,
    frames: group.pattern,
    fields: { ...best.fields, ...rest },
    turnedAs: "upright",
    originAs: originUnit(group.records, rest),
    originUp: false,
    timeAs: timeUnit(group.records, rest.time),
    clips: null,
  };
  const reading: Reading = { ...plain, turnedAs: turnedAs(parsed, plain, described), originUp: countsUp(group.records, plain) };
  const { frames } = readFrames(parsed, reading, described);
  const clips = recogniseClips(groups, reading, frames);
  return { parsed, reading: clips || rest.clip ? { ...reading, clips } : { ...reading, ...clipsAround(group, reading) } };
}

function readingName(where: string): string {
  return (where.split(/[\\/]/).pop() ?? where).replace(/\p{Cc}/gu, "") || "metadata";
}

/** Fields beside the rectangle. */
function otherFields(group: RecordGroup, rectangle: FieldPaths): FieldPaths {
  const { records } = group;
  const used = new Set(Object.values(rectangle));
  const paths = commonFields(records).filter((path) => !used.has(path));
  const found: FieldPaths = {};
  const take = (field: FrameField, path: string | null | undefined) => {
    if (path === null || path === undefined || used.has(path)) return;
    found[field] = path;
    used.add(path);
  };
  const typed = (path: string, type: "number" | "string" | "boolean") => records.some((record) => typeof record.fields.get(path) === type);
  take("name", nameField(records, rectangle, group.keyed));
  take(
    "turned",
    paths.find(
      (path) => says(lastPart(path), TURNED_WORDS) && (typed(path, "boolean") || isQuarterTurns(records, path) || isYesOrNo(records, path)),
    ),
  );
  const pairs = sidePairs(paths.filter((path) => typed(path, "number")));
  const rectStem = rectangle.x === undefined ? null : (sideOf(rectangle.x)?.stem ?? null);
  // The origin first: its words are the plainest.
  const origin = pairs.find(({ stem, x }) => x && stem !== rectStem && says(stem, ORIGIN_WORDS));
  take("originX", origin?.x);
  take("originY", origin?.y);
  const full = pairs.find(({ stem, w }) => w && stem !== rectStem && says(stem, FULL_WORDS) && isAtLeast(records, w, rectangle));
  const anySize = full ?? pairs.find(({ stem, w }) => w && !used.has(w) && stem !== rectStem && isAtLeast(records, w, rectangle));
  // A size beside an inset may be the trimmed one once more; the larger of several is the whole.
  const whole =
    largest(
      records,
      pairs.filter(({ stem, w }) => w && stem !== rectStem && isAtLeast(records, w, rectangle)),
    ) ?? anySize;
  take("fullW", whole?.w);
  take("fullH", whole?.h);
  if (whole) {
    const inset =
      pairs.find(({ stem, x }) => x && !used.has(x) && stem !== rectStem && says(stem, INSET_WORDS)) ??
      pairs.find(({ stem, x }) => x && !used.has(x) && stem !== rectStem);
    take("insetX", inset?.x);
    take("insetY", inset?.y);
  }
  take(
    "time",
    paths.find((path) => typed(path, "number") && says(lastPart(path), TIME_WORDS)),
  );
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
  if (found.clip)
    take(
      "facing",
      paths.find((path) => says(lastPart(path), FACING_WORDS)),
    );
  return found;
}

function commonFields(records: readonly MetadataRecord[]): string[] {
  const counts = new Map<string, number>();
  for (const { fields } of records) for (const path of fields.keys()) counts.set(path, (counts.get(path) ?? 0) + 1);
  return [...counts].filter(([, count]) => count >= records.length * 0.3).map(([path]) => path);
}

/** Texts that tell the records apart: the key that they stand under, or a field. */
function nameField(records: readonly MetadataRecord[], rectangle: FieldPaths, keyed: boolean): string | null {
  // Keys that are the same everywhere name a part of each record, not the record.
  const isNaming = new Set(records.map(({ keys }) => keys.join("\n"))).size === records.length;
  if (keyed && isNaming && new Set(records.map(({ keys }) => keys.at(-1))).size > 1) return "$key";
  const used = new Set(Object.values(rectangle));
  const texts = commonFields(records).filter(
    (path) => !used.has(path) && records.every((record) => ["string", "number", "undefined"].includes(typeof record.fields.get(path))),
  );
  const distinct = (path: string) => new Set(records.map((record) => record.fields.get(path))).size >= records.length * 0.9;
  const isText = (path: string) => records.some((record) => typeof record.fields.get(path) === "string");
  const named = texts.filter((path) => says(lastPart(path), NAME_WORDS) && distinct(path) && isText(path));
  return named[0] ?? texts.find((path) => isText(path) && distinct(path) && records.length > 1) ?? null;
}

interface SidePair {
  readonly stem: string;
  readonly x?: string;
  readonly y?: string;
  readonly w?: string;
  readonly h?: string;
}

/** Places and sizes by stem; lists of two numbers stand for both. */
function sidePairs(paths: readonly string[]): SidePair[] {
  const pairs: SidePair[] = [];
  const byStem = new Map<string, Record<string, string>>();
  for (const path of paths) {
    const list = /^(.*?)\.?0$/.exec(path);
    if (list && paths.includes(path.replace(/0$/, "1"))) {
      const other = path.replace(/0$/, "1");
      pairs.push({ stem: list[1] as string, x: path, y: other, w: path, h: other });
      const third = path.replace(/0$/, "2");
      const fourth = path.replace(/0$/, "3");
      if (paths.includes(third) && paths.includes(fourth)) pairs.push({ stem: list[1] as string, w: third, h: fourth });
      continue;
    }
    const named = sideOf(path);
    if (!named) continue;
    const sides = byStem.get(named.stem) ?? {};
    byStem.set(named.stem, sides);
    sides[named.side] ??= path;
  }
  for (const [stem, { x, y, w, h }] of byStem) {
    if (x && y) pairs.push({ stem, x, y });
    if (w && h) pairs.push({ stem, w, h });
  }
  return pairs;
}

/** Whether sizes are nowhere below the rectangle's own: the size before trimming. Turned records do not count. */
function isAtLeast(records: readonly MetadataRecord[], w: string, rectangle: FieldPaths): boolean {
  let same = 0;
  for (const record of records) {
    const whole = numberAt(record, w);
    const left = numberAt(record, rectangle.x);
    const right = numberAt(record, rectangle.right);
    const own = right !== null && left !== null ? right - left : numberAt(record, rectangle.w);
    if (whole === null || own === null || whole >= own) same++;
  }
  return same >= records.length * 0.75;
}

function largest(records: readonly MetadataRecord[], pairs: readonly SidePair[]): SidePair | null {
  const sum = ({ w, h }: SidePair) => records.reduce((total, record) => total + (numberAt(record, w) ?? 0) + (numberAt(record, h) ?? 0), 0);
  const named = pairs.filter(({ stem }) => says(stem, FULL_WORDS));
  const list = named.length > 0 ? named : pairs;
  return list.toSorted((a, b) => sum(b) - sum(a))[0] ?? null;
}

function isQuarterTurns(records: readonly MetadataRecord[], path: string): boolean {
  return records.every((record) => [0, 1, 90, 180, 270, -90, null].includes(numberAt(record, path)));
}

function isYesOrNo(records: readonly MetadataRecord[], path: string): boolean {
  return records.every((record) => /^(yes|no|true|false|y|n)$/i.test(String(valueAt(record, path))));
}

function aroundFields(records: readonly MetadataRecord[]): string[] {
  return (records[0]?.around ?? []).flatMap((outer) =>
    [...outer].filter(([, value]) => typeof value === "string").map(([path]) => `../${path}`),
  );
}

function looksLikePictures(records: readonly MetadataRecord[], path: string): boolean {
  const values = new Set(records.map((record) => valueAt(record, path)));
  const few = path.startsWith("../") || values.size <= Math.max(1, records.length / 2);
  return few && [...values].some((value) => typeof value === "string" && /\.(png|webp|gif|jpe?g|avif|bmp|apng)$/i.test(value));
}

function repeats(records: readonly MetadataRecord[], path: string): boolean {
  return new Set(records.map((record) => record.fields.get(path))).size < records.length;
}

function originUnit(records: readonly MetadataRecord[], fields: FieldPaths): Reading["originAs"] {
  const values = records
    .flatMap((record) => [numberAt(record, fields.originX), numberAt(record, fields.originY)])
    .filter((each) => each !== null);
  const share =
    values.length > 0 &&
    values.every((each) => each >= -0.5 && each <= 1.5) &&
    values.some((each) => !Number.isInteger(each) || each === 1);
  return share ? "share" : "pixels";
}

/** Figures stand with their feet on the origin: if origins are near the top when counted down, they count up. */
function countsUp(records: readonly MetadataRecord[], { fields, originAs }: Reading): boolean {
  if (fields.originY === undefined || says(fields.originY, ["down", "top"])) return false;
  if (says(fields.originY, ["up"])) return true;
  const shares = records.flatMap((record) => {
    const y = numberAt(record, fields.originY);
    const h =
      numberAt(record, fields.fullH ?? fields.h ?? fields.cellH) ??
      (numberAt(record, fields.bottom) ?? 0) - (numberAt(record, fields.y) ?? 0);
    return y === null || h <= 0 ? [] : [originAs === "share" ? y : y / h];
  });
  return shares.length > 0 && shares.every((share) => share >= -0.25 && share < 0.3);
}

function timeUnit(records: readonly MetadataRecord[], path: string | undefined): Reading["timeAs"] {
  if (path === undefined) return "ms";
  const values = records.map((record) => numberAt(record, path)).filter((each) => each !== null);
  return unitOfTimes(values, path);
}

/** Whether the width and height of turned frames are as stored or upright: what lies inside the picture and overlaps less. */
function turnedAs(parsed: ParsedMetadata, reading: Reading, described: Described): Reading["turnedAs"] {
  if (reading.fields.turned === undefined) return "upright";
  const fits = (as: Reading["turnedAs"]) => {
    const { frames, unplaced } = readFrames(parsed, { ...reading, turnedAs: as }, described);
    let shared = 0;
    const some = frames.slice(0, 400);
    for (let k = 0; k < some.length; k++)
      for (let other = 0; other < k; other++) {
        const a = some[k]?.rect;
        const b = some[other]?.rect;
        if (!a || !b || (a.x === b.x && a.y === b.y && a.w === b.w && a.h === b.h)) continue;
        const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
        const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
        if (w > 0 && h > 0) shared += w * h;
      }
    return unplaced.length * 10_000 + shared;
  };
  return fits("stored") < fits("upright") ? "stored" : "upright";
}

/** Says what was looked for and how near the file came. */
function nothingFits(groups: readonly RecordGroup[], parsed: ParsedMetadata, described: Described, where: string): CaravanError {
  const { width, height } = described.coverage;
  const held = isSeen(described.coverage);
  const wild = (group: RecordGroup) => group.pattern.split("*").length;
  const closest = groups.toSorted((a, b) => b.records.length - a.records.length || wild(a) - wild(b))[0];
  const fields = closest ? commonFields(closest.records).slice(0, 6).join(", ") : "";
  const seen = closest
    ? `The records that came closest are ${closest.records.length} at ${closest.pattern}${fields ? ` with the fields ${fields}` : ""}, but they give no rectangles${held ? ` inside the ${width} × ${height} px picture` : ""}.`
    : "There are no records in it at all.";
  return problem(
    where,
    `Read as ${parsed.container}, looked for x, y, width and height; for left, top, right and bottom; for lists of four numbers; and for columns and rows. ${seen}`,
    held
      ? "Check that it belongs to this picture, or cut the picture another way."
      : "Give the file that tells where each frame lies on its sheet.",
  );
}
