/** Finds names that occur twice in one JSON object, of which the runtime's own parser silently keeps the last. */
import { visit } from "jsonc-parser";

export interface RepeatedKey {
  readonly key: string;
  /** The keys that lead to the object that it is in, from the outside; numbers count the items of lists. */
  readonly path: readonly (string | number)[];
  /** Lines of the first and of the second, from 1. */
  readonly lines: readonly [number, number];
}

/** The first name that occurs twice in one object, or null. `text` is valid JSON. */
export function repeatedKey(text: string): RepeatedKey | null {
  const open: Map<string, number>[] = [];
  let found: RepeatedKey | null = null;
  visit(text, {
    onObjectBegin: () => {
      open.push(new Map());
    },
    onObjectProperty: (key, _offset, _length, line, _character, path) => {
      const lines = open.at(-1) as Map<string, number>;
      const first = lines.get(key);
      if (first !== undefined) found ??= { key, path: path(), lines: [first + 1, line + 1] };
      lines.set(key, line);
    },
    onObjectEnd: () => {
      open.pop();
    },
  });
  return found;
}
