/** Reads files that list each clip's frames inside it: `walk: { fps: 8, frames: [ … ] }`. The record around a frame is then its clip. */
import { facingOfWord } from "../facing";
import type { Reading } from "../model";
import type { MetadataRecord, RecordGroup } from "./groups";
import { timeAt } from "./read";
import { valueAt } from "./values";
import { CLIP_WORDS, FPS_WORDS, LOOP_WORDS, lastPart, NAME_WORDS, says, TIME_WORDS, unitOfTimes } from "./words";

/** What changes in a reading if frames are nested in clips; nothing if there is no sign of that. */
export function clipsAround(
  { pattern, records }: RecordGroup,
  { fields, timeAs }: Pick<Reading, "fields" | "timeAs">,
): Partial<Pick<Reading, "fields" | "timeAs">> {
  const [first] = records;
  if (!first || first.keys.length < 2) return {};
  const around = [...(first.around[0]?.keys() ?? [])].filter((path) => !path.includes(".")).map((path) => `../${path}`);
  const used = new Set<string>(Object.values(fields));
  const find = (words: readonly string[], type: readonly string[]) =>
    around.find((path) => !used.has(path) && says(lastPart(path), words) && type.includes(typeof valueAt(first, path)));
  const loop = find(LOOP_WORDS, ["boolean", "string", "number"]);
  const isTime = (path: string) => typeof valueAt(first, path) === "number" || WITH_UNIT.test(String(valueAt(first, path)));
  const time = around.find((path) => !used.has(path) && says(lastPart(path), [...FPS_WORDS, ...TIME_WORDS]) && isTime(path));
  const telling = loop !== undefined || time !== undefined || says(pattern, CLIP_WORDS) || fields.name === undefined;
  const clip = find(NAME_WORDS, ["string"]) ?? (records.some(({ keys }) => !/^\d+$/.test(keys.at(-2) as string)) ? "../$key" : undefined);
  if (!telling || clip === undefined || records.some((record) => /\.[a-z]{3,4}$/i.test(String(valueAt(record, clip))))) return {};
  const byFacing = clip === "../$key" && first.keys.length > 2 && records.every(({ keys }) => facingOfWord(keys.at(-2) as string) !== null);
  const timed = fields.time === undefined ? time : undefined;
  const numbered = byFacing || fields.facing !== undefined ? null : numberedFacing(records, used, clip);
  return {
    fields: {
      ...fields,
      ...(byFacing ? { clip: "../../$key", facing: clip } : { clip }),
      ...(numbered === null ? {} : { facing: numbered }),
      ...(loop === undefined ? {} : { loop }),
      ...(timed === undefined ? {} : { [isTotal(records, timed) ? "total" : "time"]: timed }),
    },
    timeAs:
      timed === undefined
        ? timeAs
        : unitOfTimes(
            records.map((record) => Number(valueAt(record, timed))),
            timed,
          ),
  };
}

/** A time with its unit beside it. */
const WITH_UNIT = /^\d+\.?\d*\s*(ms|msec|s|secs?)$/i;

/** A time that a clip says once and that is long is that of all its frames together. */
function isTotal(records: readonly MetadataRecord[], path: string): boolean {
  if (says(lastPart(path), FPS_WORDS)) return false;
  const times = records.map((record) => timeAt(record, path, "ms")).filter((each) => each !== null);
  const whole = records.every((record) => WITH_UNIT.test(String(valueAt(record, path))) || Number(valueAt(record, path)) >= 400);
  return whole && times.length > 0 && times.every((ms) => ms >= 250);
}

/** Numbers of directions that games have, the likelier first. */
const DIRECTIONS = [8, 4, 16, 2];

/**
 * A field that divides every clip into the same directions with equal numbers of frames: whole numbers from 0, the same in all clips. The
 * number of frames differs between clips, which distinguishes it. Null if there is none.
 */
function numberedFacing(records: readonly MetadataRecord[], used: ReadonlySet<string>, clip: string): string | null {
  const sections = new Map<unknown, MetadataRecord[]>();
  for (const record of records) {
    const section = valueAt(record, clip);
    sections.set(section, [...(sections.get(section) ?? []), record]);
  }
  const paths = [...(records[0]?.fields.keys() ?? [])].filter((path) => !used.has(path));
  const found = paths.flatMap((path): { path: string; count: number }[] => {
    const counts = [...sections.values()].map((list) => evenCounts(list.map((record) => record.fields.get(path))));
    const [count] = counts;
    const same = count !== undefined && count !== null && counts.every((each) => each === count);
    return same && DIRECTIONS.includes(count) ? [{ path, count }] : [];
  });
  // Another field must number the frames of a direction.
  const several = [...sections.values()].some((list) => found.some(({ count }) => list.length > count));
  if (!several) return null;
  return found.toSorted((a, b) => DIRECTIONS.indexOf(a.count) - DIRECTIONS.indexOf(b.count))[0]?.path ?? null;
}

/** The count of numbers if they are 0 to n − 1, each equally often; otherwise null. */
function evenCounts(values: readonly unknown[]): number | null {
  const counts = new Map<number, number>();
  for (const value of values) {
    if (typeof value !== "number" || !Number.isInteger(value) || value < 0) return null;
    counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  const each = values.length / counts.size;
  return Math.max(...counts.keys()) === counts.size - 1 && [...counts.values()].every((count) => count === each) ? counts.size : null;
}
