/**
 * Merges two versions of a value with a common origin: a change on one side is taken, equal changes are taken once, and different changes
 * conflict, with ours kept. List items are matched by name or key, so that edits of different items merge wherever they are; lists of steps
 * are merged like lines of text (a three-way comparison by longest common subsequences).
 */

export interface Clash {
  /** Field names and item names, from the outside in. */
  readonly path: readonly string[];
  readonly how: "both changed it" | "we removed it, they changed it" | "they removed it, we changed it" | "both moved it";
}

/** The field that identifies the items of a list; other lists are merged as a whole. */
const KEYS: Readonly<Record<string, string>> = {
  sources: "id",
  frames: "key",
  layers: "name",
  readings: "name",
  examples: "name",
  palettes: "name",
  marks: "name",
  clips: "name",
  actions: "name",
  parts: "name",
  behaviours: "name",
  inputs: "name",
  rules: "name",
  stages: "name",
  zones: "name",
  effects: "name",
  extras: "name",
  drives: "name",
  deliveries: "name",
  data: "name",
  eventValues: "name",
};
/** Lists of unnamed items whose order matters. */
const SEQUENCES: ReadonlySet<string> = new Set(["steps", "platforms", "hits", "names", "events", "densities", "conditions"]);
/** Values that only make sense as a whole, such as a rectangle or a recipe. */
const WHOLES: ReadonlySet<string> = new Set([
  ...["cut", "clearing", "rect", "size", "inset", "origin", "trace", "start", "area", "backdrop", "world", "reading", "counting"],
  ...["point", "value", "when", "track", "account", "keys", "pieces"],
]);

type Fields = Readonly<Record<string, unknown>>;

/** `undefined` stands for a missing value. Ours is kept if both sides differ; each such place is reported to `clash`. */
export function merged(base: unknown, ours: unknown, theirs: unknown, path: readonly string[], clash: (found: Clash) => void): unknown {
  if (same(ours, theirs) || same(base, theirs)) return ours;
  if (same(base, ours)) return theirs;
  const field = path.at(-1) ?? "";
  const whole = WHOLES.has(field);
  if (!whole && isFields(ours) && isFields(theirs)) return mergedFields(isFields(base) ? base : {}, ours, theirs, path, clash);
  if (!whole && Array.isArray(ours) && Array.isArray(theirs)) {
    const before = Array.isArray(base) ? base : [];
    const key = KEYS[field];
    if (key !== undefined && [before, ours, theirs].every((list) => isKeyed(list, key)))
      return mergedByKey(before, ours, theirs, key, path, clash);
    if (SEQUENCES.has(field)) {
      const list = mergedSequence(before, ours, theirs);
      if (list) return list;
    }
  }
  if (ours === undefined || theirs === undefined) {
    clash({ path, how: ours === undefined ? "we removed it, they changed it" : "they removed it, we changed it" });
    // What was worked on is kept: it can be removed again, and not brought back.
    return ours ?? theirs;
  }
  clash({ path, how: "both changed it" });
  return ours;
}

function mergedFields(base: Fields, ours: Fields, theirs: Fields, path: readonly string[], clash: (found: Clash) => void): Fields {
  // Each kind has its own fields: two kinds are not mixed.
  const kind = ["by", "shape", "kind"].find((each) => ours[each] !== theirs[each] && (each in ours || each in theirs));
  if (kind !== undefined) {
    clash({ path, how: "both changed it" });
    return ours;
  }
  const names = [...new Set([...Object.keys(ours), ...Object.keys(theirs)])];
  return Object.fromEntries(
    names.flatMap((name): [string, unknown][] => {
      const at = (fields: Fields) => (Object.hasOwn(fields, name) ? fields[name] : undefined);
      const value = merged(at(base), at(ours), at(theirs), [...path, name], clash);
      return value === undefined ? [] : [[name, value]];
    }),
  );
}

