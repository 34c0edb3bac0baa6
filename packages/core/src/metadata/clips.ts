/** Finding what a metadata file says of animations: lists of frames, runs of numbers, beginnings of names, or a field of each frame. */
import type { ClipField, Reading } from "../model";
import type { MetadataRecord, RecordGroup } from "./groups";
import type { ReadFrame } from "./read";
import { numberAt, valueAt } from "./rectangles";
import type { Leaf } from "./tree";
import {
  COUNT_WORDS,
  FACING_WORDS,
  FIRST_WORDS,
  FPS_WORDS,
  LAST_WORDS,
  LOOP_WORDS,
  lastPart,
  NAME_WORDS,
  PREFIX_WORDS,
  says,
  TIME_WORDS,
  TIMES_WORDS,
  TOTAL_WORDS,
  unitOfTimes,
} from "./words";

type ClipReading = NonNullable<Reading["clips"]>;
type ClipPaths = ClipReading["fields"];

/** How the file tells clips; null if it tells none but by a field of its frames. */
export function recogniseClips(groups: readonly RecordGroup[], reading: Reading, frames: readonly ReadFrame[]): ClipReading | null {
  const records = groups.find(({ pattern }) => pattern === reading.frames)?.records ?? [];
  const ofFrames = new Set(records.map(({ path }) => path));
  const book: FileBook = { ...frameBook(frames), names: namesOf(records, reading), count: records.length };
  let best: { clips: ClipReading; score: number } | null = null;
  for (const group of groups) {
    if (group.pattern.startsWith(`${reading.frames}.`)) continue;
    // The same records reached by another way, or together with others.
    if (group.records.some(({ path }) => ofFrames.has(path) || ofFrames.has(path.slice(0, path.lastIndexOf("."))))) continue;
    const found = waysToFrames(group, book, frames);
    if (!found) continue;
    const rest = otherFields(group, found.fields);
    // What ranks is how much of the records and of the frames is told, then the more telling way; of two names for the same records the
    // one that takes least for the name of a member.
    const stars = group.pattern.split(".").filter((part) => part === "*").length;
    const score = found.share * 2 + Math.min(1, found.used / Math.max(1, frames.length)) + found.bonus - 0.01 * stars;
    if (!best || score > best.score)
      best = {
        score,
        clips: {
          records: group.pattern,
          fields: { ...found.fields, ...rest.fields },
          timeAs: rest.timeAs,
          from: countsFrom(group.records, found.fields, frames),
        },
      };
  }
  return best?.clips ?? null;
}

/** Frames by what a file may call them. */
export interface FrameBook {
  readonly byName: ReadonlyMap<string, ReadFrame>;
  readonly byIndex: ReadonlyMap<number, ReadFrame>;
}

export function frameBook(frames: readonly ReadFrame[]): FrameBook {
  const byName = new Map<string, ReadFrame>();
  for (const frame of frames) {
    const plain = frame.name.replace(/\.[A-Za-z]{3,4}$/, "");
    if (!byName.has(plain)) byName.set(plain, frame);
    byName.set(frame.name, frame);
  }
  return { byName, byIndex: new Map(frames.map((frame) => [frame.index, frame])) };
}

/** The frame that a value names, by its name or by its number counted from `from`. */
export function frameCalled(book: FrameBook, value: unknown, from: 0 | 1): ReadFrame | undefined {
  if (typeof value === "string") return book.byName.get(value) ?? book.byName.get(value.replace(/\.[A-Za-z]{3,4}$/, ""));
  if (typeof value !== "number" || !Number.isInteger(value)) return undefined;
  return book.byName.get(String(value)) ?? book.byIndex.get(value - from);
}

/** Frames by what the file calls them, and all that it calls frames: a clip may go on on another picture. */
interface FileBook extends FrameBook {
  readonly names: ReadonlySet<string>;
  readonly count: number;
}

function namesOf(records: readonly MetadataRecord[], { fields: { name } }: Reading): Set<string> {
  const names = name === undefined ? [] : records.map((record) => valueAt(record, name));
  return new Set(names.filter((each) => typeof each === "string").flatMap((each) => [each, each.replace(/\.[A-Za-z]{3,4}$/, "")]));
}

/** Whether a value names a frame, on this picture or on another one of the file. */
function isFrame(book: FileBook, value: unknown): boolean {
  if (frameCalled(book, value, 0) ?? frameCalled(book, value, 1)) return true;
  if (typeof value === "string") return book.names.has(value);
  return book.byIndex.size < book.count && Number.isInteger(value) && (value as number) >= 0 && (value as number) <= book.count;
}

interface Found {
  readonly fields: ClipPaths;
  /** Share of the group's records that name frames so. */
  readonly share: number;
  readonly used: number;
  readonly bonus: number;
}

