/** Reads frames from a metadata file with a known reading: records that fit become frames, the rest is listed with a reason. */

import { type Box, encloses, type Facing, type FramePoint, type Reading, type Rect, type Size } from "../model";
import { numberOf, type ParsedMetadata } from "../notation";
import { isClear } from "../raster";
import { t } from "../words";
import { CELLS, cellRecords } from "./cells";
import { type Described, isSeen } from "./described";
import { eventsAt } from "./events";
import { namesOf } from "./frame-names";
import { groupAt, type MetadataRecord, type RecordGroup } from "./groups";
import { insetOf } from "./insets";
import { gridFor, isInside, rectangleOf } from "./rectangle-of";
import { numberAt, textAt, valueAt } from "./values";

/** Stored turned by 90° clockwise (true) or counter-clockwise. */
export type Turned = boolean | "counter";

export interface ReadFrame {
  readonly name: string;
  /** Its position on the picture, as stored there. */
  readonly rect: Rect;
  readonly turned: Turned;
  /** The rectangle's position in the untrimmed frame, and that frame's size; both upright. */
  readonly inset: { readonly x: number; readonly y: number };
  readonly size: Size;
  readonly origin: FramePoint | null;
  /** Boxes and points by the names that the file has for them, in pixels of the untrimmed frame. */
  readonly boxes: Readonly<Record<string, readonly Box[]>>;
  readonly points: Readonly<Record<string, FramePoint>>;
  /** What it says that happens when it shows. */
  readonly events: readonly string[];
  /** Milliseconds, if the record says how long it shows. */
  readonly ms: number | null;
  /** Milliseconds for all frames of its clip together, if the file gives that. */
  readonly total: number | null;
  /** The clip and facing that the record says it belongs to. */
  readonly clip: string | null;
  readonly facing: string | null;
  /** What it says of how its clip plays, as it says it. */
  readonly loop: unknown;
  /** The record's place among all of its kind, also of other pictures and unplaced ones. */
  readonly index: number;
}

export interface ReadClip {
  readonly name: string;
  /** A compass direction if the file's word means one, otherwise its own word or number; null if there is none. */
  readonly facing: Facing | string | null;
  readonly playback: "once" | "loop" | "pingpong";
  /** 0: forever. */
  readonly times: number;
  /** `ms` is null where the file says no time at all; `place` counts the steps of the whole clip, those on other pictures too. */
  readonly steps: readonly {
    readonly frame: string;
    readonly ms: number | null;
    readonly place: number;
    /** What happens at this step, if anything does. */
    readonly events?: readonly string[];
  }[];
  /** Present if the file gives no clips, and this one comes from numbered frame names. */
  readonly by?: "names";
}

/** A record that gives no frame of the picture, and why. */
export interface Unplaced {
  readonly where: string;
  readonly why: string;
  /** The picture on which it is instead, in the file's words. */
  readonly on?: string;
  /** Whether it gives no place at all. */
  readonly isPlaceless?: true;
}

export interface ReadFrames {
  readonly frames: ReadFrame[];
  readonly unplaced: Unplaced[];
}

/** The records that a reading treats as frames. */
export function frameRecords(parsed: ParsedMetadata, reading: Pick<Reading, "frames" | "fields">, { coverage }: Described): RecordGroup {
  if (reading.frames === CELLS) return cellRecords(parsed, reading.fields, coverage);
  return groupAt(parsed, reading.frames, Object.values(reading.fields));
}

