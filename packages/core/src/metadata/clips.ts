/** Finds clips in a metadata file: lists of frames, ranges of numbers, rows, name prefixes, or a field of each frame. */
import type { Reading } from "../model";
import { otherFields } from "./clip-fields";
import { type FrameBook, frameBook, frameCalled, framesOfPattern, listedIn, rangeIn, withoutEnding } from "./frame-book";
import type { MetadataRecord, RecordGroup } from "./groups";
import type { ReadFrame } from "./read";
import { numberAt, valueAt } from "./values";
import { COUNT_WORDS, FIRST_WORDS, LAST_WORDS, lastPart, NAME_WORDS, PREFIX_WORDS, ROW_WORDS, says, sideOf } from "./words";

type ClipReading = NonNullable<Reading["clips"]>;
type ClipPaths = ClipReading["fields"];

/** How the file gives clips; null if it gives none except through a field of its frames. `records` are those of the frames. */
export function recogniseClips(
  groups: readonly RecordGroup[],
  reading: Reading,
  frames: readonly ReadFrame[],
  records: readonly MetadataRecord[],
): ClipReading | null {
  const ofFrames = new Set(records.map(({ path }) => path));
  const around = new Set(records.flatMap(({ path }) => pathsAround(path)));
  const book: FileBook = { ...frameBook(frames), names: namesIn(records, reading), count: records.length };
  let best: { clips: ClipReading; score: number } | null = null;
  for (const group of groups) {
    // Parts of the frames' own records say nothing of clips.
    if (group.pattern.startsWith(`${reading.frames}.`) || isBeside(group, reading.frames, records[0])) continue;
    if (laysFramesAside(group, (path) => ofFrames.has(path) || around.has(path))) continue;
    // The same records by another path, or together with others; or their contents, such as lists of corners.
    if (group.records.some(({ path }) => ofFrames.has(path) || pathsAround(path).some((each) => ofFrames.has(each)))) continue;
    // What surrounds frames is described by their own fields.
    if (group.records.some(({ path }) => around.has(path))) continue;
    if (isPartOfClips(group)) continue;
    const found = waysToFrames(group, book, frames);
    if (!found) continue;
    const rest = otherFields(group, found.fields);
    // Ranked by how many records and frames are covered, then by how informative the form is; of two names for the same records, the one
    // that uses least as a member's name.
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

/** All ancestors of a path. */
function pathsAround(path: string): string[] {
  return [...path.matchAll(/\./g)].map(({ index }) => path.slice(0, index));
}

/** Whether a group is a part that every clip has under one name: its parent is the clip. */
function isPartOfClips({ keyed, records }: RecordGroup): boolean {
  const [first] = records;
  if (!keyed || !first || !records.every(({ keys }) => keys.at(-1) === first.keys.at(-1))) return false;
  if (says(first.keys.at(-1) as string, PART_WORDS)) return true;
  return records.length > 1 || [...(first.around[0] ?? [])].some(([path, value]) => typeof value === "string" && says(path, NAME_WORDS));
}

/** What a clip calls its frames; never a clip's name. */
const PART_WORDS = ["frame", "frames", "ref", "refs", "steps", "indices", "sprites", "cells", "images", "tiles", "order", "sequence"];

/** Whether a group consists of the parallel lists of frame fields. */
function isBeside(group: RecordGroup, frames: string, record: MetadataRecord | undefined): boolean {
  if (!frames.endsWith("^") || !record) return false;
  const base = frames.slice(0, -1);
  const columns = new Set([...record.fields.keys()].map((path) => path.split(".")[0] as string));
  if (!group.pattern.startsWith(base)) return false;
  const rest = group.pattern.slice(base.length);
  if (rest !== "*") return columns.has(rest.split(".")[0] as string);
  return group.records.filter(({ keys }) => columns.has(keys.at(-1) as string)).length > group.records.length / 2;
}

/** Whether a group lays records of frames side by side, as if each were a list of one field. */
function laysFramesAside({ pattern, records }: RecordGroup, isOfFrames: (path: string) => boolean): boolean {
  const [first] = records;
  if (!pattern.endsWith("^") || !first) return false;
  const base = first.path.slice(0, Math.max(0, first.path.lastIndexOf(".")));
  return [...first.fields.keys()].some((path) => isOfFrames(`${base === "" ? "" : `${base}.`}${path.split(".")[0]}`));
}

/** Frames by the file's names for them, and all frame names: a clip may continue on another picture. */
interface FileBook extends FrameBook {
  readonly names: ReadonlySet<string>;
  readonly count: number;
}

function namesIn(records: readonly MetadataRecord[], { fields: { name } }: Reading): Set<string> {
  const names = name === undefined ? [] : records.map((record) => valueAt(record, name));
  return new Set(names.filter((each) => typeof each === "string").flatMap((each) => [each, withoutEnding(each)]));
}

/** Whether a value names a frame, on this picture or another of the file. */
function isFrame(book: FileBook, value: unknown): boolean {
  if (frameCalled(book, value, 0) ?? frameCalled(book, value, 1)) return true;
  if (typeof value === "string") return book.names.has(value) || book.names.has(withoutEnding(value));
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
  const ways = [
    ...listedFrames(records, book),
    ...stepRecords(group, book),
    ...runs(records, frames),
    ...rowsOf(records, book),
    ...beginnings(records, frames),
  ];
  const good = ways.filter(({ share }) => share >= 0.5);
  return good.sort((a, b) => b.share + b.bonus - (a.share + a.bonus))[0] ?? null;
}

function share(records: readonly MetadataRecord[], holds: (record: MetadataRecord) => boolean): number {
  return records.filter(holds).length / records.length;
}

const LIST_WORDS = ["frames", "sequence", "steps", "indices", "sprites", "cells", "images", "tiles", "order"];

/** A list of names or numbers in each record, or a text that lists them. */
function listedFrames(records: readonly MetadataRecord[], book: FileBook): Found[] {
  const lists = new Set(records.flatMap((record) => [...record.lists.keys()]));
  const texts = new Set(
    records.flatMap((record) => [...record.fields].filter(([, value]) => isListText(value, book)).map(([path]) => path)),
  );
  return [...new Set([...lists, ...texts])].map((path): Found => {
    const listOf = (record: MetadataRecord) => {
      const given = record.lists.get(path) ?? (record.fields.has(path) ? [record.fields.get(path)] : undefined);
      return given && listedIn(given, book);
    };
    const known = (list: readonly unknown[] | undefined) =>
      list !== undefined && list.length > 0 && list.filter((each) => isFrame(book, each)).length >= list.length * 0.8;
    const used = new Set(records.flatMap((record) => listOf(record) ?? [])).size;
    const named = says(lastPart(path), LIST_WORDS) || path === "" ? 0.3 : 0;
    const words = records.some((record) => listOf(record)?.some((each) => typeof each === "string"));
    // Lists of numbers that are not named as frames may be anything: durations, positions.
    const doubtful = !words && named === 0 && !records.every((record) => record.lists.get(path)?.every((each) => Number.isInteger(each)));
    return {
      fields: { frames: path },
      share: doubtful ? 0 : share(records, (record) => known(listOf(record))),
      used,
      bonus: (words ? 0.6 : 0.1) + named,
    };
  });
}

/** Whether a text lists frames: a range, or names parted by commas or blanks. */
function isListText(value: unknown, book: FileBook): boolean {
  if (typeof value !== "string" || value.length > 20_000 || frameCalled(book, value, 0)) return false;
  if (rangeIn(value)) return true;
  const parts = listedIn([value], book);
  return parts.length > 1 && parts.every((part) => isFrame(book, part));
}

/** A record for each step, several in each clip. */
function stepRecords({ pattern, records }: RecordGroup, book: FileBook): Found[] {
  if (pattern.split(".").filter((part) => part === "*").length < 2) return [];
  // A value in a list inside a step is not its frame.
  const paths = new Set(records.flatMap((record) => [...record.fields.keys()]).filter((path) => !/\.\d+$/.test(path)));
  return [...paths].map((path): Found => {
    const values = records.map((record) => record.fields.get(path));
    const texts = values.some((value) => typeof value === "string");
    const known = share(records, (record) => isFrame(book, record.fields.get(path)));
    const named =
      path === "" ||
      path === "0" ||
      says(lastPart(path), ["frame", "f", "sprite", "image", "img", "cell", "tile", "tileid", "index", "idx", "name", "ref", "id"]);
    return {
      fields: { frame: path },
      share: texts || named ? known : 0,
      used: new Set(values).size,
      bonus: (texts ? 0.7 : 0) + (named ? 0.2 : 0),
    };
  });
}

/** A first number and a last one or a count, by their names or because the runs follow each other without gaps. */
function runs(records: readonly MetadataRecord[], frames: readonly ReadFrame[]): Found[] {
  const paths = [...new Set(records.flatMap((record) => [...record.fields.keys()]))];
  // The first two of a longer list are no run; two alone may be.
  const inLongList = (path: string) => {
    const list = /^(.+)\.\d+$/.exec(path)?.[1];
    return list !== undefined && records.some((record) => (record.lists.get(list)?.length ?? 0) !== 2);
  };
  const numeric = paths
    .filter((path) => share(records, (record) => Number.isInteger(record.fields.get(path))) >= 0.5 && !inLongList(path))
    .slice(0, 12);
  const most = frames.reduce((max, { index }) => Math.max(max, index), 0) + 1;
  const found: Found[] = [];
  for (const first of numeric)
    for (const second of numeric) {
      if (first === second) continue;
      const begins = says(lastPart(first), FIRST_WORDS);
      const ends = says(lastPart(second), LAST_WORDS);
      const counts = says(lastPart(second), COUNT_WORDS);
      const bare = /^\d+$/.test(first) && Number(second) === Number(first) + 1;
      // Without a known word, only consecutive ranges without gaps are accepted.
      const free = !begins && !ends && records.length > 1 && sideOf(first) === null && sideOf(second) === null;
      if (!bare && !free && !(begins && (ends || counts))) continue;
      for (const way of ["last", "count"] as const) {
        const end = (record: MetadataRecord, from: number) => {
          const value = numberAt(record, second) ?? -9;
          return way === "last" ? value : from + value - 1;
        };
        const fits = share(records, (record) => {
          const from = numberAt(record, first);
          if (from === null) return false;
          const to = end(record, from);
          return from >= 0 && to >= from && to <= most;
        });
        const told = begins && (way === "last" ? ends : counts);
        const even = evenness(records, (record) => {
          const from = numberAt(record, first);
          return from === null ? null : [from, end(record, from)];
        });
        if (!told && records.length > 1 && even < 0.99) continue;
        found.push({
          fields: { first, [way]: second },
          share: fits,
          used: frames.length * Math.max(0.3, even),
          bonus: (told ? 0.4 : -0.1) + 0.2 * even + (way === "last" ? 0.02 : 0),
        });
      }
    }
  return found;
}

/** The fraction of ranges that begin where another ends: 1 if they are consecutive without gaps or overlaps. */
function evenness(records: readonly MetadataRecord[], runOf: (record: MetadataRecord) => [number, number] | null): number {
  const list = records.map(runOf).filter((each) => each !== null);
  if (list.length < 2) return 0.5;
  const sorted = list.toSorted((a, b) => a[0] - b[0]);
  let even = 0;
  for (let k = 1; k < sorted.length; k++) if (sorted[k]?.[0] === (sorted[k - 1] as [number, number])[1] + 1) even++;
  return even / (sorted.length - 1);
}

/** A row of the picture, all of it or a run within it. */
function rowsOf(records: readonly MetadataRecord[], book: FileBook): Found[] {
  const paths = [...new Set(records.flatMap((record) => [...record.fields.keys()]))];
  const row = paths.find(
    (path) => says(lastPart(path), ROW_WORDS) && share(records, (record) => Number.isInteger(record.fields.get(path))) >= 0.8,
  );
  if (row === undefined || book.rows.length < 2) return [];
  const numeric = (words: readonly string[]) =>
    paths.find(
      (path) => path !== row && says(lastPart(path), words) && share(records, (record) => Number.isInteger(numberAt(record, path))) >= 0.5,
    );
  const first = numeric(FIRST_WORDS);
  const last = numeric(LAST_WORDS);
  const count = last === undefined ? numeric(COUNT_WORDS) : undefined;
  const fields: ClipPaths = { row };
  if (first !== undefined) fields.first = first;
  if (last !== undefined) fields.last = last;
  if (count !== undefined) fields.count = count;
  const known = share(
    records,
    (record) => book.rows[numberAt(record, row) as number] !== undefined || book.rows[(numberAt(record, row) as number) - 1] !== undefined,
  );
  return [{ fields, share: known, used: book.byIndex.size, bonus: first !== undefined || count !== undefined ? 0.7 : 0.3 }];
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

function countsFrom(records: readonly MetadataRecord[], fields: ClipPaths, frames: readonly ReadFrame[]): 0 | 1 {
  if (fields.row !== undefined) {
    const rows = records.map((record) => numberAt(record, fields.row)).filter((each) => each !== null);
    const count = new Set(frames.map(({ rect }) => rect.y)).size;
    return !rows.includes(0) && Math.max(...rows) === count ? 1 : 0;
  }
  const book = frameBook(frames);
  const numbers = records.flatMap((record) => [
    ...(fields.frames === undefined ? [] : listedIn(record.lists.get(fields.frames) ?? [record.fields.get(fields.frames)], book)),
    ...[fields.frame, fields.first, fields.last].map((path) => numberAt(record, path)),
  ]);
  const whole = numbers.filter((each): each is number => typeof each === "number");
  if (whole.length === 0 || whole.includes(0)) return 0;
  const most = frames.reduce((max, { index }) => Math.max(max, index), 0) + 1;
  const ends =
    fields.count === undefined
      ? []
      : records.map((record) => (numberAt(record, fields.first) ?? 0) + (numberAt(record, fields.count) ?? 0) - 1);
  return Math.max(...whole, ...ends) === most ? 1 : 0;
}
