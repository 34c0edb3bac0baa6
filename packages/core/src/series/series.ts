/**
 * Finds numbered stills among files: `walk_1.png … walk_12.png`, padded or not, whichever part of the name holds the number.
 *
 * Any run of digits in a name may be the number; for each file it is the one in which most other files of its folder differ, the later one
 * if two are equal. So `v2_walk_03_fine` and `03 walk` are both numbered correctly. Holds: every file is in one series or alone. Cost:
 * O(names × numbers in a name).
 */
import { naturalOrder } from "../model";

export interface Series<File> {
  /** What the names have in common, fit to be a name. */
  readonly name: string;
  /** In the order of their numbers; of two with one number, the first in natural order. */
  readonly members: readonly { readonly file: File; readonly number: number }[];
  /** Numbers that are missing between the first and the last. */
  readonly missing: readonly number[];
  /** Files whose number another file has already. */
  readonly doubles: readonly File[];
}

export interface Sorted<File> {
  readonly series: Series<File>[];
  readonly single: File[];
}

interface Split {
  readonly key: string;
  readonly number: number;
  readonly name: string;
}

/** `nameOf` gives a file's path with its ending. */
export function findSeries<File>(files: readonly File[], nameOf: (file: File) => string): Sorted<File> {
  const splits = files.map((file) => splitsOf(nameOf(file)));
  const sizes = new Map<string, Set<number>>();
  for (const list of splits)
    for (const { key, number } of list) {
      const numbers = sizes.get(key) ?? new Set();
      sizes.set(key, numbers);
      numbers.add(number);
    }
  const groups = new Map<string, { file: File; split: Split }[]>();
  const single: File[] = [];
  files.forEach((file, k) => {
    // Later runs first, so that they win ties.
    const best = (splits[k] as Split[]).toReversed().reduce<Split | null>((most, split) => {
      const size = (each: Split) => (sizes.get(each.key) as Set<number>).size;
      return !most || size(split) > size(most) ? split : most;
    }, null);
    if (!best || (sizes.get(best.key) as Set<number>).size < 2) single.push(file);
    else groups.set(best.key, [...(groups.get(best.key) ?? []), { file, split: best }]);
  });
  const series = [...groups.values()].map((group) => seriesOf(group, nameOf)).sort((a, b) => naturalOrder(a.name, b.name));
  // A file may be left alone in its group when the others count by another number.
  const alone = series.filter(({ members }) => members.length < 2);
  return {
    series: series.filter(({ members }) => members.length >= 2),
    single: [...single, ...alone.flatMap(({ members, doubles }) => [...members.map(({ file }) => file), ...doubles])].sort((a, b) =>
      naturalOrder(nameOf(a), nameOf(b)),
    ),
  };
}

/** The number that a file has in a series of this name; null if it is called otherwise, or in several ways. */
export function numberIn(series: string, path: string): number | null {
  const found = splitsOf(path).filter(({ name }) => name.toLowerCase() === series.toLowerCase());
  return found.length === 1 ? (found[0] as Split).number : null;
}

/** Every way to use one run of digits of a name as its number. */
function splitsOf(path: string): Split[] {
  const slash = path.lastIndexOf("/");
  const folder = path.slice(0, slash + 1);
  const file = path.slice(slash + 1);
  const dot = file.lastIndexOf(".");
  const stem = dot > 0 ? file.slice(0, dot) : file;
  const ending = dot > 0 ? file.slice(dot).toLowerCase() : "";
  return [...stem.matchAll(/\d+/g)]
    .filter(([digits]) => digits.length <= 9)
    .map((match) => {
      const before = stem.slice(0, match.index).replace(/[\s._\-#(]+$/, "");
      const after = stem.slice(match.index + match[0].length).replace(/^[\s._\-)]+/, "");
      const folderName = folder.split("/").filter(Boolean).pop() ?? "";
      const name = [before, after].filter(Boolean).join("-") || folderName || "series";
      return { key: `${folder}\0${before}\0${after}\0${ending}`, number: Number(match[0]), name };
    });
}

function seriesOf<File>(group: readonly { file: File; split: Split }[], nameOf: (file: File) => string): Series<File> {
  const ordered = group.toSorted((a, b) => a.split.number - b.split.number || naturalOrder(nameOf(a.file), nameOf(b.file)));
  const members: { file: File; number: number }[] = [];
  const doubles: File[] = [];
  for (const { file, split } of ordered)
    if (members.at(-1)?.number === split.number) doubles.push(file);
    else members.push({ file, number: split.number });
  const has = new Set(members.map(({ number }) => number));
  const first = members[0]?.number ?? 0;
  const last = members.at(-1)?.number ?? 0;
  const missing: number[] = [];
  // Numbers such as dates leave meaningless gaps; nobody would read more than this.
  for (let number = first + 1; number < last && missing.length < 1000; number++) if (!has.has(number)) missing.push(number);
  return { name: (ordered[0] as { split: Split }).split.name, members, missing, doubles };
}
