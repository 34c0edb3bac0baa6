/** Finds what records of clips say besides their frames: name, speed or times, loops, facing, events. */
import type { ClipField, Reading } from "../model";
import { eventField } from "./events";
import type { MetadataRecord, RecordGroup } from "./groups";
import { numberAt, valueAt } from "./values";
import {
  COUNT_WORDS,
  FACING_WORDS,
  FIRST_WORDS,
  FPS_WORDS,
  isRate,
  LAST_WORDS,
  LOOP_WORDS,
  lastPart,
  NAME_WORDS,
  PINGPONG_WORDS,
  REVERSED_WORDS,
  ROW_WORDS,
  says,
  TIME_WORDS,
  TIMES_WORDS,
  TOTAL_WORDS,
  unitOfTimes,
} from "./words";

type ClipReading = NonNullable<Reading["clips"]>;
type ClipPaths = ClipReading["fields"];

/** Other facts of the records: name, time, loops and direction. Steps may give their own times, their clip the rest. */
export function otherFields(
  { records, keyed, pattern }: RecordGroup,
  found: ClipPaths,
): { fields: ClipPaths; timeAs: ClipReading["timeAs"] } {
  const isStep = found.frame !== undefined;
  const used = new Set<string>(Object.values(found));
  const own = [...new Set(records.flatMap((record) => [...record.fields.keys(), ...record.lists.keys()]))];
  const outer = [
    ...new Set((records[0]?.around ?? []).slice(0, isStep ? 2 : 1).flatMap((each) => [...each.keys()].map((path) => `../${path}`))),
  ];
  const plain = own.filter((path) => !used.has(path) && (!/(^|\.)\d+$/.test(path) || !used.has(path.replace(/\.?\d+$/, ""))));
  const paths = [...plain, ...(isStep ? outer : outer.filter((path) => says(path, FPS_WORDS) || says(path, ["duration"])))];
  const has = (path: string, type: string) => records.some((record) => typeof valueAt(record, path) === type);
  const isMember = (path: string) => records.some(({ lists }) => lists.has(path.replace(/\.\d+$/, "")) && /\.\d+$/.test(path));
  const isTime = (path: string) =>
    !isMember(path) &&
    (has(path, "number") ||
      records.some((record) => record.lists.has(path) || /^\d[\d.]*\s*m?s(ec)?$/i.test(String(valueAt(record, path)))));
  const fields: ClipPaths = {};
  const take = (field: ClipField, test: (path: string) => boolean) => {
    const path = paths.find((each) => !used.has(each) && test(each));
    if (path === undefined) return;
    fields[field] = path;
    used.add(path);
  };
  const last = (path: string) => lastPart(path.replace("../", ""));
  const isBare = (path: string) => /^\d+$/.test(path);
  if (isStep)
    take("name", (path) => path.startsWith("../") && says(last(path), NAME_WORDS) && (has(path, "string") || has(path, "number")));
  else if (!keyed) {
    take("name", (path) => !isBare(path) && says(last(path), [...NAME_WORDS, "clip", "anim*", "action"]) && has(path, "string"));
    // A text that distinguishes the records.
    if (fields.name === undefined)
      take(
        "name",
        (path) =>
          has(path, "string") &&
          new Set(records.map((record) => valueAt(record, path))).size === records.length &&
          !isPlaying(records, path),
      );
  }
  take("pingpong", (path) => says(last(path), PINGPONG_WORDS) && (has(path, "boolean") || has(path, "number")));
  take("reversed", (path) => says(last(path), REVERSED_WORDS) && (has(path, "boolean") || has(path, "number")));
  const numbers = (path: string) => records.map((record) => numberAt(record, path)).filter((each) => each !== null);
  const isFps = (path: string) => says(last(path), FPS_WORDS) && (says(last(path), ["fps", "framerate", "hz"]) || isRate(numbers(path)));
  take("fps", (path) => isFps(path) && has(path, "number"));
  // Some clips may say a speed and the others times.
  const { fps } = fields;
  const fpsAlways = fps !== undefined && records.every((record) => valueAt(record, fps) !== undefined);
  if (isStep || !fpsAlways) {
    if (!fpsAlways) take("total", (path) => says(last(path), TOTAL_WORDS) && isTime(path) && !isStep);
    if (fields.total === undefined)
      take(
        "time",
        (path) =>
          says(last(path), [...TIME_WORDS, ...FPS_WORDS, "delay", "durations", "delays", "ticks"]) &&
          isTime(path) &&
          (!isStep || !path.startsWith("../")),
      );
    if (fields.total === undefined && fields.time === undefined && fields.fps === undefined && isStep)
      take("time", (path) => says(last(path), TIME_WORDS) && isTime(path));
  }
  take("facing", (path) => says(last(path), FACING_WORDS) && !isPlayingWay(records, path));
  const event = isStep ? eventField(records, used) : null;
  if (event !== null) fields.event = event;
  take("loop", (path) => says(last(path), LOOP_WORDS) && !says(last(path), ["times", "count"]) && !isStepType(records, path));
  // Under any name, recognised by words for playback.
  if (fields.loop === undefined) take("loop", (path) => isPlaying(records, path));
  take("times", (path) => says(last(path), TIMES_WORDS) && has(path, "number"));
  // An unnamed number beside a range is its speed; a boolean is whether it loops.
  if (fields.fps === undefined && fields.time === undefined && fields.total === undefined) {
    const bare = plain.find(
      (path) => !used.has(path) && !says(lastPart(path), KNOWN_WORDS) && records.every((record) => (numberAt(record, path) ?? 0) > 0),
    );
    if (bare !== undefined && !isStep) {
      const values = records.map((record) => numberAt(record, bare) ?? 0);
      fields[values.every((value) => value < 1 || value > 60) ? "time" : "fps"] = bare;
      used.add(bare);
    }
  }
  const flags = plain.filter((path) => !used.has(path) && records.every((record) => typeof valueAt(record, path) === "boolean"));
  if (fields.loop === undefined && flags.length === 1) take("loop", (path) => path === flags[0]);
  const timed = fields.time ?? fields.total;
  const values =
    timed === undefined
      ? []
      : records
          .flatMap((record) => record.lists.get(timed) ?? [numberAt(record, timed)])
          .filter((each): each is number => typeof each === "number");
  const timeAs = timed === undefined ? "ms" : unitOfTimes(values, timed);
  // A time that a whole clip says once may be that of all its frames together.
  if (
    fields.time !== undefined &&
    !isStep &&
    pattern !== "" &&
    isTotal(values, timeAs) &&
    !records.some((record) => record.lists.has(fields.time as string))
  ) {
    fields.total = fields.time;
    delete fields.time;
  }
  return { fields, timeAs };
}

