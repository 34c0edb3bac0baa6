/** Names frames: as the file does, or else by section or picture and a number. */
import type { Reading } from "../model";
import type { MetadataRecord } from "./groups";
import { textAt, valueAt } from "./values";
import { says } from "./words";

/**
 * A name for each record. Unique names stay; names that are only unique within their section (`0`, `1`, `2` in `walk` and in `strike`) are
 * joined to it with `/`. Records without a name are numbered within their section, or else within the picture.
 */
export function namesOf(records: readonly MetadataRecord[], reading: Reading, picture: string): string[] {
  const { fields } = reading;
  const sections = records.map((record) => sectionOf(record, reading));
  const own = records.map((record) => (fields.name === undefined ? null : givenName(record, fields.name)));
  const counts = new Map<string, number>();
  for (const name of own) if (name !== null) counts.set(name, (counts.get(name) ?? 0) + 1);
  // Local if several sections have the same ones, or if they are bare numbers inside of something.
  const local =
    sections.some((section) => section !== null) &&
    (own.some((name) => name !== null && (counts.get(name) ?? 0) > 1) || own.every((name) => name === null || /^\d+$/.test(name)));
  const numbers = new Map<string, number>();
  return own.map((name, k) => {
    const section = sections[k] as string | null;
    if (name !== null) return local && section !== null && section !== name ? `${section}/${name}` : name;
    const base = section ?? (picture || "frame");
    const number = numbers.get(base) ?? 0;
    numbers.set(base, number + 1);
    return `${base}_${number}`;
  });
}

function givenName(record: MetadataRecord, path: string): string | null {
  const value = valueAt(record, path);
  return value === undefined || value === "" || value === null ? null : String(value);
}

/** A record's section: the clip that it names, with its facing, or else the names around it. */
function sectionOf(record: MetadataRecord, { fields }: Reading): string | null {
  const clip = textAt(record, fields.clip);
  const facing = textAt(record, fields.facing);
  if (clip !== null) return facing === null || !fields.facing?.startsWith("../") ? clip : `${clip}/${facing}`;
  const around = record.keys.slice(0, -1).filter((key) => !/^\d+$/.test(key));
  return around.length === 0 ? aroundName(record) : around.join("/");
}

/** What the record right around it calls itself, if that is no picture. */
function aroundName({ around }: MetadataRecord): string | null {
  for (const [path, value] of around[0] ?? [])
    if (typeof value === "string" && says(path, ["name", "title", "label"]) && !/\.[A-Za-z]{3,4}$/.test(value)) return value;
  return null;
}
