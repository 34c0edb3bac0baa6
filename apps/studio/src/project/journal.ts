/**
 * Keeps unsaved changes when the page goes away. A closing page has no time to wait for its database but can write a few lines at once:
 * the difference to the stored document, which is applied when the project is next opened.
 */

import { checkDocument, type Project } from "@caravan/core/model";
import { applyChanges, type Change, differenceBetween } from "@caravan/core/undo";
import type { History, HistoryEntry } from "./history";

/** A document with its history, and the save that it belongs to. */
export interface Stand {
  readonly project: Project;
  readonly history: History;
  readonly revision: number;
}

interface Journal {
  /** The save that it follows; after any other it is invalid. */
  readonly revision: number;
  readonly changes: readonly Change[];
  readonly first: number;
  /** Entries from this place on are other ones than those stored. */
  readonly from: number;
  readonly entries: readonly Pick<HistoryEntry, "label" | "forth" | "back">[];
  readonly cursor: number;
}

const keyOf = (id: string) => `caravan unsaved ${id}`;

/** Writes the difference from the stored state to the current one. False if the browser refuses. */
export function writeJournal(id: string, stored: Stand, project: Project, history: History): boolean {
  const from = Math.max(history.first, sharedUntil(stored.history, history));
  const journal: Journal = {
    revision: stored.revision,
    changes: differenceBetween(stored.project, project),
    first: history.first,
    from,
    entries: history.entries.slice(from - history.first).map(({ label, forth, back }) => ({ label, forth, back })),
    cursor: history.cursor,
  };
  try {
    localStorage.setItem(keyOf(id), JSON.stringify(journal));
    return true;
  } catch {
    return false;
  }
}

/** To be called when everything is stored. */
export function dropJournal(id: string): void {
  try {
    localStorage.removeItem(keyOf(id));
  } catch {
    // If nothing can be stored, there is nothing to drop.
  }
}

/** The state with unsaved changes applied; null if there are none, or if they follow another save or do not fit. */
export function withJournal(id: string, stored: Stand): Pick<Stand, "project" | "history"> | null {
  try {
    const text = localStorage.getItem(keyOf(id));
    if (text === null) return null;
    const { revision, changes, first, from, entries, cursor }: Journal = JSON.parse(text);
    if (revision !== stored.revision) return null;
    const project = applyChanges(stored.project, changes) as Project;
    checkDocument(project, project.name);
    const kept = stored.history.entries.slice(first - stored.history.first, from - stored.history.first);
    return { project, history: { first, entries: [...kept, ...entries], cursor } };
  } catch {
    return null;
  }
}

/** The place in storage until which two histories have the same entries. */
function sharedUntil(known: History, history: History): number {
  let place = Math.max(known.first, history.first);
  while (place - history.first < history.entries.length && known.entries[place - known.first] === history.entries[place - history.first])
    place++;
  return place;
}
