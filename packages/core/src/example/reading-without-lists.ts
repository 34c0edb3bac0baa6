/** Removes lists of corners from a reading that mistook them for a point, an origin or a clip. */
import type { Reading } from "../model";
import type { OutlineList } from "./outline-lists";

/** Whether a list holds something essential to a frame: then it is not a list of corners. */
export function holdsFrame({ fields }: Reading, list: string): boolean {
  return Object.entries(fields).some(([field, path]) => !/^(origin|inset|full)/.test(field) && path?.startsWith(`${list}.`));
}

/** The reading without what it takes from lists of corners; the same object if it takes nothing from them. */
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

/** Whether a pattern belongs to members of another; a star matches any name. */
function liesUnder(pattern: string, above: string): boolean {
  const [parts, over] = [pattern.split("."), above.split(".")];
  return parts.length >= over.length && over.every((part, k) => part === "*" || parts[k] === "*" || parts[k] === part);
}
