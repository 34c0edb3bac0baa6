/**
 * Undo and redo by name, as pure functions on a list of entries. Each entry stores the change in both directions, so that the list can be
 * saved and undone after a reload.
 */

import type { Project } from "@caravan/core/model";
import { applyChanges, type Change, differenceBetween } from "@caravan/core/undo";

export interface HistoryEntry {
  readonly label: string;
  readonly forth: readonly Change[];
  readonly back: readonly Change[];
  /** Edits of one gesture, such as nudging a grid, carry the same mark and become one entry. */
  readonly gesture?: string;
  /** Milliseconds on the clock of the page; absent after a reload. */
  readonly at?: number;
}

export interface History {
  /** How many entries before these were forgotten; an entry's place in storage is this plus its index. */
  readonly first: number;
  readonly entries: readonly HistoryEntry[];
  /** How many of them are applied. */
  readonly cursor: number;
}

export const NO_HISTORY: History = { first: 0, entries: [], cursor: 0 };

/** More than anyone walks back, and little enough to store. */
export const MOST_ENTRIES = 500;

/** A pause longer than this ends a gesture. */
const GESTURE_PAUSE = 1200; // ms

/** Notes a change. Entries that were undone are forgotten; an edit of the same gesture joins the last entry. */
export function remembered(history: History, label: string, before: Project, after: Project, now: number, gesture?: string): History {
  const applied = history.entries.slice(0, history.cursor);
  const last = applied.at(-1);
  if (gesture !== undefined && last?.gesture === gesture && last.at !== undefined && now - last.at < GESTURE_PAUSE) {
    const start = applyChanges(before, last.back) as Project;
    const joined = { label, forth: differenceBetween(start, after), back: differenceBetween(after, start), gesture, at: now };
    return { first: history.first, entries: [...applied.slice(0, -1), joined], cursor: applied.length };
  }
  const entry = {
    label,
    forth: differenceBetween(before, after),
    back: differenceBetween(after, before),
    at: now,
    ...(gesture ? { gesture } : {}),
  };
  const all = [...applied, entry];
  const entries = all.slice(-MOST_ENTRIES);
  return { first: history.first + all.length - entries.length, entries, cursor: entries.length };
}

export interface Step {
  readonly project: Project;
  readonly history: History;
  readonly label: string;
}

/** The document before the last applied entry, or null if there is none. */
export function undone(history: History, project: Project): Step | null {
  const entry = history.entries[history.cursor - 1];
  if (!entry) return null;
  return { project: applyChanges(project, entry.back) as Project, history: { ...history, cursor: history.cursor - 1 }, label: entry.label };
}

/** The document after the next entry, or null if nothing was undone. */
export function redone(history: History, project: Project): Step | null {
  const entry = history.entries[history.cursor];
  if (!entry) return null;
  return {
    project: applyChanges(project, entry.forth) as Project,
    history: { ...history, cursor: history.cursor + 1 },
    label: entry.label,
  };
}