/** Never throws: what a record lacks is listed in `unplaced`. */
export function readFrames(parsed: ParsedMetadata, reading: Reading, described: Described): ReadFrames {
  const { picture, coverage } = described;
  const { records } = frameRecords(parsed, reading, described);
  if (records.length === 0) return { frames: [], unplaced: [{ where: reading.frames, why: t("The file has no such records.") }] };
  const grid = gridFor(records, reading, coverage);
  const frames: ReadFrame[] = [];
  const unplaced: Unplaced[] = [];
  const names = namesOf(records, reading, pictureStem(picture));
  const several = severalPictures(records, reading);
  const placed = (record: MetadataRecord, index: number): ReadFrame | string | Omit<Unplaced, "where"> => {
    const of = reading.fields.picture === undefined ? undefined : valueAt(record, reading.fields.picture);
    if (several && picture !== "" && typeof of === "string" && pictureStem(of) !== pictureStem(picture))
      return { why: t("It belongs to the picture {of}.", { of }), on: of };
    const given = rectangleOf(record, reading, grid, coverage);
    if (!given) return { why: t("It does not say {missing}.", { missing: missing(record, reading) }), isPlaceless: true };
    const turned = turnOf(record, reading);
    if (typeof turned === "object") return turned.why;
    const stored = turned && reading.turnedAs === "upright" ? turnedRect(given, reading) : given;
    if (![stored.x, stored.y, stored.w, stored.h].every(Number.isInteger)) return t("Its numbers are not whole pixels.");
    if (stored.w <= 0 || stored.h <= 0) return t("Its size is {w} × {h}.", { w: stored.w, h: stored.h });
    // Of a picture's cells only those are frames in which something is drawn.
    if (reading.frames === CELLS && isSeen(coverage) && isInside(stored, coverage) && isClear(coverage, stored)) return EMPTY_CELL;
    if (!isInside(stored, coverage))
      return stored.x < 0 || stored.y < 0
        ? t("It begins at {x}, {y}, outside the picture.", { x: stored.x, y: stored.y })
        : t("It reaches to {x}, {y}, outside the {width} × {height} px picture.", {
            x: stored.x + stored.w,
            y: stored.y + stored.h,
            width: coverage.width,
            height: coverage.height,
          });
    return frameOf(record, reading, stored, turned, index, names[index] as string);
  };
  for (const [index, record] of records.entries()) {
    const outcome = placed(record, index);
    if (outcome === EMPTY_CELL) continue;
    if (typeof outcome === "string") unplaced.push({ where: record.path, why: outcome });
    else if ("why" in outcome) unplaced.push({ where: record.path, ...outcome });
    else frames.push(outcome);
  }
  return { frames: withOwnNames(frames), unplaced };
}

/** Width and height as stored; with y counted up, the given corner moves with the height. */
function turnedRect(rect: Rect, { yAs }: Reading): Rect {
  const stored = { ...rect, w: rect.h, h: rect.w };
  return yAs === "up" ? { ...stored, y: rect.y + rect.h - rect.w } : stored;
}

const EMPTY_CELL = "Nothing is drawn in it.";

function severalPictures(records: readonly MetadataRecord[], { fields }: Reading): boolean {
  return fields.picture !== undefined && new Set(records.map((record) => valueAt(record, fields.picture as string))).size > 1;
}

/** What a file calls a picture, so that two ways to write it compare equal: without folders, ending and capitals, accents joined. */
export function pictureStem(path: string): string {
  return (path.split(/[\\/]/).pop() ?? path)
    .replace(/\.[^.]*$/, "")
    .normalize("NFC")
    .toLowerCase();
}

function missing(record: MetadataRecord, { fields }: Reading): string {
  const absent = Object.entries(fields).filter(
    ([field, path]) => ["x", "y", "w", "h", "right", "bottom", "column", "row", "index"].includes(field) && numberAt(record, path) === null,
  );
  return absent.map(([field, path]) => t("{field} (at {path})", { field, path })).join(", ") || t("how large it is");
}

/** Whether and which way it is stored turned; in words why it cannot be read if it is turned otherwise. */
export function turnOf(record: MetadataRecord, { fields }: Pick<Reading, "fields">): Turned | { readonly why: string } {
  const value = fields.turned === undefined ? false : valueAt(record, fields.turned);
  if (typeof value === "string" && numberOf(value) === null) {
    if (/^(counter|ccw|counter.?clockwise|anti.?clockwise|left)$/i.test(value.trim())) return "counter";
    return /^(yes|true|y|cw|clockwise|right)$/i.test(value.trim());
  }
  const turns = typeof value === "string" ? (numberOf(value) ?? 0) : value;
  if (typeof turns !== "number" || turns === 1) return turns === true || turns === 1;
  const degrees = ((turns % 360) + 360) % 360;
  if (degrees === 0) return false;
  if (degrees === 90) return true;
  if (degrees === 270) return "counter";
  return { why: t("It is stored turned by {turns}°, but only quarter turns can be read.", { turns }) };
}

