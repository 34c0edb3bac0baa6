/**
 * Handles paths through an example, with `*` for members of repeated lists or records, such as `frames.*.x`; a trailing `#` means a
 * member's key.
 */
import { type Place, placeAt } from "./place";

/** Whether a pattern's members can be written again: those of a list, or with keys of their own. */
export function canRepeat(root: Place, pattern: string): boolean {
  return parentsOf(root, pattern).every(({ list, children }) => list || [...children.values()].every(({ key }) => key !== null));
}

export function keyed(root: Place, pattern: string): boolean {
  return parentsOf(root, pattern).some(({ list }) => !list);
}

/** The places that hold the members of a pattern ending in `*`. */
function parentsOf(root: Place, pattern: string): Place[] {
  return placesOf(root, pattern.replace(/\.?\*$/, ""));
}

/** All places at a path with `*` for any member. */
export function placesOf(root: Place, pattern: string): Place[] {
  if (pattern === "") return [root];
  const star = pattern.indexOf("*");
  if (star < 0) return [placeAt(root, pattern)].filter((each) => each !== null);
  const before = star === 0 ? root : placeAt(root, pattern.slice(0, star - 1));
  const rest = pattern.slice(star + 2);
  return before ? [...before.children.values()].flatMap((each) => placesOf(each, rest)) : [];
}

/** A reading's path as a path of the whole example; null if it is nowhere. `record` is a record's own path. */
export function resolved(path: string, pattern: string, record: string, root: Place): string | null {
  const parts = pattern.split(".");
  const stars = parts.flatMap((part, k) => (part === "*" ? [k] : []));
  const ups = path.split("../").length - 1;
  if (path.endsWith("$key")) return `${parts.slice(0, (stars.at(-1 - ups) ?? 0) + 1).join(".")}#`;
  if (ups === 0) return path === "" ? pattern : `${pattern}.${path}`;
  const wanted = path.replace("../", "");
  for (let length = parts.length - 1; length >= 0; length--) {
    const around = parts.slice(0, length).join(".");
    const place = placeAt(root, memberPath(around, record));
    if (place && !place.list && placeAt(place, wanted)) return around === "" ? wanted : `${around}.${wanted}`;
  }
  return null;
}

/** The path to one member of a pattern: its stars filled in from the path of a record below it. Keys with dots match as far as they fit. */
function memberPath(pattern: string, record: string): string {
  if (!pattern.includes("*")) return pattern;
  const matcher = new RegExp(`^${pattern.replace(/[.+^${}()|[\]\\]/g, "\\$&").replaceAll("*", "(.+?)")}(?=\\.)`);
  return matcher.exec(record)?.[0] ?? pattern;
}
