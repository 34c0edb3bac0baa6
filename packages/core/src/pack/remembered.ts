/**
 * Caches recent layouts. The search is a function of its input alone, and most builds ask for the same layout as the one before: a
 * drawing changed inside its frame, a time, a name.
 */
import type { Size } from "../model";
import { type OnProgress, type Packed, type PageOptions, packPages } from "./pages";

/** So many inputs: a project's deliveries at their densities, and a few edits back. */
const MOST = 8;
const known = new Map<string, Packed>();

/** As `packPages`, which see. */
export function packPagesOnce(
  items: readonly Size[],
  options: PageOptions,
  groups: readonly number[] | null,
  onProgress?: OnProgress,
): Packed {
  const key = JSON.stringify([options, items.map(({ w, h }) => [w, h]), groups]);
  const found = known.get(key) ?? packPages(items, options, groups, onProgress);
  // The one asked for last is forgotten last.
  known.delete(key);
  known.set(key, found);
  if (known.size > MOST) known.delete(known.keys().next().value as string);
  onProgress?.(1);
  return found;
}
