/** Reads the value under a path of a record, and interprets its numbers. */
import type { FrameField, Reading } from "../model";
import { numberOf } from "../notation";
import type { MetadataRecord } from "./groups";

export type FieldPaths = Partial<Record<FrameField, string>>;

/** The meaning of a rectangle's numbers: their fields, unit and signs. */
export type RectReading = Pick<Reading, "fields" | "rectAs" | "yAs" | "negated" | "inclusive" | "centred" | "indexFrom">;

/** A record's value by its path: `$key`, `../$key` for the one around it, a field, or with `../` that of the nearest record around it. */
export function valueAt(record: MetadataRecord, path: string): unknown {
  if (path.endsWith("$key")) return record.keys.at(-1 - path.split("../").length + 1);
  if (!path.startsWith("../")) return record.fields.get(path);
  const wanted = path.slice(3);
  return record.around.find((each) => each.has(wanted))?.get(wanted);
}

export function numberAt(record: MetadataRecord, path: string | undefined): number | null {
  const value = path === undefined ? undefined : valueAt(record, path);
  if (typeof value === "string") return numberOf(value);
  return typeof value === "number" && Number.isFinite(value) ? value : null;
}

/** A text or number as text, null if there is none. */
export function textAt(record: MetadataRecord, path: string | undefined): string | null {
  const value = path === undefined ? undefined : valueAt(record, path);
  return typeof value === "string" || typeof value === "number" ? String(value) : null;
}
