/** Reads clips from a metadata file with a known reading. */
import { facingOfWord } from "../facing";
import type { Reading } from "../model";
import type { ParsedMetadata } from "../notation";
import { clipsByNames } from "./clips-by-names";
import { eventsAt } from "./events";
import { frameBook, frameCalled, framesOfPattern, listedIn } from "./frame-book";
import { groupAt, type MetadataRecord } from "./groups";
import { millis, type ReadClip, type ReadFrame, timeAt } from "./read";
import { numberAt, valueAt } from "./values";

type ClipReading = NonNullable<Reading["clips"]>;

/**
 * Clips in the order of the file. Records without a frame on the picture are left out. If a file gives no clips, those of numbered names.
 */
export function readClips(parsed: ParsedMetadata, reading: Reading, frames: readonly ReadFrame[]): ReadClip[] {
  const told = toldClips(parsed, reading, frames);
  return told.length > 0 || reading.clips || reading.fields.clip !== undefined ? told : clipsByNames(frames);
}

function toldClips(parsed: ParsedMetadata, reading: Reading, frames: readonly ReadFrame[]): ReadClip[] {
  if (!reading.clips) return clipsByField(frames);
  const { records: pattern, fields } = reading.clips;
  const group = groupAt(parsed, pattern, Object.values(fields));
  const clips = fields.frame === undefined ? group.records.map((record) => [record]) : byParent(group.records);
  const counts = group.records.map((record) => (fields.loop === undefined ? undefined : valueAt(record, fields.loop)));
  const counting = counts.some((value) => typeof value === "number" && (value > 1 || value < 0));
  return clips.flatMap((records) => clipOf(records, reading.clips as ClipReading, frames, counting));
}

function byParent(records: readonly MetadataRecord[]): MetadataRecord[][] {
  const parents = new Map<string, MetadataRecord[]>();
  for (const record of records) {
    const parent = record.path.slice(0, record.path.lastIndexOf("."));
    const list = parents.get(parent) ?? [];
    parents.set(parent, list);
    list.push(record);
  }
  return [...parents.values()];
}

function clipOf(records: readonly MetadataRecord[], reading: ClipReading, frames: readonly ReadFrame[], counting: boolean): ReadClip[] {
  const { fields, timeAs, from } = reading;
  const book = frameBook(frames);
  const first = records[0] as MetadataRecord;
  const shown =
    fields.frame === undefined
      ? framesOf(first, reading, frames)
      : records.map((record) => frameCalled(book, valueAt(record, fields.frame as string), from));
  const total = timeAt(first, fields.total, timeAs);
  const fps = numberAt(first, fields.fps);
  const way = fields.loop === undefined ? undefined : valueAt(first, fields.loop);
  const flags = { pingpong: isYes(first, fields.pingpong), reversed: isYes(first, fields.reversed) };
  const { playback, times, reversed } = playbackOf(way, numberAt(first, fields.times), { counting, ...flags });
  const listed = fields.time === undefined ? undefined : first.lists.get(fields.time);
  const relative =
    fps !== null &&
    fps > 0 &&
    fields.frame !== undefined &&
    fields.time !== undefined &&
    records.every((record) => (numberAt(record, fields.time) ?? 0) <= 10);
  const steps = shown.flatMap((frame, k) => {
    if (!frame) return [];
    const record = fields.frame === undefined ? first : (records[k] as MetadataRecord);
    const own = listed
      ? millis(typeof listed[k] === "number" ? (listed[k] as number) : null, timeAs)
      : relative
        ? // A number given for a step beside a rate is its length in frames at that rate.
          ((numberAt(record, fields.time) ?? 1) * 1000) / (fps as number)
        : timeAt(record, fields.time, timeAs);
    const ms = own ?? (total === null ? null : total / shown.length) ?? (fps !== null && fps > 0 ? 1000 / fps : null) ?? frame.ms;
    const place = reversed ? shown.length - 1 - k : k;
    const said = fields.frame === undefined ? [] : eventsAt(record, fields.event);
    const events = said.length > 0 ? said : frame.events;
    return [{ frame: frame.name, ms: ms === null ? null : Math.round(ms * 1000) / 1000, place, ...(events.length > 0 ? { events } : {}) }];
  });
  if (steps.length === 0) return [];
  const { name, facing } = nameOf(records, reading);
  return [{ name, facing, playback, times, steps: reversed ? steps.toReversed() : steps }];
}

function isYes(record: MetadataRecord, path: string | undefined): boolean {
  const value = path === undefined ? false : valueAt(record, path);
  return value === true || value === 1 || (typeof value === "string" && /^(yes|true|y|on)$/i.test(value));
}

