/** Removes lists of corners from a reading: it may have taken a point, an origin or a clip from them, which they are not. */
import type { Reading } from "../model";
import type { OutlineList } from "./outline-lists";

/** Whether a list has what a frame cannot be told without: then it is no list of corners. */
export function holdsFrame({ fields }: Reading, list: string): boolean {
  return Object.entries(fields).some(([field, path]) => !/^(origin|inset|full)/.test(field) && path?.startsWith(`${list}.`));
}

/** The reading without what it takes from lists of corners; the very reading if it takes nothing of them. */
export function withoutLists(reading: Reading, lists: readonly OutlineList[]): Reading {
  const isIn = (path: string | undefined) => lists.some((list) => path?.startsWith(`${list.path}.`));
  const fields = Object.fromEntries(Object.entries(reading.fields).filter(([, path]) => !isIn(path))) as Reading["fields"];
  const marks = reading.marks?.filter(({ x }) => !isIn(x));
  const clips = lists.some(({ path }) => liesUnder(reading.clips?.records ?? "", `${reading.frames}.${path}`)) ? null : reading.clips;
  const same = Object.keys(fields).length === Object.keys(reading.fields).length && marks?.length === reading.marks?.length;
  if (same && clips === reading.clips) return reading;
  const { marks: _before, ...rest } = reading;
  return { ...rest, fields, clips, ...(marks && marks.length > 0 ? { marks } : {}) };
}

/** Whether a pattern is of members of another one; a star is any name. */
function liesUnder(pattern: string, above: string): boolean {
  const [parts, over] = [pattern.split("."), above.split(".")];
  return parts.length >= over.length && over.every((part, k) => part === "*" || parts[k] === "*" || parts[k] === part);
}
