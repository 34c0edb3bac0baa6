/**
 * Computes the difference between two documents, small enough to store for every undo step.
 *
 * Edits share unchanged parts, so identical objects are skipped: the cost depends on the size of the change, not of the document. A changed
 * list is one replaced run between an unchanged head and tail. Holds: `applyChanges(before, differenceBetween(before, after))` deeply
 * equals `after`, including the order of keys, so that undo restores the same bytes.
 */
export type Change =
  /** The keys of a record in the order that they have afterwards. */
  | { readonly at: readonly (string | number)[]; readonly order: readonly string[] }
  | { readonly at: readonly (string | number)[]; readonly set: unknown }
  | { readonly at: readonly (string | number)[]; readonly unset: true }
  | {
      readonly at: readonly (string | number)[];
      readonly splice: { readonly from: number; readonly remove: number; readonly insert: readonly unknown[] };
    };

/** Both are plain JSON-like values. */
export function differenceBetween(before: unknown, after: unknown): Change[] {
  const changes: Change[] = [];
  compare(before, after, [], changes);
  return changes;
}

function compare(before: unknown, after: unknown, at: (string | number)[], changes: Change[]): void {
  if (Object.is(before, after)) return;
  if (Array.isArray(before) && Array.isArray(after)) compareLists(before, after, at, changes);
  else if (isRecord(before) && isRecord(after)) {
    for (const key of Object.keys(before)) if (!Object.hasOwn(after, key)) changes.push({ at: [...at, key], unset: true });
    for (const key of Object.keys(after))
      if (Object.hasOwn(before, key)) compare(before[key], after[key], [...at, key], changes);
      else changes.push({ at: [...at, key], set: after[key] });
    const order = Object.keys(after);
    const kept = Object.keys(before).filter((key) => Object.hasOwn(after, key));
    const added = order.filter((key) => !Object.hasOwn(before, key));
    if ([...kept, ...added].some((key, k) => key !== order[k])) changes.push({ at, order });
  } else changes.push({ at, set: after });
}

const MOST_BY_ITEM = 200;

function compareLists(before: readonly unknown[], after: readonly unknown[], at: (string | number)[], changes: Change[]): void {
  let head = 0;
  const shorter = Math.min(before.length, after.length);
  while (head < shorter && Object.is(before[head], after[head])) head++;
  let tail = 0;
  while (tail < shorter - head && Object.is(before[before.length - 1 - tail], after[after.length - 1 - tail])) tail++;
  const remove = before.length - head - tail;
  const insert = after.slice(head, after.length - tail);
  // Item by item is small for a few changes; for a sheet cut again, one run is faster to make and to apply.
  if (remove === insert.length && remove <= MOST_BY_ITEM)
    for (let k = 0; k < remove; k++) compare(before[head + k], after[head + k], [...at, head + k], changes);
  else changes.push({ at, splice: { from: head, remove, insert } });
}

/** A new value with the changes applied; `value` is not changed and shares its untouched parts. */
export function applyChanges(value: unknown, changes: readonly Change[]): unknown {
  return changes.reduce((current, change) => applyAt(current, change, 0), value);
}

function applyAt(value: unknown, change: Change, depth: number): unknown {
  if (depth === change.at.length) {
    if ("set" in change) return change.set;
    if ("order" in change) {
      const record = value as Record<string, unknown>;
      return Object.fromEntries(change.order.map((key) => [key, record[key]]));
    }
    if ("splice" in change) {
      const list = value as readonly unknown[];
      const { from, remove, insert } = change.splice;
      return [...list.slice(0, from), ...insert, ...list.slice(from + remove)];
    }
    throw new Error("A change that removes the whole document.");
  }
  const key = change.at[depth] as string | number;
  if (Array.isArray(value)) {
    const list = value.slice();
    list[key as number] = applyAt(value[key as number], change, depth + 1);
    return list;
  }
  const record = value as Record<string, unknown>;
  if ("unset" in change && depth === change.at.length - 1)
    return Object.fromEntries(Object.entries(record).filter(([each]) => each !== key));
  return { ...record, [key]: applyAt(record[key], change, depth + 1) };
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
