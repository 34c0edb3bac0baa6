/** Reading frames from a metadata file by a known reading: what fits is placed, what does not is listed with its reason. */
import { encloses, type FramePoint, type Reading, type Rect, type Size } from "../model";
import type { Described } from "./described";
import { groupAt, type MetadataRecord } from "./groups";
import { gridFor, isInside, numberAt, rectangleOf, valueAt } from "./rectangles";
import { numberOf, type ParsedMetadata } from "./tree";

export interface ReadFrame {
  readonly name: string;
  /** Where it lies on the picture, as stored there. */
  readonly rect: Rect;
  /** Stored rotated by 90° clockwise. */
  readonly turned: boolean;
  /** Where the rectangle sits in the untrimmed frame, and how large that is; both upright. */
  readonly inset: { readonly x: number; readonly y: number };
  readonly size: Size;
  readonly origin: FramePoint | null;
  /** Milliseconds, if the record says how long it shows. */
  readonly ms: number | null;
  /** The clip and facing that the record says it belongs to. */
  readonly clip: string | null;
  readonly facing: string | null;
  /** What it says of how its clip plays, as it says it. */
  readonly loop: unknown;
  /** The record's place among all of its kind, also of other pictures and unplaced ones. */
  readonly index: number;
}

export interface Unplaced {
  readonly where: string;
  readonly why: string;
}

export interface ReadFrames {
  readonly frames: ReadFrame[];
  readonly unplaced: Unplaced[];
}

/** Never throws: what a record lacks is told in `unplaced`. */
export function readFrames(parsed: ParsedMetadata, reading: Reading, { picture, coverage }: Described): ReadFrames {
  const group = groupAt(parsed, reading.frames, Object.values(reading.fields));
  if (group.records.length === 0) return { frames: [], unplaced: [{ where: reading.frames, why: "The file has no such records." }] };
  const grid = gridFor(group.records, reading.fields, coverage);
  const frames: ReadFrame[] = [];
  const unplaced: Unplaced[] = [];
  const several = severalPictures(group.records, reading);
  const placed = (record: MetadataRecord, index: number): ReadFrame | string => {
    const of = reading.fields.picture === undefined ? undefined : valueAt(record, reading.fields.picture);
    if (several && picture !== "" && typeof of === "string" && stem(of) !== stem(picture)) return `It belongs to the picture ${of}.`;
    const given = rectangleOf(record, reading.fields, grid);
    if (!given) return `It does not say ${missing(record, reading)}.`;
    const turned = isTurned(record, reading);
    if (typeof turned === "string") return turned;
    const stored = turned && reading.turnedAs === "upright" ? { ...given, w: given.h, h: given.w } : given;
    if (![stored.x, stored.y, stored.w, stored.h].every(Number.isInteger)) return "Its numbers are not whole pixels.";
    if (stored.w <= 0 || stored.h <= 0) return `Its size is ${stored.w} × ${stored.h}.`;
    if (!isInside(stored, coverage))
      return `It reaches to ${stored.x + stored.w}, ${stored.y + stored.h}, outside the ${coverage.width} × ${coverage.height} px picture.`;
    return frameOf(record, reading, stored, turned, index, picture);
  };
  for (const [index, record] of group.records.entries()) {
    const outcome = placed(record, index);
    if (typeof outcome === "string") unplaced.push({ where: record.path, why: outcome });
    else frames.push(outcome);
  }
  return { frames: withOwnNames(frames), unplaced };
}

function severalPictures(records: readonly MetadataRecord[], { fields }: Reading): boolean {
  return fields.picture !== undefined && new Set(records.map((record) => valueAt(record, fields.picture as string))).size > 1;
}

function stem(path: string): string {
  return (path.split(/[\\/]/).pop() ?? path).replace(/\.[^.]*$/, "").toLowerCase();
}

function missing(record: MetadataRecord, { fields }: Reading): string {
  const absent = Object.entries(fields).filter(
    ([field, path]) => ["x", "y", "w", "h", "right", "bottom", "column", "row", "index"].includes(field) && numberAt(record, path) === null,
  );
  return absent.map(([field, path]) => `${field} (at ${path})`).join(", ") || "how large it is";
}

/** Whether it is stored turned by 90° clockwise; in words why it cannot be read if it is turned otherwise. */
function isTurned(record: MetadataRecord, { fields }: Reading): boolean | string {
  const value = fields.turned === undefined ? false : valueAt(record, fields.turned);
  if (typeof value === "string" && numberOf(value) === null) return /^(yes|true|y)$/i.test(value.trim());
  const turns = typeof value === "string" ? (numberOf(value) ?? 0) : value;
  if (typeof turns !== "number" || turns === 1) return turns === true || turns === 1;
  const degrees = ((turns % 360) + 360) % 360;
  if (degrees === 0 || degrees === 90) return degrees === 90;
  return `It is stored turned by ${turns}°, and only turns by 90° clockwise can be read.`;
}

function frameOf(record: MetadataRecord, reading: Reading, rect: Rect, turned: boolean, index: number, picture: string): ReadFrame {
  const { fields } = reading;
  const number = (path: string | undefined) => numberAt(record, path);
  const upright = turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h };
  const whole = { w: number(fields.fullW) ?? upright.w, h: number(fields.fullH) ?? upright.h };
  const at = { x: number(fields.insetX) ?? 0, y: number(fields.insetY) ?? 0 };
  const sound =
    [whole.w, whole.h, at.x, at.y].every(Number.isInteger) &&
    whole.w > 0 &&
    whole.h > 0 &&
    encloses({ x: 0, y: 0, ...whole }, { ...at, ...upright });
  const size = sound ? whole : upright;
  const name = fields.name === undefined ? undefined : valueAt(record, fields.name);
  const text = (path: string | undefined) => {
    const value = path === undefined ? undefined : valueAt(record, path);
    return typeof value === "string" || typeof value === "number" ? String(value) : null;
  };
  return {
    name: name === undefined || name === "" || name === null ? `${text(fields.clip) ?? (stem(picture) || "frame")}_${index}` : String(name),
    rect,
    turned,
    inset: sound ? at : { x: 0, y: 0 },
    size,
    origin: originOf(number(fields.originX), number(fields.originY), size, reading),
    ms: millis(number(fields.time), reading.timeAs),
    clip: text(fields.clip),
    facing: text(fields.facing),
    loop: fields.loop === undefined ? undefined : valueAt(record, fields.loop),
    index,
  };
}

/** Milliseconds of a time in a unit, null if it is none. */
export function millis(value: number | null, unit: Reading["timeAs"]): number | null {
  if (value === null || value <= 0) return null;
  const ms = unit === "ms" ? value : unit === "seconds" ? value * 1000 : 1000 / value;
  return Math.round(ms * 1000) / 1000;
}

function originOf(x: number | null, y: number | null, size: Size, { originAs, originUp }: Reading): FramePoint | null {
  if (x === null || y === null) return null;
  const px = originAs === "share" ? x * size.w : x;
  const down = originAs === "share" ? y * size.h : y;
  const py = originUp ? size.h - down : down;
  return { x: Math.round(px * 2) / 2, y: Math.round(py * 2) / 2 };
}

/** Names that come twice get a number, since every frame has its own. */
function withOwnNames(frames: readonly ReadFrame[]): ReadFrame[] {
  const seen = new Set<string>();
  return frames.map((frame) => {
    let name = frame.name;
    for (let k = 2; seen.has(name); k++) name = `${frame.name} ${k}`;
    seen.add(name);
    return name === frame.name ? frame : { ...frame, name };
  });
}
