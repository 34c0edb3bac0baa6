/**
 * Finds groups of similar records in a tree: lists of records, and records keyed by name, at any depth.
 *
 * A group is named by its path: a single record by its plain path; `*` stands for list positions or member names, as in `frames.*`,
 * `clips.*.steps.*`; `^` for positions in several parallel lists of equal length, as in `frames.^` of `{ x: [0, 16], y: [0, 0] }`. Values
 * inside a record are flat: `frame.x`, and `rect.0` for lists of numbers. Cost: O(values).
 */
import type { Leaf, ParsedMetadata, Tree } from "../notation";
import { CLIP_WORDS, says } from "./words";

export interface MetadataRecord {
  /** Its position, without wildcards. */
  readonly path: string;
  /** The names or numbers for the wildcards in the group's path, outermost first. */
  readonly keys: readonly string[];
  /** Values by their path inside the record. A record that is a list or a value itself has them at `0`, `1` …, or at ``. */
  readonly fields: ReadonlyMap<string, Leaf>;
  /** Lists of texts or whole numbers inside the record, which may name frames. */
  readonly lists: ReadonlyMap<string, readonly Leaf[]>;
  /** The records around it, innermost first, for facts about all their members. */
  readonly around: readonly ReadonlyMap<string, Leaf>[];
}

export interface RecordGroup {
  readonly pattern: string;
  /** Whether the last wildcard stands for names rather than list positions. */
  readonly keyed: boolean;
  readonly records: MetadataRecord[];
}

/** A record with more entries than this can only be a list of named members; its keys are not field names. */
const MOST_FIELDS = 40;
const DEEPEST_PATTERN = 7;
/** No picture has more frames; longer lists are something else, and examining them would take seconds. */
const MOST_RECORDS = 50_000;

export function groupsOf(tree: Tree): RecordGroup[] {
  const groups = new Map<string, { keyed: boolean; records: MetadataRecord[] }>();
  // The number of named members per pattern: a single list among many proves nothing.
  const namedMembers = new Map<string, number>();
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
    const all = Object.entries(value);
    const entries = all.filter(([, each]) => typeof each === "object" && each !== null);
    // Texts under names may list frames: `walk = a, b, c`.
    if (!isList && entries.length === 0 && all.length > 0 && all.every(([, each]) => typeof each === "string")) {
      const members = [...pattern, "*"].join(".");
      const group = groups.get(members) ?? { keyed: true, records: [] };
      groups.set(members, group);
      namedMembers.set(members, (namedMembers.get(members) ?? 0) + all.length);
      for (const [key, each] of all)
        group.records.push({
          path: path === "" ? key : `${path}.${key}`,
          keys: [...keys, key],
          fields: new Map([["", each as Leaf]]),
          lists: new Map(),
          around,
        });
    }
    const at = (key: string) => (path === "" ? key : `${path}.${key}`);
    if (
      entries.length > 0 &&
      (isList || (entries.length === 1 ? isRecord(entries[0]?.[1] as Tree) : haveLikeShapes(entries.map(([, each]) => each))))
    ) {
      const members = [...pattern, "*"];
      const group = groups.get(members.join(".")) ?? { keyed: !isList, records: [] };
      groups.set(members.join("."), group);
      namedMembers.set(members.join("."), (namedMembers.get(members.join(".")) ?? 0) + (isList ? 0 : entries.length));
      for (const [key, each] of entries) {
        if (group.records.length > MOST_RECORDS) break;
        group.records.push({ path: at(key), keys: [...keys, key], ...flat(each), around: inside });
        walk(each, members, at(key), [...keys, key], inside);
      }
    }
    const columns = isList ? null : columnsIn(value as { readonly [key: string]: Tree });
    if (columns) {
      const members = [...pattern, SIDE_BY_SIDE];
      const records = transposed(columns).map((each, k) => ({
        path: at(String(k)),
        keys: [...keys, String(k)],
        ...flat(each),
        around: inside,
      }));
      const group = groups.get(members.join(".")) ?? { keyed: false, records: [] };
      groups.set(members.join("."), group);
      group.records.push(...records);
    }
    // A single clip may be one record, recognisable only by its name: `animation: { name, frames }`.
    if (!isList)
      for (const [key, each] of entries) {
        if (!says(key, CLIP_WORDS) || Array.isArray(each) || !Object.values(each as object).some(isLeaf)) continue;
        const alone = [...pattern, key].join(".");
        const group = groups.get(alone) ?? { keyed: false, records: [] };
        groups.set(alone, group);
        group.records.push({ path: at(key), keys: [...keys, key], ...flat(each), around: inside });
      }
    // A key may as well be a field's name; what fits the picture better wins later.
    if (!isList && entries.length <= MOST_FIELDS) for (const [key, each] of entries) walk(each, [...pattern, key], at(key), keys, inside);
  };
  walk(tree, [], "", [], []);
  return [...groups]
    .filter(([, { records }]) => records.length <= MOST_RECORDS)
    .map(([pattern, { records }]) => ({ pattern, records, keyed: (namedMembers.get(pattern) ?? 0) > records.length / 2 }));
}