function waysToFrames(group: RecordGroup, book: FileBook, frames: readonly ReadFrame[]): Found | null {
  const { records } = group;
  const ways = [...listedFrames(records, book), ...stepRecords(group, book), ...runs(records, frames), ...beginnings(records, frames)];
  const good = ways.filter(({ share }) => share >= 0.5);
  return good.sort((a, b) => b.share + b.bonus - (a.share + a.bonus))[0] ?? null;
}

function share(records: readonly MetadataRecord[], holds: (record: MetadataRecord) => boolean): number {
  return records.filter(holds).length / records.length;
}

/** A list of names or numbers in each record. */
function listedFrames(records: readonly MetadataRecord[], book: FileBook): Found[] {
  const paths = new Set(records.flatMap((record) => [...record.lists.keys()]));
  return [...paths].map((path): Found => {
    const known = (list: readonly Leaf[] | undefined) =>
      list !== undefined && list.length > 0 && list.filter((each) => isFrame(book, each)).length >= list.length * 0.8;
    const used = new Set(records.flatMap((record) => record.lists.get(path) ?? [])).size;
    const texts = records.some((record) => record.lists.get(path)?.some((each) => typeof each === "string"));
    const named = says(lastPart(path), ["frames", "sequence", "steps", "indices", "sprites", "cells", "images"]) ? 0.3 : 0;
    return {
      fields: { frames: path },
      share: share(records, (record) => known(record.lists.get(path))),
      used,
      bonus: (texts ? 0.6 : 0.1) + named,
    };
  });
}

/** A record for each step, several in each clip. */
function stepRecords({ pattern, records }: RecordGroup, book: FileBook): Found[] {
  if (pattern.split(".").filter((part) => part === "*").length < 2) return [];
  const paths = new Set(records.flatMap((record) => [...record.fields.keys()]));
  return [...paths].map((path): Found => {
    const values = records.map((record) => record.fields.get(path));
    const texts = values.some((value) => typeof value === "string");
    const known = share(records, (record) => isFrame(book, record.fields.get(path)));
    const named = path === "" || says(lastPart(path), ["frame", "sprite", "image", "cell", "index", "name", "ref", "id"]);
    return {
      fields: { frame: path },
      share: texts || named ? known : 0,
      used: new Set(values).size,
      bonus: (texts ? 0.7 : 0) + (named ? 0.2 : 0),
    };
  });
}

/** A first number and a last one or a count. */
function runs(records: readonly MetadataRecord[], frames: readonly ReadFrame[]): Found[] {
  const paths = [...new Set(records.flatMap((record) => [...record.fields.keys()]))];
  const numeric = paths.filter((path) => share(records, (record) => Number.isInteger(record.fields.get(path))) >= 0.5);
  const first = numeric.find((path) => says(lastPart(path), FIRST_WORDS)) ?? (numeric.includes("0") ? "0" : undefined);
  if (first === undefined) return [];
  const most = frames.reduce((max, { index }) => Math.max(max, index), 0) + 1;
  const last =
    numeric.find((path) => path !== first && says(lastPart(path), LAST_WORDS)) ??
    (first === "0" && numeric.includes("1") ? "1" : undefined);
  const count = numeric.find((path) => path !== first && says(lastPart(path), COUNT_WORDS));
  const fits = (end: (record: MetadataRecord, from: number) => number) =>
    share(records, (record) => {
      const from = numberAt(record, first);
      if (from === null) return false;
      const to = end(record, from);
      return from >= 0 && to >= from && to <= most;
    });
  const named = first === "0" ? -0.3 : 0.4;
  if (last !== undefined)
    return [{ fields: { first, last }, share: fits((record) => numberAt(record, last) ?? -1), used: frames.length, bonus: named }];
  if (count !== undefined)
    return [
      {
        fields: { first, count },
        share: fits((record, from) => from + (numberAt(record, count) ?? -9) - 1),
        used: frames.length,
        bonus: named,
      },
    ];
  return [];
}

/** A text with which names of frames begin, with or without a sign for what follows. */
function beginnings(records: readonly MetadataRecord[], frames: readonly ReadFrame[]): Found[] {
  const paths = [...new Set(records.flatMap((record) => [...record.fields.keys()]))];
  return paths
    .filter((path) => says(lastPart(path), PREFIX_WORDS))
    .map((path): Found => {
      const known = share(records, (record) => framesOfPattern(record.fields.get(path), frames).length > 0);
      return { fields: { prefix: path }, share: known, used: frames.length, bonus: 0.3 };
    });
}

