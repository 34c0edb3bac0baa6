/**
 * Caches recent layouts. The search depends only on its input, and most builds ask for the same layout as the previous one: only a drawing
 * within its frame, a duration or a name has changed.
 */
import type { Size } from "../model";
import { type OnProgress, type Packed, type PageOptions, packPages } from "./pages";

/** The number of cached inputs: a project's deliveries at their densities, and a few edits back. */
const MOST = 8;
const known = new Map<string, Packed>();

/** Cached `packPages`. */
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