function frameOf(record: MetadataRecord, reading: Reading, rect: Rect, turned: Turned, index: number, name: string): ReadFrame {
  const { fields } = reading;
  const number = (path: string | undefined) => numberAt(record, path);
  const upright = turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h };
  const whole = { w: number(fields.fullW) ?? upright.w, h: number(fields.fullH) ?? upright.h };
  const at = insetOf(number(fields.insetX) ?? null, number(fields.insetY) ?? null, upright, whole, reading.insetAs);
  const sound =
    [whole.w, whole.h, at.x, at.y].every(Number.isInteger) &&
    whole.w > 0 &&
    whole.h > 0 &&
    encloses({ x: 0, y: 0, ...whole }, { ...at, ...upright });
  const size = sound ? whole : upright;
  return {
    name,
    rect,
    turned,
    inset: sound ? at : { x: 0, y: 0 },
    size,
    origin: originOf(number(fields.originX), number(fields.originY), size, reading),
    ...marksOf(record, reading),
    events: eventsAt(record, fields.event),
    ms: timeAt(record, fields.time, reading.timeAs, reading.tickMs),
    total: timeAt(record, fields.total, reading.timeAs, reading.tickMs),
    clip: textAt(record, fields.clip),
    facing: textAt(record, fields.facing),
    loop: fields.loop === undefined ? undefined : valueAt(record, fields.loop),
    index,
  };
}

const UNITS: Readonly<Record<string, number>> = { ms: 1, msec: 1, millis: 1, s: 1000, sec: 1000, secs: 1000, second: 1000, seconds: 1000 };

/** A record's time in milliseconds, from its field's unit or one beside it (`80ms`); null if there is none. */
export function timeAt(record: MetadataRecord, path: string | undefined, unit: Reading["timeAs"], tickMs?: number): number | null {
  const value = path === undefined ? undefined : valueAt(record, path);
  const withUnit = typeof value === "string" ? /^(\d+\.?\d*|\.\d+)\s*(ms|msec|millis|s|secs?|seconds?|fps|hz)$/i.exec(value.trim()) : null;
  if (withUnit) {
    const own = (withUnit[2] as string).toLowerCase();
    return own === "fps" || own === "hz" ? millis(Number(withUnit[1]), "fps") : millis(Number(withUnit[1]) * (UNITS[own] as number), "ms");
  }
  return millis(numberAt(record, path), unit, tickMs);
}

/** Milliseconds of a time in a unit, null if it is none. */
export function millis(value: number | null, unit: Reading["timeAs"], tickMs = 1000 / 60): number | null {
  if (value === null || value <= 0) return null;
  const ms = unit === "ms" ? value : unit === "seconds" ? value * 1000 : unit === "ticks" ? value * tickMs : 1000 / value;
  return Math.round(ms * 1000) / 1000;
}

function marksOf(record: MetadataRecord, { marks = [] }: Reading): Pick<ReadFrame, "boxes" | "points"> {
  const boxes: [string, Box[]][] = [];
  const points: [string, FramePoint][] = [];
  for (const mark of marks) {
    const [x, y, w, h] = [mark.x, mark.y, mark.w, mark.h].map((path) => numberAt(record, path));
    if (x === null || y === null || x === undefined || y === undefined) continue;
    if (mark.w === undefined) points.push([mark.name, { x: Math.round(x * 2) / 2, y: Math.round(y * 2) / 2 }]);
    else if (w && h && w > 0 && h > 0 && [x, y, w, h].every(Number.isInteger)) boxes.push([mark.name, [{ x, y, w, h }]]);
  }
  return { boxes: Object.fromEntries(boxes), points: Object.fromEntries(points) };
}

function originOf(x: number | null, y: number | null, size: Size, { originAs, originUp }: Reading): FramePoint | null {
  if (x === null || y === null) return null;
  const px = originAs === "share" ? x * size.w : x;
  const down = originAs === "share" ? y * size.h : y;
  const py = originUp ? size.h - down : down;
  return { x: Math.round(px * 2) / 2, y: Math.round(py * 2) / 2 };
}

/** Duplicate names get a number, because every frame has its own. */
function withOwnNames(frames: readonly ReadFrame[]): ReadFrame[] {
  const seen = new Set<string>();
  return frames.map((frame) => {
    let name = frame.name;
    for (let k = 2; seen.has(name); k++) name = `${frame.name} ${k}`;
    seen.add(name);
    return name === frame.name ? frame : { ...frame, name };
  });
}