function framesOf(record: MetadataRecord, { fields, from }: ClipReading, frames: readonly ReadFrame[]): (ReadFrame | undefined)[] {
  const book = frameBook(frames);
  if (fields.frames !== undefined) {
    const given = record.lists.get(fields.frames) ?? (record.fields.has(fields.frames) ? [record.fields.get(fields.frames)] : []);
    return listedIn(given, book).map((each) => frameCalled(book, each, from));
  }
  if (fields.prefix !== undefined) return framesOfPattern(record.fields.get(fields.prefix), frames);
  const first = numberAt(record, fields.first);
  const last = numberAt(record, fields.last);
  const count = numberAt(record, fields.count);
  if (fields.row !== undefined) {
    const row = book.rows[(numberAt(record, fields.row) ?? -1) - from] ?? [];
    const begin = (first ?? from) - from;
    return row.slice(begin, last !== null ? last - from + 1 : count !== null ? begin + count : undefined);
  }
  if (first === null) return [];
  const end = last ?? (count === null ? first : first + count - 1);
  return Array.from({ length: Math.max(0, Math.min(end - first + 1, 100_000)) }, (_, k) => book.byIndex.get(first - from + k));
}

/** The clip's own name, otherwise its key; a facing in a field, or as the second of two keys. */
function nameOf(records: readonly MetadataRecord[], { fields }: ClipReading): { name: string; facing: string | null } {
  const first = records[0] as MetadataRecord;
  const text = (path: string | undefined) => {
    const value = path === undefined ? undefined : valueAt(first, path);
    return typeof value === "string" || typeof value === "number" ? String(value) : null;
  };
  // A step's own place in its list is no part of the clip's name; nor is a list's name such as "steps".
  const keys = fields.frame === undefined ? first.keys : first.keys.slice(0, -1);
  const names = keys.filter((key) => !/^\d+$/.test(key));
  const facing = facingOf(text(fields.facing));
  const named = text(fields.name);
  if (named !== null) return { name: named, facing };
  const last = names.at(-1);
  if (last !== undefined && names.length > 1 && facingOfWord(last) !== null)
    return { name: names.slice(0, -1).join("-"), facing: facingOf(last) };
  return { name: last ?? keys.at(-1) ?? "clip", facing };
}

function facingOf(word: string | null): string | null {
  return word === null ? null : (facingOfWord(word) ?? word);
}

/** What is known besides the word or number for playback. */
interface Beside {
  /** Whether the file's numbers count loops: then 0 means forever, not no. */
  readonly counting?: boolean;
  readonly pingpong?: boolean;
  readonly reversed?: boolean;
}

export function playbackOf(
  way: unknown,
  times: number | null,
  { counting = false, pingpong = false, reversed: turned = false }: Beside = {},
): { playback: ReadClip["playback"]; times: number; reversed: boolean } {
  const word = typeof way === "string" ? way.toLowerCase().replace(/[^a-z]/g, "") : "";
  const passes = times !== null && Number.isInteger(times) && times > 0 ? times : 0;
  const reversed = turned || /reverse|backward/.test(word);
  if (pingpong || /pingpong|yoyo|alternate|bounce|back(and)?forth|toandfro|mirror/.test(word))
    return { playback: "pingpong", times: passes, reversed };
  if (/once|single|none|oneshot|clamp|^no$|^false$|^(no|non|not|never|dont|without)(loop|repeat|cycl|wrap)/.test(word))
    return { playback: "once", times: 0, reversed };
  if (way === false || (way === 0 && !counting)) return { playback: "once", times: 0, reversed };
  if (passes === 1 || (counting && way === 1)) return { playback: "once", times: 0, reversed };
  // A number of loops greater than one; 0 and -1 mean forever in many files.
  const rounds = typeof way === "number" && way > 1 ? way : passes;
  return { playback: "loop", times: rounds, reversed };
}

/** Frames that say which clip they are of, in the order of the file. */
function clipsByField(frames: readonly ReadFrame[]): ReadClip[] {
  const groups = new Map<string, ReadFrame[]>();
  for (const frame of frames) {
    if (frame.clip === null) continue;
    const key = JSON.stringify([frame.clip, frame.facing]);
    const list = groups.get(key) ?? [];
    groups.set(key, list);
    list.push(frame);
  }
  return [...groups.values()].map((list) => {
    const { clip, facing, loop, total } = list[0] as ReadFrame;
    const { playback, times, reversed } = playbackOf(loop, null);
    const each = total === null ? null : Math.round((total * 1000) / list.length) / 1000;
    const steps = list.map(({ name, ms, index, events }) => ({
      frame: name,
      ms: ms ?? each,
      place: index,
      ...(events.length > 0 ? { events } : {}),
    }));
    return { name: clip as string, facing: facingOf(facing), playback, times, steps: reversed ? steps.toReversed() : steps };
  });
}