/**
 * The records at a known pattern, however few or varied. In XML an only child is a list of one if the pattern continues as its own fields
 * do: `fields` are the expected ones of its records, with `../` for those around them. Cost: O(values).
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
    if (at === parts.length) {
      if (!Array.isArray(found)) group.records.push({ path, keys: [...keys, parts.at(-1) as string], ...flat(found), around });
      return;
    }
    if (parts[at] === SIDE_BY_SIDE) {
      const columns = Array.isArray(found) ? null : columnsIn(found as { readonly [key: string]: Tree });
      const inside = [saidOnce(found as { readonly [key: string]: Tree }), ...around];
      for (const [k, each] of columns ? transposed(columns).entries() : [])
        group.records.push({ path: `${path}.${k}`, keys: [...keys, String(k)], ...flat(each), around: inside });
      return;
    }
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
      if (typeof each !== "object" || each === null) {
        if (at === parts.length - 1 && typeof each === "string" && fields.includes(""))
          group.records.push({ path: below(key), keys: [...keys, key], fields: new Map([["", each]]), lists: new Map(), around: inside });
        continue;
      }
      if (at === parts.length - 1) group.records.push({ path: below(key), keys: [...keys, key], ...flat(each), around: inside });
      else walk(each, at + 1, below(key), [...keys, key], inside);
    }
  };
  walk(tree, 0, "", [], []);
  return group;
}

const SIDE_BY_SIDE = "^";

function isLeaf(value: unknown): boolean {
  return typeof value !== "object" || value === null;
}

/** The lists of an object that have one length, if they are at least two and have members; null otherwise. */
function columnsIn(value: { readonly [key: string]: Tree }): [string, readonly Tree[]][] | null {
  const lists = Object.entries(value).filter((entry): entry is [string, readonly Tree[]] => Array.isArray(entry[1]) && entry[1].length > 1);
  const counts = new Map<number, number>();
  for (const [, { length }] of lists) counts.set(length, (counts.get(length) ?? 0) + 1);
  const [length, count = 0] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
  const columns = lists.filter(([, list]) => list.length === length);
  // Lists of records are groups of their own.
  const plain = columns.filter(([, list]) => list.every((each) => typeof each !== "object" || each === null || isShortList(each)));
  return count >= 2 && count >= lists.length * 0.5 && (plain.length >= 2 || (plain.length === 1 && count >= 3)) ? columns : null;
}

function transposed(columns: readonly [string, readonly Tree[]][]): { readonly [key: string]: Tree }[] {
  const length = columns[0]?.[1].length ?? 0;
  return Array.from({ length }, (_, k) => Object.fromEntries(columns.map(([key, list]) => [key, list[k] as Tree])));
}

/** Everything that a file says once, at any place: for cells of the picture, which have no records. */
export function saidAnywhere(tree: Tree): ReadonlyMap<string, Leaf>[] {
  const found: ReadonlyMap<string, Leaf>[] = [];
  const visit = (value: Tree, depth: number) => {
    if (typeof value !== "object" || value === null || depth > 3) return;
    if (Array.isArray(value)) {
      if (value.length === 1) visit(value[0] as Tree, depth + 1);
      return;
    }
    found.push(saidOnce(value as { readonly [key: string]: Tree }));
    if (Object.keys(value).length <= MOST_FIELDS) for (const each of Object.values(value)) visit(each as Tree, depth + 1);
  };
  visit(tree, 0);
  return found;
}

