/** Lists the differences between two versions of a project, item by item, by name. */
import type { Project } from "../model";
import { same } from "../three-way";
import { t } from "../words";
import { type Rename, renamesIn } from "./renames";

export interface Difference {
  /** In which list of the document, or the field itself: `clips`, `name`. */
  readonly list: string;
  /** Of the changed items, in list order; empty if the whole list or field changed. Of renamed ones, both: `walk → stride`. */
  readonly names: readonly string[];
  readonly how: "renamed" | "new" | "gone" | "changed" | "in another order";
}

type Listed = { readonly name: string; readonly id?: string };

/** From `before` to `after`, list by list in the document's order. Empty exactly if both say the same. Cost: linear in what differs. */
export function differencesBetween(before: Project, after: Project): Difference[] {
  const found: Difference[] = [];
  const renames = renamesIn(before, after);
  const fields = new Set([...Object.keys(before), ...Object.keys(after)]) as Set<keyof Project>;
  for (const field of fields) {
    const [was, is] = [before[field], after[field]];
    if (same(was, is)) continue;
    if (!isListed(was ?? []) || !isListed(is ?? [])) {
      found.push({ list: field, names: [], how: "changed" });
      continue;
    }
    found.push(
      ...listDifferences(
        field,
        (was ?? []) as readonly Listed[],
        (is ?? []) as readonly Listed[],
        renames.filter(({ list }) => list === field),
      ),
    );
  }
  return found;
}

function listDifferences(list: string, before: readonly Listed[], after: readonly Listed[], renames: readonly Rename[]): Difference[] {
  const keyOf = ({ id, name }: Listed) => id ?? name;
  const was = new Map(before.map((each) => [keyOf(each), each]));
  const is = new Map(after.map((each) => [keyOf(each), each]));
  const [from, to] = [new Set(renames.map((each) => each.from)), new Set(renames.map((each) => each.to))];
  const fresh = after.filter((each) => !was.has(keyOf(each)) && !to.has(each.name));
  const gone = before.filter((each) => !is.has(keyOf(each)) && !from.has(each.name));
  const earlier = new Map(renames.map((each) => [each.to, { ...was.get(each.from), name: each.to }]));
  const changed = after.filter((each) => {
    const old = was.get(keyOf(each)) ?? earlier.get(each.name);
    return old !== undefined && !same(old, each);
  });
  const found: Difference[] = [];
  const tell = (how: Difference["how"], things: readonly Listed[]) => {
    if (things.length > 0) found.push({ list, names: things.map(({ name }) => name), how });
  };
  if (renames.length > 0) found.push({ list, names: renames.map((each) => `${each.from} → ${each.to}`), how: "renamed" });
  tell("new", fresh);
  tell("gone", gone);
  tell("changed", changed);
  const common = (things: readonly Listed[]) => things.map(keyOf).filter((key) => was.has(key) && is.has(key));
  if (!same(common(before), common(after)) || found.length === 0) found.push({ list, names: [], how: "in another order" });
  return found;
}

function isListed(value: unknown): boolean {
  return Array.isArray(value) && value.every((each) => typeof (each as Partial<Listed> | null)?.name === "string");
}

/** How many names are read at once. */
const MOST_NAMES = 4;

/** "clips: run-e, run-w new". */
export function differenceInWords({ list, names, how }: Difference): string {
  const more = names.length - MOST_NAMES;
  const listed = names.slice(0, MOST_NAMES).join(", ") + (more > 0 ? t(" and {more} more", { more }) : "");
  return `${WORDS[list] ?? list}: ${listed === "" ? "" : `${listed} `}${how}`;
}

/** Lists whose field is no word. */
const WORDS: Readonly<Record<string, string>> = { name: "project name", pixelsPerUnit: "pixels a unit" };
