/** Computes the rectangle of a record, given how the file expresses it. */
import { type GridSuggestion, suggestGrids } from "../cut";
import type { FrameField, Rect, Size, Spacing } from "../model";
import type { Coverage } from "../raster";
import { isSeen } from "./described";
import type { MetadataRecord } from "./groups";
import { numberAt, type RectReading } from "./values";

/** The picture's own grid, for files that give cells only by column and row. */
export interface CellGrid {
  readonly cell: Size;
  readonly margin: Spacing;
  readonly gap: Spacing;
  readonly columns: number;
}

/**
 * The rectangle in whole pixels, y down; null if a number is missing. Not yet checked against the picture. `grid` is used if the file gives
 * cells without their size.
 */
export function rectangleOf(
  record: MetadataRecord,
  reading: RectReading,
  grid: CellGrid | null,
  picture: { readonly width: number; readonly height: number },
): Rect | null {
  const { fields } = reading;
  if (fields.index !== undefined || fields.column !== undefined) return cellOf(record, reading, grid, picture);
  const sign = reading.negated ? -1 : 1;
  const number = (field: FrameField, along: number) => {
    const value = numberAt(record, fields[field]);
    return value === null ? null : reading.rectAs === "share" ? wholeShare(value * along) : whole(value);
  };
  const along = (field: FrameField) => number(field, picture.width);
  const down = (field: FrameField) => number(field, picture.height);
  const x = signed(along("x"), sign);
  const y = signed(down("y"), sign);
  const right = along("right");
  const bottom = down("bottom");
  const last = reading.inclusive ? 1 : 0;
  const w = right !== null && x !== null ? Math.abs(right - x) + last : (along("w") ?? along("cellW"));
  const h = bottom !== null && y !== null ? Math.abs(bottom - y) + last : (down("h") ?? down("cellH"));
  if (x === null || y === null || w === null || h === null) return null;
  if (reading.centred) {
    // Shares with few digits say half a pixel a little too low.
    const least = reading.rectAs === "share" ? 0.1 : 0;
    return { x: Math.floor(x - w / 2 + least), y: Math.floor((reading.yAs ? picture.height - y : y) - h / 2 + least), w, h };
  }
  // Corners may be in any order: upside down is the same rectangle.
  const left = right !== null ? Math.min(x, right) : x;
  const top = bottom !== null ? Math.min(y, bottom) : y;
  switch (reading.yAs) {
    case "up":
      return { x: left, y: picture.height - top - h, w, h };
    case "top-up":
      return { x: left, y: picture.height - (bottom !== null ? top + h : top), w, h };
    default:
      return { x: left, y: top, w, h };
  }
}

function signed(value: number | null, sign: 1 | -1): number | null {
  // No minus nought: it is not equal to nought everywhere.
  return value === null ? null : value === 0 ? 0 : sign * value;
}

/** Whole but for the rounding of floating-point numbers. */
function whole(value: number): number {
  const rounded = Math.round(value);
  return Math.abs(value - rounded) < 1e-3 ? rounded : value;
}

/** Shares are written with few digits: three say a place on a 512 px picture to a quarter of a pixel. */
export function wholeShare(value: number): number {
  const rounded = Math.round(value);
  return Math.abs(value - rounded) < 0.3 ? rounded : value;
}

function cellOf(
  record: MetadataRecord,
  { fields, indexFrom = 0, yAs }: RectReading,
  grid: CellGrid | null,
  picture: { readonly width: number; readonly height: number },
): Rect | null {
  const number = (field: FrameField) => numberAt(record, fields[field]);
  const w = number("cellW") ?? grid?.cell.w ?? null;
  const h = number("cellH") ?? grid?.cell.h ?? null;
  if (w === null || h === null || w <= 0 || h <= 0) return null;
  const own = fields.cellW === undefined ? grid : null;
  const margin = { x: number("marginX") ?? own?.margin.x ?? 0, y: number("marginY") ?? own?.margin.y ?? 0 };
  const gap = { x: number("gapX") ?? own?.gap.x ?? 0, y: number("gapY") ?? own?.gap.y ?? 0 };
  const fitting = Math.floor((picture.width - margin.x + gap.x) / (w + gap.x));
  const columns = number("columns") ?? grid?.columns ?? fitting;
  const index = number("index");
  const column = index !== null && columns > 0 ? (index - indexFrom) % columns : minus(number("column"), indexFrom);
  const row = index !== null && columns > 0 ? Math.floor((index - indexFrom) / columns) : minus(number("row") ?? indexFrom, indexFrom);
  if (column === null || row === null) return null;
  const y = margin.y + row * (h + gap.y);
  return { x: margin.x + column * (w + gap.x), y: yAs === "up" ? picture.height - y - h : y, w, h };
}

function minus(value: number | null, from: number): number | null {
  return value === null ? null : value - from;
}

export function isInside({ x, y, w, h }: Rect, { width, height }: { width: number; height: number }): boolean {
  return [x, y, w, h].every(Number.isInteger) && x >= 0 && y >= 0 && w > 0 && h > 0 && x + w <= width && y + h <= height;
}

/** The picture's own grid, for fields that give cells without their size; null for others, or without a grid of enough cells. */
export function gridFor(records: readonly MetadataRecord[], { fields, indexFrom = 0 }: RectReading, coverage: Coverage): CellGrid | null {
  if ((fields.column === undefined && fields.index === undefined) || fields.cellW !== undefined) return null;
  if (!isSeen(coverage)) return null;
  const most = (path: string | undefined) => records.reduce((max, record) => Math.max(max, (numberAt(record, path) ?? 0) - indexFrom), 0);
  const told = numberAt(records[0] as MetadataRecord, fields.columns);
  const enough = ({ columns, rows, spread }: GridSuggestion) =>
    !spread &&
    (told === null || columns === told) &&
    (fields.index === undefined ? columns > most(fields.column) && rows > most(fields.row) : columns * rows > most(fields.index));
  const suggested = gridsOf(coverage).find(enough);
  if (suggested) return suggested;
  if (fields.index !== undefined && told === null) return null;
  const columns = told ?? most(fields.column) + 1;
  const rows = fields.index === undefined ? most(fields.row) + 1 : Math.floor(most(fields.index) / columns) + 1;
  const cell = { w: Math.floor(coverage.width / columns), h: Math.floor(coverage.height / rows) };
  return cell.w > 0 && cell.h > 0 ? { cell, margin: NONE, gap: NONE, columns } : null;
}

const NONE: Spacing = { x: 0, y: 0 };

const knownGrids = new WeakMap<Coverage, GridSuggestion[]>();

/** Suggestions for a picture, found once however many readings ask. */
function gridsOf(coverage: Coverage): GridSuggestion[] {
  const known = knownGrids.get(coverage) ?? suggestGrids(coverage, 12);
  knownGrids.set(coverage, known);
  return known;
}
