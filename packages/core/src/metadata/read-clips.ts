/** Reading clips from a metadata file by a known reading. */
import { facingOfWord } from "../facing";
import type { Facing, Reading } from "../model";
import { frameBook, frameCalled, framesOfPattern } from "./clips";
import { groupAt, type MetadataRecord } from "./groups";
import { millis, type ReadFrame } from "./read";
import { numberAt, valueAt } from "./rectangles";
import type { ParsedMetadata } from "./tree";

export interface ReadClip {
  readonly name: string;
  /** A compass direction if the file's word for it is one, else its own word or number, null if it says none. */
  readonly facing: Facing | string | null;
  readonly playback: "once" | "loop" | "pingpong";
  /** 0: for ever. */
  readonly times: number;
  /** `ms` is null where the file says no time at all; `place` counts the steps of the whole clip, those on other pictures too. */
  readonly steps: readonly { readonly frame: string; readonly ms: number | null; readonly place: number }[];
}

/** Clips in the order of the file. Records that name no frame of the picture are left out. */
export function readClips(parsed: ParsedMetadata, reading: Reading, frames: readonly ReadFrame[]): ReadClip[] {
  if (!reading.clips) return clipsByField(frames);
  const { records: pattern, fields } = reading.clips;
  const group = groupAt(parsed, pattern, Object.values(fields));
  const clips = fields.frame === undefined ? group.records.map((record) => [record]) : byParent(group.records);
  return clips.flatMap((records) => clipOf(records, reading.clips as NonNullable<Reading["clips"]>, frames));
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

function clipOf(records: readonly MetadataRecord[], reading: NonNullable<Reading["clips"]>, frames: readonly ReadFrame[]): ReadClip[] {
  const { fields, timeAs, from } = reading;
  const book = frameBook(frames);
  const first = records[0] as MetadataRecord;
  const shown =
    fields.frame === undefined
      ? framesOf(first, reading, frames)
      : records.map((record) => frameCalled(book, valueAt(record, fields.frame as string), from));
  const total = millis(numberAt(first, fields.total), timeAs);
  const fps = numberAt(first, fields.fps);
  const way = fields.loop === undefined ? undefined : valueAt(first, fields.loop);
  const { playback, times, reversed } = playbackOf(way, numberAt(first, fields.times));
  const steps = shown.flatMap((frame, k) => {
    if (!frame) return [];
    const own = millis(numberAt(fields.frame === undefined ? first : (records[k] as MetadataRecord), fields.time), timeAs);
    const ms = own ?? (total === null ? null : total / shown.length) ?? (fps !== null && fps > 0 ? 1000 / fps : null) ?? frame.ms;
    const place = reversed ? shown.length - 1 - k : k;
    return [{ frame: frame.name, ms: ms === null ? null : Math.round(ms * 1000) / 1000, place }];
  });
  if (steps.length === 0) return [];
  const { name, facing } = nameOf(records, reading);
  return [{ name, facing, playback, times, steps: reversed ? steps.toReversed() : steps }];
}

function framesOf(
  record: MetadataRecord,
  { fields, from }: NonNullable<Reading["clips"]>,
  frames: readonly ReadFrame[],
): (ReadFrame | undefined)[] {
  const book = frameBook(frames);
  if (fields.frames !== undefined) return (record.lists.get(fields.frames) ?? []).map((each) => frameCalled(book, each, from));
  if (fields.prefix !== undefined) return framesOfPattern(record.fields.get(fields.prefix), frames);
  const first = numberAt(record, fields.first);
  const last = numberAt(record, fields.last);
  const count = numberAt(record, fields.count);
  if (first === null) return [];
  const end = last ?? (count === null ? first : first + count - 1);
  return Array.from({ length: Math.max(0, Math.min(end - first + 1, 100_000)) }, (_, k) => book.byIndex.get(first - from + k));
}

/** The clip's own name, else the key it stands under; a facing in a field, or as the last key of two. */
function nameOf(records: readonly MetadataRecord[], { fields }: NonNullable<Reading["clips"]>): { name: string; facing: string | null } {
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

export function playbackOf(way: unknown, times: number | null): { playback: ReadClip["playback"]; times: number; reversed: boolean } {
  const word = typeof way === "string" ? way.toLowerCase().replace(/[^a-z]/g, "") : "";
  const passes = times !== null && Number.isInteger(times) && times > 0 ? times : 0;
  const reversed = /reverse|backward/.test(word);
  if (/pingpong|yoyo|alternate|bounce|backandforth|toandfro|mirror/.test(word)) return { playback: "pingpong", times: passes, reversed };
  if (/once|single|none|oneshot|clamp|^no$|^false$|^(no|non|not|never|dont|without)(loop|repeat|cycl|wrap)/.test(word))
    return { playback: "once", times: 0, reversed };
  if (way === false || way === 0) return { playback: "once", times: 0, reversed };
  if (passes === 1) return { playback: "once", times: 0, reversed };
  // A number of rounds greater than one; -1 stands for ever in many files.
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
    const { clip, facing, loop } = list[0] as ReadFrame;
    const { playback, times, reversed } = playbackOf(loop, null);
    const steps = list.map(({ name, ms, index }) => ({ frame: name, ms, place: index }));
    return { name: clip as string, facing: facingOf(facing), playback, times, steps: reversed ? steps.toReversed() : steps };
  });
}
