/**
 * Groups of like records in a tree: lists of records, and records keyed by name, wherever they are nested.
 *
 * A group is named by its path with `*` for what counts up or names its members: `frames.*`, `clips.*.steps.*`. Inside a record the
 * values are flat: `frame.x`, and for lists of numbers `rect.0`.
 * Cost: O(values).
 */
import type { Leaf, ParsedMetadata, Tree } from "./tree";

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

/**
 * The records at one pattern that is known already, however few or unlike they are. An only child of XML is a list of one where the
 * pattern goes on as its own fields do: `fields` are those that its records should have, `../` for what stands around them.
 * Cost: O(values).
 */
export function groupAt({ tree, container }: ParsedMetadata, pattern: string, fields: readonly (string | undefined)[]): RecordGroup {
  const parts = pattern.split(".");
  const own = new Set(fields.flatMap((path) => (path === undefined || path.includes("../") ? [] : [firstPart(path)])));
  const outer = new Set(fields.flatMap((path) => (path?.startsWith("../") ? [firstPart(path.replaceAll("../", ""))] : [])));
  const group: RecordGroup = { pattern, keyed: false, records: [] };
  const isOnly = (value: object, at: number) => {
    if (container !== "xml" || Array.isArray(value)) return false;
    const next = parts[at + 1];
    return Object.keys(value).some((key) => key === next || (next === undefined ? own : outer).has(key));
  };
  const walk = (found: Tree, at: number, path: string, keys: readonly string[], around: ReadonlyMap<string, Leaf>[]): void => {
    if (typeof found !== "object" || found === null) return;
    const isStar = parts[at] === "*";
    const value: Exclude<Tree, Leaf> = isStar && isOnly(found, at) ? [found] : found;
    const isList = Array.isArray(value);
    const inside = isList ? around : [saidOnce(value as { readonly [key: string]: Tree }), ...around];
    const below = (key: string) => (path === "" ? key : `${path}.${key}`);
    if (!isStar) {
      // A key may hold dots itself: as many parts as make one.
      for (let end = at + 1; end <= parts.length; end++) {
        const key = parts.slice(at, end).join(".");
        const next = isList ? undefined : (value as { readonly [key: string]: Tree })[key];
        if (next === undefined) continue;
        walk(next, end, below(key), keys, inside);
        return;
      }
      return;
    }
    if (at === parts.length - 1 && !isList) (group as { keyed: boolean }).keyed = true;
    for (const [key, each] of Object.entries(value)) {
      if (typeof each !== "object" || each === null) continue;
      if (at === parts.length - 1) group.records.push({ path: below(key), keys: [...keys, key], ...flat(each), around: inside });
      else walk(each, at + 1, below(key), [...keys, key], inside);
    }
  };
  walk(tree, 0, "", [], []);
  return group;
}

const firstPart = (path: string) => path.split(".")[0] as string;

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
function flat(value: Tree): { fields: Map<string, Leaf>; lists: Map<string, readonly Leaf[]> } {
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
