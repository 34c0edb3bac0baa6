/**
 * Rebuilds records that were written flat: constants whose names contain record and field (`BALE_X`, `BALE_Y`), and lists of name-value
 * pairs (`<p n="x" v="2"/>`).
 */
import type { Leaf, Tree } from "./tree";

type Record = { readonly [key: string]: Tree };

/** Share of the names that must be parted alike. */
const MOST = 0.8;
/** Fewer fields than a rectangle has sides are no record. */
const LEAST_FIELDS = 4;

/** The tree with flat records made records. Cost: O(values). */
export function withFlatRecords(tree: Tree): Tree {
  if (Array.isArray(tree)) return mapped(tree, withFlatRecords);
  if (typeof tree !== "object" || tree === null) return tree;
  const record = tree as Record;
  const inner = Object.entries(record).map(([key, value]) => [key, withFlatRecords(value)] as const);
  const same = inner.every(([key, value]) => value === record[key]);
  const next = same ? record : (Object.fromEntries(inner) as Record);
  return partedByNames(next) ?? next;
}

function mapped(list: readonly Tree[], change: (tree: Tree) => Tree): readonly Tree[] {
  const next = list.map(change);
  return next.every((each, k) => each === list[k]) ? list : next;
}

/** How names may part into record and field: at the last sign, at the one before it, or where a capital begins. */
const SPLITS = [/^(.+)[_.\-:]([A-Za-z]+)$/, /^(.+)[_.\-:]([A-Za-z]+[_.\-:][A-Za-z]+)$/, /^(.*[a-z\d])([A-Z][A-Za-z]*)$/];

/** `{a_x, a_y, a_w, a_h, b_x, …}` -> `{a: {x, y, w, h}, b: {…}}`; null if names do not part so. */
function partedByNames(record: Record): Record | null {
  const keys = Object.keys(record);
  const leaves = keys.filter((key) => typeof record[key] === "number");
  if (leaves.length < 2 * LEAST_FIELDS || leaves.length < keys.length * MOST) return null;
  for (const split of SPLITS) {
    const parted = partedAt(split, record, leaves);
    if (parted) return parted;
  }
  return null;
}

function partedAt(split: RegExp, record: Record, leaves: readonly string[]): Record | null {
  const groups = new Map<string, Map<string, string>>();
  for (const key of leaves) {
    const [, stem, field] = split.exec(key) ?? [];
    if (stem === undefined || field === undefined) continue;
    const group = groups.get(stem) ?? new Map<string, string>();
    groups.set(stem, group.set(field, key));
  }
  const shapeOf = (group: ReadonlyMap<string, string>) => [...group.keys()].sort().join(" ");
  const shapes = new Map<string, number>();
  for (const group of groups.values()) shapes.set(shapeOf(group), (shapes.get(shapeOf(group)) ?? 0) + 1);
  const [usual] = [...shapes].sort((a, b) => b[1] - a[1]);
  if (!usual || usual[1] < 2) return null;
  const fields = usual[0].split(" ").length;
  if (fields < LEAST_FIELDS || usual[1] * fields < leaves.length * MOST) return null;
  const next = new Map<string, Tree>();
  const taken = new Set<string>();
  for (const [stem, group] of groups) {
    // A record that has the name of another value stays flat.
    if (shapeOf(group) !== usual[0] || Object.hasOwn(record, stem)) continue;
    next.set(stem, Object.fromEntries([...group].map(([field, key]) => [field, record[key] as Leaf])));
    for (const key of group.values()) taken.add(key);
  }
  for (const [key, value] of Object.entries(record)) if (!taken.has(key)) next.set(key, value);
  return Object.fromEntries(next);
}

/**
 * Lists of pairs, each with the same two fields of which one is a name: `[{n: "x", v: 2}, {n: "y", v: 4}, …]` -> `{x: 2, y: 4, …}`. Null
 * for other lists. Names that end in numbers are those of frames, not of fields.
 */
export function pairsAsRecord(list: readonly Tree[]): Record | null {
  if (list.length < LEAST_FIELDS) return null;
  const record = new Map<string, Tree>();
  let fields: string | null = null;
  for (const each of list) {
    if (typeof each !== "object" || each === null || Array.isArray(each)) return null;
    const entries = Object.entries(each as Record);
    if (entries.length !== 2) return null;
    const names = entries.map(([key]) => key).join(" ");
    fields ??= names;
    if (names !== fields) return null;
    const [[, name], [, value]] = entries as [[string, Tree], [string, Tree]];
    if (typeof name !== "string" || !/^[\p{L}_][\p{L}_\-.]*\d?$/u.test(name) || record.has(name) || typeof value === "object") return null;
    record.set(name, value);
  }
  const numbered = [...record.keys()].filter((name) => /\d$/.test(name)).length;
  return numbered > record.size / 2 ? null : Object.fromEntries(record);
}

/** A constant on its own line, in the syntax of many languages: `#define A_X 12`, `const int a_x = 12;`, `A_X equ 12`. */
const CONSTANT =
  /^\s*(?:#\s*define\s+|(?:[A-Za-z_][\w:<>]*\s+){0,4})([A-Za-z_]\w*)\s*(?:=|:=|\bequ\b|\s)\s*\(?([+-]?\d+(?:\.\d+)?)[fFuUlL]*\)?\s*;?\s*(?:\/[/*].*)?$/i;
const DEFINES = /^\s*(#\s*define\s|(const|static|final|public|let|var|int|float|local|constexpr)\b)/i;

/** Lines of constants as lines of `name = value`; null if most lines are no such. */
export function constantsAsPairs(text: string): string | null {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "" && line.length < 400);
  if (lines.length < 2 * LEAST_FIELDS || lines.filter((line) => DEFINES.test(line)).length < lines.length * 0.6) return null;
  const pairs = lines.flatMap((line) => {
    const match = CONSTANT.exec(line);
    return match ? [`${match[1]} = ${match[2]}`] : [];
  });
  return pairs.length < lines.length * 0.6 ? null : pairs.join("\n");
}
