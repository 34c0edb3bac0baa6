/** The common form of every notation: plain JSON. */
import { CaravanError } from "../model";
import { t } from "../words";

export type Leaf = string | number | boolean | null;
export type Tree = Leaf | readonly Tree[] | { readonly [key: string]: Tree };

/** Nesting beyond this is refused: no description of a sheet needs it, and walking it would exhaust the stack. */
export const DEEPEST = 40;

/** An error with the file, what is wrong with it, and what to do. */
export function problem(where: string, what: string, remedy: string, cause?: unknown): CaravanError {
  return new CaravanError("bad-metadata", where, what, remedy, { cause });
}

export function tooDeep(where: string): CaravanError {
  return problem(where, t("It is nested more than {deepest} deep.", { deepest: DEEPEST }), t("Give a flatter file."));
}

/** Collects the members of a record in which names may repeat: a repeated name becomes a list. */
export class Members {
  private readonly lists = new Map<string, Tree[]>();

  add(key: string, value: Tree): void {
    const list = this.lists.get(key);
    if (list) list.push(value);
    else this.lists.set(key, [value]);
  }

  /** Names in `always` are lists even if they occur once. Any name is safe as a key, `__proto__` included. */
  record(always: ReadonlySet<string> = new Set()): { readonly [key: string]: Tree } {
    return Object.fromEntries(
      [...this.lists].map(([key, list]): [string, Tree] => [key, list.length === 1 && !always.has(key) ? (list[0] as Tree) : list]),
    );
  }

  get size(): number {
    return this.lists.size;
  }

  /** All names, in their order, for comparing. */
  names(): string {
    return [...this.lists.keys()].join("\n");
  }

  repeated(): string[] {
    return [...this.lists].filter(([, list]) => list.length > 1).map(([key]) => key);
  }
}

/** Longest text in which records are found by what repeats, in characters: about 10,000 of them. */
export const LONGEST_PATTERN = 786_432;