const firstPart = (path: string) => path.split(".")[0] as string;

/** Facts of the object itself, or in small objects beside its members: a sheet's cell size, its picture. */
function saidOnce(value: { readonly [key: string]: Tree }): ReadonlyMap<string, Leaf> {
  const own = new Map<string, Leaf>();
  const entries = Object.entries(value);
  // Members of a list say nothing of their neighbours.
  const inner = entries.map(([, each]) => each).filter((each) => typeof each === "object" && each !== null);
  const members = inner.length >= 2 && haveLikeShapes(inner);
  for (const [key, each] of entries)
    if (typeof each !== "object" || each === null) own.set(key, each);
    else if (!members && entries.length <= MOST_FIELDS && Object.keys(each).length <= MOST_FIELDS)
      for (const [path, leaf] of flat(each).fields) if (own.size < 200) own.set(`${key}.${path}`, leaf);
  return own;
}

/** Whether a single member says something itself, rather than only wrapping the rest. */
function isRecord(value: Tree): boolean {
  if (Array.isArray(value) || typeof value !== "object" || value === null) return true;
  const own = Object.values(value).some((each) => typeof each !== "object" || each === null);
  return own || [...flat(value).fields.values()].filter((leaf) => typeof leaf === "number").length >= 2;
}

/** Names of its fields; of an object that only holds records, the names of theirs. */
function shapeOf(value: { readonly [key: string]: Tree }): string {
  const inner = Object.values(value);
  const [first] = inner;
  const holds =
    typeof first === "object" &&
    first !== null &&
    !Array.isArray(first) &&
    inner.every((each) => typeof each === "object" && each !== null);
  return holds ? `of ${Object.keys(first).join()}` : Object.keys(value).join();
}

/** Whether records look like members of one list: most have the fields of the first. */
function haveLikeShapes(values: readonly Tree[]): boolean {
  const shapes = values.map((each) => {
    if (!Array.isArray(each)) return shapeOf(each as { readonly [key: string]: Tree });
    return each.every((item) => typeof item !== "object" || item === null) ? `list of ${each.length}` : "list";
  });
  const counts = new Map<string, number>();
  for (const shape of shapes) counts.set(shape, (counts.get(shape) ?? 0) + 1);
  const most = Math.max(...counts.values());
  const listed = values.filter((each) => Array.isArray(each)).length;
  return (
    most > shapes.length / 2 ||
    (most >= 2 && most >= shapes.length * 0.4) ||
    (shapes.length >= 6 && most >= shapes.length / 4) ||
    // Named lists of different lengths: clips with their frames.
    (shapes.length >= 2 && listed >= shapes.length * 0.6) ||
    // Whatever else they contain, most of them have a list under the same name.
    listsInCommon(values)
  );
}

function listsInCommon(values: readonly Tree[]): boolean {
  const counts = new Map<string, number>();
  for (const each of values) {
    if (typeof each !== "object" || each === null || Array.isArray(each)) continue;
    for (const [key, list] of Object.entries(each) as [string, Tree][])
      if (Array.isArray(list) && list.length > 0 && list.every((item) => typeof item !== "object"))
        counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return [...counts.values()].some((count) => count >= 2 && count >= values.length * 0.6);
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
      if (leaves.length !== each.length) {
        // `[[0, 0], [16, 16]]` are the corners of one rectangle, not records.
        if (each.length <= 8 && depth < 4 && each.every((item) => isPair(item) || typeof item !== "object"))
          for (const [k, inner] of each.entries()) visit(inner, path === "" ? String(k) : `${path}.${k}`, depth + 1);
        return;
      }
      lists.set(path, leaves);
      if (leaves.length <= 8) for (const [k, leaf] of leaves.entries()) fields.set(path === "" ? String(k) : `${path}.${k}`, leaf);
    } else if (depth < 4) for (const [key, inner] of Object.entries(each)) visit(inner, path === "" ? key : `${path}.${key}`, depth + 1);
  };
  visit(value, "", 0);
  return { fields, lists };
}

function isShortList(value: Tree): boolean {
  return Array.isArray(value) && value.length <= 4 && value.every((item) => typeof item !== "object" || item === null);
}

function isPair(value: Tree): boolean {
  return isShortList(value) && (value as readonly Tree[]).length === 2;
}