/** Words of numbers that are no speed. */
const KNOWN_WORDS = [
  ...FIRST_WORDS,
  ...LAST_WORDS,
  ...COUNT_WORDS,
  ...ROW_WORDS,
  "id",
  "index",
  "order",
  "width",
  "height",
  "w",
  "h",
  "x",
  "column",
];

function isTotal(values: readonly number[], unit: ClipReading["timeAs"]): boolean {
  const ms = values.map((value) => (unit === "seconds" ? value * 1000 : value));
  return unit !== "fps" && unit !== "ticks" && ms.length > 0 && ms.every((value) => value >= 400);
}

/** A value that describes playback and nothing else. */
const PLAYING =
  /^(forwards?|backwards?|reversed?|ping.?pong|yoyo|alternate|bounce|back.?and.?forth|back.?forth|to.?and.?fro|(no.?|non.?|not.?)?loop(ed|ing)?|once|one.?shot|single|clamp|play.?once|repeat)$/i;

function isPlaying(records: readonly MetadataRecord[], path: string): boolean {
  return records.every((record) => PLAYING.test(String(valueAt(record, path))));
}

/** Fields called type are often of records' kinds and say nothing of playing. */
function isStepType(records: readonly MetadataRecord[], path: string): boolean {
  return says(lastPart(path), ["type", "mode", "direction"]) && !records.some((record) => PLAYING.test(String(valueAt(record, path))));
}

/** Whether a field named direction means the direction of playback, not of the figure. */
function isPlayingWay(records: readonly MetadataRecord[], path: string): boolean {
  return records.some(
    (record) =>
      typeof valueAt(record, path) === "string" && /forward|reverse|ping|back.*forth|^back(ward)?s?$/i.test(String(valueAt(record, path))),
  );
}
