/**
 * Locates the values of a text's tree in the text, so that some can be rewritten while the rest stays untouched.
 *
 * Holds: the tree of the places equals the tree that `parseMetadata` returns for the same text.
 */
import type { Leaf, Tree } from "../notation";

/** How a value is spelled, which says what must be escaped. */
export type Spelling =
  /** A whole literal of JSON, with its quotes. */
  | "json"
  /** Inside of an attribute's quotes. */
  | "attribute"
  /** Between two tags. */
  | "element"
  /** A whole element that says yes or no by its name. */
  | "flag"
  /** A cell of a table, with its quotes. */
  | "cell"
  /** A cell with a number whose decimals follow a comma. */
  | "comma"
  /** The name of a section on its own line, without brackets. */
  | "head"
  /** A scalar of YAML, with its quotes. */
  | "yaml"
  /** To the end of a line, or a number among others. */
  | "plain";

/** A stretch of the text and what it means. */
export interface Spelled {
  readonly from: number;
  readonly to: number;
  readonly means: Leaf;
  readonly as: Spelling;
}

export interface Place {
  /** The whole entry with its key, without what parts it from its neighbours. */
  readonly from: number;
  readonly to: number;
  /** Its key, where the text spells one for it alone. */
  readonly key: Spelled | null;
  /** Its value, if that is a single one. */
  readonly value: Spelled | null;
  readonly list: boolean;
  readonly children: ReadonlyMap<string, Place>;
}

export const NO_CHILDREN: ReadonlyMap<string, Place> = new Map();

/** Numbers in brackets and with what parts them, such as `{{1,2},{3,4}}`: each at its own place. `from` is where `text` begins. */
export function numbersIn(text: string, from: number): ReadonlyMap<string, Place> {
  const found = [...text.matchAll(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d{1,3})?/gi)];
  return new Map(
    found.map((match, k): [string, Place] => {
      const at = from + match.index;
      const span = { from: at, to: at + match[0].length };
      return [
        String(k),
        { ...span, key: null, value: { ...span, means: Number(match[0]), as: "plain" }, list: false, children: NO_CHILDREN },
      ];
    }),
  );
}

/** The tree that the places represent. */
export function treeOf({ value, list, children }: Place): Tree {
  if (value) return value.means;
  if (list) return [...children.values()].map(treeOf);
  return Object.fromEntries([...children].map(([key, each]) => [key, treeOf(each)]));
}

/** The place at a path inside another, whose keys may contain dots themselves; null if there is none. */
export function placeAt(place: Place, path: string): Place | null {
  if (path === "") return place;
  const whole = place.children.get(path);
  if (whole) return whole;
  for (const [key, child] of place.children) {
    if (!path.startsWith(`${key}.`)) continue;
    const found = placeAt(child, path.slice(key.length + 1));
    if (found) return found;
  }
  return null;
}

/** Whether two trees are equal, ignoring the order of keys. */
export function sameTree(a: Tree, b: Tree): boolean {
  if (typeof a !== "object" || a === null || typeof b !== "object" || b === null) return a === b;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [left, right] = [Object.entries(a), new Map(Object.entries(b))];
  return left.length === right.size && left.every(([key, each]) => right.has(key) && sameTree(each, right.get(key) as Tree));
}
