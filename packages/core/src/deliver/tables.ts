/** Writes CSV tables beside the pictures, for programs and for people (RFC 4180, lines ending in LF). */
import Papa from "papaparse";
import type { Atlas, AtlasFrame } from "../atlas";
import { utf8 } from "../codec";
import { type Counting, entriesOf, type FramePoint, microsFromMs, tickAt } from "../model";

/**
 * Every step of every clip: its start and duration, in ms and in ticks of a clock of `ticksPerSecond`. A step begins at the tick nearest to
 * its exact time, so that rounding never adds up; `error_ms` is how late that tick is.
 */
export function timesTable(atlas: Atlas, ticksPerSecond: number, from: Counting["from"]): Uint8Array {
  const rows: (string | number)[][] = [["clip", "step", "frame", "start_ms", "duration_ms", "start_ticks", "duration_ticks", "error_ms"]];
  for (const [clip, { steps }] of entriesOf(atlas.clips)) {
    let micros = 0;
    for (const [k, { frame, ms }] of steps.entries()) {
      const start = micros / 1000;
      const tick = tickAt(micros, ticksPerSecond);
      micros += microsFromMs(ms);
      const next = tickAt(micros, ticksPerSecond);
      rows.push([clip, k + from, frame, start, ms, tick, next - tick, decimals((tick / ticksPerSecond) * 1000 - start)]);
    }
  }
  return table(rows);
}

/** The greatest distance between a step's true beginning and its tick, in ms; 0 if every step begins on a tick. */
export function worstTickError(atlas: Atlas, ticksPerSecond: number): number {
  let worst = 0;
  for (const { steps } of Object.values(atlas.clips)) {
    let micros = 0;
    for (const { ms } of steps) {
      micros += microsFromMs(ms);
      worst = Math.max(worst, Math.abs((tickAt(micros, ticksPerSecond) / ticksPerSecond) * 1000 - micros / 1000));
    }
  }
  return decimals(worst);
}

/** Every frame's rectangle, size and origin. Only pages count from `from`. */
export function framesTable(atlas: Atlas, counting: Counting): Uint8Array {
  const columns = ["frame", "page", "image", "x", "y", "w", "h", "turned", "mirrored", "inset_x", "inset_y", "width", "height", "origin_x"];
  const unit = atlas.pixelsPerUnit;
  const rows: (string | number)[][] = [[...columns, "origin_y", ...(unit === undefined ? [] : ["pixels_per_unit"])]];
  for (const [name, frame] of entriesOf(atlas.frames)) {
    const { page, rect, turned, mirrored, inset, size } = frame;
    const origin = pointCounted(frame.origin, size, counting);
    rows.push([
      name,
      page + counting.from,
      atlas.pages[page]?.image ?? "",
      ...[rect.x, rect.y, rect.w, rect.h],
      turned ? 1 : 0,
      mirrored ? 1 : 0,
      ...[inset.x, inset.y, size.w, size.h, origin.x, origin.y],
      // In pixels of the row's page, so that a table is self-contained.
      ...(unit === undefined ? [] : [unit * (atlas.pages[page]?.scale ?? 1)]),
    ]);
  }
  return table(rows);
}

/** Every corner of every outline. Polygons and their corners count from `from`, as pages do; places are as the origins of `framesTable`. */
export function outlinesTable(atlas: Atlas, counting: Counting): Uint8Array {
  const rows: (string | number)[][] = [["frame", "outline", "polygon", "corner", "x", "y"]];
  for (const [name, { outlines = {}, size }] of entriesOf(atlas.frames))
    for (const [kind, polygons] of Object.entries(outlines))
      for (const [polygon, corners] of polygons.entries())
        for (const [corner, at] of corners.entries()) {
          const { x, y } = pointCounted(at, size, counting);
          rows.push([name, kind, polygon + counting.from, corner + counting.from, x, y]);
        }
  return table(rows);
}

/** A point of a frame as asked for: in pixels or in fractions of its untrimmed size, from the top or from the bottom. */
function pointCounted(point: FramePoint, size: AtlasFrame["size"], { origin: unit, y }: Counting): FramePoint {
  const down = y === "down" ? point.y : size.h - point.y;
  return unit === "pixels"
    ? { x: decimals(point.x), y: decimals(down) }
    : { x: decimals(point.x / size.w, 6), y: decimals(down / size.h, 6) };
}

/** Rounded to this many decimals; never minus 0. */
function decimals(value: number, count = 3): number {
  return Math.round(value * 10 ** count) / 10 ** count + 0;
}

function table(rows: readonly (string | number)[][]): Uint8Array {
  return utf8(`${Papa.unparse(rows as (string | number)[][], { newline: "\n" })}\n`);
}
