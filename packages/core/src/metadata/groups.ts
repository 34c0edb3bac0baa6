/**
 * Groups of like records in a tree: lists of records, and records keyed by name, wherever they are nested.
 *
 * A group is named by its path with `*` for what counts up or names its members: `frames.*`, `clips.*.steps.*`. Inside a record the
 * values are flat: `frame.x`, and for lists of numbers `rect.0`.
 * Cost: O(values).
 */
import type { Leaf, Tree } from "./tree";

export interface MetadataRecord {
  /** Where it stands, without wildcards. */
  readonly path: string;
  /** Names or numbers that stand for the wildcards of the group's path, outermost first. */
  readonly keys: readonly string[];
  /** Values by their path inside the record. A record that is a list or a value itself has them at `0`, `1` …, or at ``. */
  readonly fields: ReadonlyMap<string, Leaf>;
  /** Lists of texts or whole numbers inside the record, which may name frames. */
  readonly lists: ReadonlyMap<string, readonly Leaf[]>;
  /** The records that stand around it, innermost first, for what they say of all their members. */
  readonly around: readonly ReadonlyMap<string, Leaf>[];
}

export interface RecordGroup {
  readonly pattern: string;
  /** Whether the last wildcard stands for names rather than for places in a list. */
  readonly keyed: boolean;
  readonly records: MetadataRecord[];
}

/** A record of more entries than this is taken for a list of named members only; its keys are no fields' names. */
const MOST_FIELDS = 40;
const DEEPEST_PATTERN = 7;

export function groupsOf(tree: Tree): RecordGroup[] {
  const groups = new Map<string, { keyed: boolean; records: MetadataRecord[] }>();
  const walk = (
    value: Tree,
    pattern: readonly string[],
    path: string,
    keys: readonly string[],
    around: ReadonlyMap<string, Leaf>[],
  ): void => {
    if (typeof value !== "object" || value === null || pattern.length > DEEPEST_PATTERN) return;
    const isList = Array.isArray(value);
    const inside = isList ? around : [saidOnce(value as { readonly [key: string]: Tree }), ...around];
    const entries = Object.entries(value).filter(([, each]) => typeof each === "object" && each !== null);
    const at = (key: string) => (path === "" ? key : `${path}.${key}`);
    if (entries.length > 0 && (isList || haveLikeShapes(entries.map(([, each]) => each)))) {
      const members = [...pattern, "*"];
      const group = groups.get(members.join(".")) ?? { keyed: !isList, records: [] };
      groups.set(members.join("."), group);
      for (const [key, each] of entries) {
        group.records.push({ path: at(key), keys: [...keys, key], ...flat(each), around: inside });
        walk(each, members, at(key), [...keys, key], inside);
      }
    }
    // A key may as well be a field's name; what fits the picture better wins later.
    if (!isList && entries.length <= MOST_FIELDS) for (const [key, each] of entries) walk(each, [...pattern, key], at(key), keys, inside);
  };
  walk(tree, [], "", [], []);
  return [...groups].map(([pattern, group]) => ({ pattern, ...group }));
}

/** What an object says itself, or in small objects beside its members: the cell size of a sheet, its picture. */
function saidOnce(value: { readonly [key: string]: Tree }): ReadonlyMap<string, Leaf> {
  const own = new Map<string, Leaf>();
  const entries = Object.entries(value);
  for (const [key, each] of entries)
    if (typeof each !== "object" || each === null) own.set(key, each);
    else if (entries.length <= MOST_FIELDS && Object.keys(each).length <= MOST_FIELDS)
      for (const [path, leaf] of flat(each).fields) if (own.size < 200) own.set(`${key}.${path}`, leaf);
  return own;
}

/** Whether records look like members of one list: most have the fields of the first. */
function haveLikeShapes(values: readonly Tree[]): boolean {
  const shapes = values.map((each) => (Array.isArray(each) ? `list of ${each.length}` : Object.keys(each as object).join()));
  const counts = new Map<string, number>();
  for (const shape of shapes) counts.set(shape, (counts.get(shape) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return most > shapes.length / 2 || (shapes.length >= 6 && most >= shapes.length / 4);
}

/** What has more values than this describes no single frame or clip; reading them all would only cost time. */
const MOST_VALUES = 80;

/** The values of a record and of the records inside it, by path; lists of records are not its own. */
export function flat(value: Tree): { fields: Map<string, Leaf>; lists: Map<string, readonly Leaf[]> } {
  const fields = new Map<string, Leaf>();
  const lists = new Map<string, readonly Leaf[]>();
  const visit = (each: Tree, path: string, depth: number) => {
    if (fields.size >= MOST_VALUES) return;
    if (typeof each !== "object" || each === null) fields.set(path, each);
    else if (Array.isArray(each)) {
      const leaves = each.filter((item): item is Leaf => typeof item !== "object" || item === null);
      if (leaves.length !== each.length) return;
      lists.set(path, leaves);
      if (leaves.length <= 8) for (const [k, leaf] of leaves.entries()) fields.set(path === "" ? String(k) : `${path}.${k}`, leaf);
    } else if (depth < 4) for (const [key, inner] of Object.entries(each)) visit(inner, path === "" ? key : `${path}.${key}`, depth + 1);
  };
  visit(value, "", 0);
  return { fields, lists };
}