function mergedByKey(
  base: readonly Fields[],
  ours: readonly Fields[],
  theirs: readonly Fields[],
  key: string,
  path: readonly string[],
  clash: (found: Clash) => void,
): Fields[] {
  const byKey = (list: readonly Fields[]) => new Map(list.map((each) => [each[key] as string, each]));
  const [before, own, other] = [byKey(base), byKey(ours), byKey(theirs)];
  const values = new Map<string, Fields>();
  for (const name of new Set([...own.keys(), ...other.keys()])) {
    const value = merged(before.get(name), own.get(name), other.get(name), [...path, name], clash);
    if (value !== undefined) values.set(name, value as Fields);
  }
  // The side that reordered the items wins; ours if both did.
  const common = (list: ReadonlyMap<string, Fields>) =>
    [...list.keys()].filter((name) => before.has(name) && own.has(name) && other.has(name));
  const [was, mine, hers] = [common(before), common(own), common(other)];
  if (!same(mine, was) && !same(hers, was) && !same(mine, hers)) clash({ path, how: "both moved it" });
  const [main, more] = same(mine, was) ? [other, own] : [own, other];
  return woven([...main.keys()], [...more.keys()])
    .filter((name) => values.has(name))
    .map((name) => values.get(name) as Fields);
}

/** The first list plus the items that only the second has, each after its predecessor there. */
function woven(main: readonly string[], more: readonly string[]): string[] {
  const list = [...main];
  const has = new Set(main);
  for (const [k, name] of more.entries()) {
    if (has.has(name)) continue;
    has.add(name);
    const after = k === 0 ? -1 : list.indexOf(more[k - 1] as string);
    list.splice(after + 1, 0, name);
  }
  return list;
}

/** Pairs of items beyond which lists are not compared item by item: that would need hundreds of megabytes. */
const MOST_PAIRS = 16_000_000;

/** Null where both sides changed the same place, and for very long lists. Cost: O(n²) in the length. */
function mergedSequence(base: readonly unknown[], ours: readonly unknown[], theirs: readonly unknown[]): unknown[] | null {
  if (base.length * Math.max(ours.length, theirs.length) > MOST_PAIRS) return null;
  const [own, other] = [partners(base, ours), partners(base, theirs)];
  const list: unknown[] = [];
  let [b, o, t] = [0, 0, 0];
  for (let next = 0; next <= base.length; next++) {
    // Anchors are items that neither side changed; between two of them only one side may have changed anything.
    const isAnchor = next === base.length || (own[next] !== undefined && other[next] !== undefined);
    if (!isAnchor) continue;
    const [toOurs, toTheirs] = next === base.length ? [ours.length, theirs.length] : [own[next] as number, other[next] as number];
    const [was, mine, hers] = [base.slice(b, next), ours.slice(o, toOurs), theirs.slice(t, toTheirs)];
    if (same(was, mine) || same(mine, hers)) list.push(...hers);
    else if (same(was, hers)) list.push(...mine);
    else return null;
    if (next < base.length) list.push(base[next]);
    [b, o, t] = [next + 1, toOurs + 1, toTheirs + 1];
  }
  return list;
}

/** For each item of a list, its index in the other along a longest common subsequence; undefined if it is not part of it. */
function partners(from: readonly unknown[], to: readonly unknown[]): (number | undefined)[] {
  const longest = Array.from({ length: from.length + 1 }, () => new Uint32Array(to.length + 1));
  const at = (k: number, m: number) => longest[k]?.[m] ?? 0;
  for (let k = from.length - 1; k >= 0; k--)
    for (let m = to.length - 1; m >= 0; m--)
      (longest[k] as Uint32Array)[m] = same(from[k], to[m]) ? at(k + 1, m + 1) + 1 : Math.max(at(k + 1, m), at(k, m + 1));
  const found: (number | undefined)[] = [];
  for (let k = 0, m = 0; k < from.length; ) {
    if (m < to.length && same(from[k], to[m])) found[k++] = m++;
    else if (m < to.length && at(k, m + 1) > at(k + 1, m)) m++;
    else found[k++] = undefined;
  }
  return found;
}

function isFields(value: unknown): value is Fields {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function isKeyed(list: readonly unknown[], key: string): list is readonly Fields[] {
  const names = list.map((each) => (isFields(each) ? each[key] : undefined));
  return names.every((name) => typeof name === "string") && new Set(names).size === names.length;
}

/** Whether two values say the same; the order of fields says nothing. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((each, k) => same(each, b[k]));
  if (!isFields(a) || !isFields(b)) return false;
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => Object.hasOwn(b, name) && same(a[name], b[name]));
}
