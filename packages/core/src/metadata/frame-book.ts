/** Looks up frames by any way in which a file may refer to them: by name, by number, by row position, by ranges and patterns. */
import type { ReadFrame } from "./read";

export interface FrameBook {
  readonly byName: ReadonlyMap<string, ReadFrame>;
  readonly byIndex: ReadonlyMap<number, ReadFrame>;
  /** Frames of each row of the picture, from left to right. */
  readonly rows: readonly (readonly ReadFrame[])[];
}

const books = new WeakMap<readonly ReadFrame[], FrameBook>();

/** Made once for each list of frames. Cost: O(n log n). */
export function frameBook(frames: readonly ReadFrame[]): FrameBook {
  const known = books.get(frames);
  if (known) return known;
  const byName = new Map<string, ReadFrame>();
  for (const frame of frames) {
    const plain = withoutEnding(frame.name);
    if (!byName.has(plain)) byName.set(plain, frame);
    byName.set(frame.name, frame);
  }
  const rows = new Map<number, ReadFrame[]>();
  for (const frame of frames) rows.set(frame.rect.y, [...(rows.get(frame.rect.y) ?? []), frame]);
  const book: FrameBook = {
    byName,
    byIndex: new Map(frames.map((frame) => [frame.index, frame])),
    rows: [...rows].sort((a, b) => a[0] - b[0]).map(([, list]) => list.sort((a, b) => a.rect.x - b.rect.x)),
  };
  books.set(frames, book);
  return book;
}

export function withoutEnding(name: string): string {
  return name.replace(/\.[A-Za-z]{3,4}$/, "");
}

/** The frame that a value names, by its name or by its number counted from `from`. */
export function frameCalled(book: FrameBook, value: unknown, from: 0 | 1): ReadFrame | undefined {
  if (typeof value === "string") return book.byName.get(value) ?? book.byName.get(withoutEnding(value));
  if (typeof value !== "number" || !Number.isInteger(value)) return undefined;
  return book.byName.get(String(value)) ?? book.byIndex.get(value - from);
}

/** The most frames that a range may stand for. */
const MOST_IN_RANGE = 10_000;

/** `0-3`, `0..3`, `0:3` and `0 to 3` stand for all numbers between; null for other texts. */
export function rangeIn(text: string): number[] | null {
  const match = /^\s*(\d{1,6})\s*(?:-|–|\.{2,3}|:|to|~)\s*(\d{1,6})\s*$/.exec(text);
  if (!match) return null;
  const [from, to] = [Number(match[1]), Number(match[2])];
  const length = Math.abs(to - from) + 1;
  if (length > MOST_IN_RANGE) return null;
  return Array.from({ length }, (_, k) => (to >= from ? from + k : from - k));
}

/** The items of a text or list: ranges expanded, names split at commas and spaces. */
export function listedIn(values: readonly unknown[], book: FrameBook): unknown[] {
  return values.flatMap((value): unknown[] => {
    if (typeof value !== "string" || frameCalled(book, value, 0)) return [value];
    const range = rangeIn(value);
    if (range) return range;
    const parts = value.split(/[\s,;|]+/).filter((part) => part !== "");
    return parts.length > 1 ? parts.flatMap((part): unknown[] => rangeIn(part) ?? [/^\d+$/.test(part) ? Number(part) : part]) : [value];
  });
}

/** `walk_*`, `walk_##`, `walk_{n}`, or `walk_`: frames whose names are this and a number. In the order of the frames. */
export function framesOfPattern(pattern: unknown, frames: readonly ReadFrame[]): ReadFrame[] {
  if (typeof pattern !== "string" || pattern === "" || pattern.length > 200) return [];
  const escaped = withoutEnding(pattern)
    .replace(/[.+^${}()|[\]\\]/g, "\\$&")
    .replace(/\\\{[^}]*\\\}|\*|#+|%0?\d*d/g, "\\d+")
    // Several adjacent numbers would be tried in every way.
    .replace(/(\\d\+)+/g, "\\d+");
  const matcher = new RegExp(`^${escaped}${escaped.includes("\\d+") ? "" : "[-_/ .]?\\d+"}$`);
  return frames.filter(({ name }) => matcher.test(withoutEnding(name)));
}