/** `walk_*`, `walk_##`, `walk_{n}`, or `walk_`: frames whose names are this and a number. In the order of the frames. */
export function framesOfPattern(pattern: unknown, frames: readonly ReadFrame[]): ReadFrame[] {
  if (typeof pattern !== "string" || pattern === "") return [];
  const escaped = pattern
    .replace(/\.[A-Za-z]{3,4}$/, "")
    .replace(/[.+^${}()|[\]\\]/g, "\\$&")
    .replace(/\\\{[^}]*\\\}|\*|#+|%0?\d*d/g, "\\d+");
  const matcher = new RegExp(`^${escaped}${escaped.includes("\\d+") ? "" : "[-_/ .]?\\d+"}$`);
  return frames.filter(({ name }) => matcher.test(name.replace(/\.[A-Za-z]{3,4}$/, "")));
}

function countsFrom(records: readonly MetadataRecord[], fields: ClipPaths, frames: readonly ReadFrame[]): 0 | 1 {
  const numbers = records.flatMap((record) => [
    ...(fields.frames === undefined ? [] : (record.lists.get(fields.frames) ?? [])),
    ...[fields.frame, fields.first, fields.last].map((path) => numberAt(record, path)),
  ]);
  const whole = numbers.filter((each): each is number => typeof each === "number");
  if (whole.length === 0 || whole.includes(0)) return 0;
  const most = frames.reduce((max, { index }) => Math.max(max, index), 0) + 1;
  return Math.max(...whole) === most ? 1 : 0;
}

/** What else the records say: name, time, how often and which way. Steps may say their own time, their clip the rest. */
function otherFields({ records, keyed, pattern }: RecordGroup, found: ClipPaths): { fields: ClipPaths; timeAs: ClipReading["timeAs"] } {
  const isStep = found.frame !== undefined;
  const used = new Set<string>(Object.values(found));
  const own = [...new Set(records.flatMap((record) => [...record.fields.keys()]))].filter((path) => !/(^|\.)\d+$/.test(path));
  const outer = [...new Set((records[0]?.around[0] ? [...records[0].around[0].keys()] : []).map((path) => `../${path}`))];
  const paths = [...own, ...(isStep ? outer : outer.filter((path) => says(path, FPS_WORDS) || says(path, ["duration"])))];
  const has = (path: string, type: string) => records.some((record) => typeof valueAt(record, path) === type);
  const take = (field: ClipField, test: (path: string) => boolean) => {
    const path = paths.find((each) => !used.has(each) && test(each));
    if (path === undefined) return;
    fields[field] = path;
    used.add(path);
  };
  const fields: ClipPaths = {};
  const last = (path: string) => lastPart(path.replace("../", ""));
  if (isStep) take("name", (path) => path.startsWith("../") && says(last(path), NAME_WORDS) && has(path, "string"));
  else if (!keyed) take("name", (path) => says(last(path), [...NAME_WORDS, "clip", "anim*", "action"]) && has(path, "string"));
  take("fps", (path) => says(last(path), FPS_WORDS) && has(path, "number"));
  if (fields.fps === undefined) {
    take("total", (path) => says(last(path), TOTAL_WORDS) && has(path, "number") && !isStep);
    if (fields.total === undefined) take("time", (path) => says(last(path), [...TIME_WORDS, "delay"]) && has(path, "number"));
  }
  take("facing", (path) => says(last(path), FACING_WORDS) && !isPlayingWay(records, path));
  take("loop", (path) => says(last(path), LOOP_WORDS));
  // Whatever it is called, words of playing tell it.
  if (fields.loop === undefined) take("loop", (path) => records.every((record) => PLAYING.test(String(valueAt(record, path)))));
  take("times", (path) => says(last(path), TIMES_WORDS) && has(path, "number"));
  const timed = fields.time ?? fields.total;
  const values = timed === undefined ? [] : records.map((record) => numberAt(record, timed)).filter((each) => each !== null);
  const timeAs = timed === undefined ? "ms" : unitOfTimes(values, timed);
  // A time that a whole clip says once may be that of all its frames together.
  if (fields.time !== undefined && !isStep && pattern !== "" && isTotal(values, timeAs)) {
    fields.total = fields.time;
    delete fields.time;
  }
  return { fields, timeAs };
}

function isTotal(values: readonly number[], unit: ClipReading["timeAs"]): boolean {
  const ms = values.map((value) => (unit === "seconds" ? value * 1000 : value));
  return unit !== "fps" && ms.length > 0 && ms.every((value) => value >= 400);
}

/** Whether a field called direction tells which way a clip plays, not which way a figure looks. */
/** A value that says how a clip plays and nothing else. */
const PLAYING =
  /^(forwards?|backwards?|reversed?|ping.?pong|yoyo|alternate|bounce|back.and.forth|to.and.fro|(no.?|non.?|not.?)?loop(ed|ing)?|once|one.?shot|single|clamp)$/i;

function isPlayingWay(records: readonly MetadataRecord[], path: string): boolean {
  return records.some(
    (record) => typeof valueAt(record, path) === "string" && /forward|reverse|ping|back/i.test(String(valueAt(record, path))),
  );
}
