/** Finds the field that names records. */
import type { MetadataRecord } from "./groups";
import type { FieldPaths } from "./values";
import { lastPart, NAME_WORDS, says } from "./words";

export function commonFields(records: readonly MetadataRecord[]): string[] {
  const counts = new Map<string, number>();
  for (const { fields } of records) for (const path of fields.keys()) counts.set(path, (counts.get(path) ?? 0) + 1);
  return [...counts].filter(([, count]) => count >= records.length * 0.3).map(([path]) => path);
}

/** Texts that distinguish the records: their key, or a field. */
export function nameField(records: readonly MetadataRecord[], rectangle: FieldPaths, keyed: boolean): string | null {
  const used = new Set(Object.values(rectangle));
  const texts = commonFields(records).filter(
    (path) => !used.has(path) && records.every((record) => ["string", "number", "undefined"].includes(typeof record.fields.get(path))),
  );
  const count = (path: string) => new Set(records.map((record) => record.fields.get(path))).size;
  const distinct = (path: string) => count(path) >= records.length * 0.9;
  const isText = (path: string) => records.some((record) => typeof record.fields.get(path) === "string");
  const withoutHashes = texts.filter((path) => !looksRandom(records, path));
  const named = withoutHashes
    .filter((path) => says(lastPart(path), NAME_WORDS) && distinct(path) && isText(path))
    // An identifier is before the name more often than after it.
    .toSorted((a, b) => Number(says(lastPart(b), PLAIN_NAMES)) - Number(says(lastPart(a), PLAIN_NAMES)));
  // Keys that are the same everywhere name a part of each record, not the record; those that we counted ourselves name nothing.
  const isNaming = new Set(records.map(({ keys }) => keys.join("\n"))).size === records.length;
  const counted = records.every(
    ({ keys }) => / \(\d+\)$/.test(keys.at(-1) as string) || records[0]?.keys.at(-1) === keys.at(-1)?.replace(/ \(\d+\)$/, ""),
  );
  const numbered = records.every(({ keys }) => /^\d+$/.test(keys.at(-1) as string));
  const byKey = keyed && isNaming && !counted && new Set(records.map(({ keys }) => keys.at(-1))).size > 1;
  // If the keys are plain numbers, a separate name is the name.
  if (byKey && !(numbered && named.length > 0)) return "$key";
  return (
    named[0] ??
    withoutHashes.find((path) => isText(path) && distinct(path) && records.length > 1) ??
    // Names that are only unique within their sections, including numbers if the field is called name.
    withoutHashes.find((path) => says(lastPart(path), PLAIN_NAMES) && records.length > 1 && count(path) > 1) ??
    withoutHashes.find((path) => isText(path) && says(lastPart(path), NAME_WORDS) && records.length > 1 && count(path) > 1) ??
    (byKey ? "$key" : null)
  );
}

const PLAIN_NAMES = ["name", "filename", "label", "title"];

/** Hashes, identifiers and colours are no names. */
function looksRandom(records: readonly MetadataRecord[], path: string): boolean {
  const values = records.map((record) => record.fields.get(path)).filter((value): value is string => typeof value === "string");
  if (values.length === 0) return false;
  const isColour = values.every((value) => /^(#[0-9a-f]{3,8}|0x[0-9a-f]{1,16})$/i.test(value));
  const isHash = values.every(
    (value) => /^[0-9a-f]{6,}$|^[0-9a-f]{8}-[0-9a-f-]{20,}$|^[A-Za-z0-9+/]{20,}={0,2}$/i.test(value) && /\d/.test(value),
  );
  return isColour || isHash;
}
