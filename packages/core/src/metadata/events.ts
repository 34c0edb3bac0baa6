/** Reads events of metadata: a word or a list of words on a frame or a step, absent from most records. */
import type { MetadataRecord } from "./groups";
import { EVENT_WORDS, lastPart, says } from "./words";

/** The field of records that says events: a text or a list of texts under a name that says so, in at least one of them; null if there is none. */
export function eventField(records: readonly MetadataRecord[], used: ReadonlySet<string>): string | null {
  for (const { fields, lists } of records)
    for (const path of [...fields.keys(), ...lists.keys()]) {
      const own = path.replace(/\.\d+$/, "");
      if (used.has(own) || !says(lastPart(own), EVENT_WORDS)) continue;
      if (eventsAt({ fields, lists }, own).length > 0) return own;
    }
  return null;
}

/** The events that a record says in a field, in their order; none where it says none. */
export function eventsAt({ fields, lists }: Pick<MetadataRecord, "fields" | "lists">, path: string | undefined): string[] {
  if (path === undefined) return [];
  const one = fields.get(path);
  const given =
    lists.get(path) ?? (one === undefined ? [...fields].filter(([key]) => isMemberOf(key, path)).map(([, value]) => value) : [one]);
  const words = given.flatMap((value) => (typeof value === "string" ? value.split(/[,;|]/) : []));
  return [...new Set(words.map((word) => word.trim()).filter((word) => word !== ""))];
}

/** Whether a field is a member of a list at `path`. */
function isMemberOf(key: string, path: string): boolean {
  return key.startsWith(`${path}.`) && /^\d+$/.test(key.slice(path.length + 1));
}
