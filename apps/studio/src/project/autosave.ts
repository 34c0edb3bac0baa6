/**
 * Saves the open project by itself, soon after every change: document and history in one transaction, so that a tab killed
 * at any moment leaves either the state before or the state after.
 */
import type { Project } from "@caravan/core/model";
import { type History, type HistoryEntry, NO_HISTORY } from "./history";
import { type OpenProject, useOpenProject } from "./open-project";
import { deleteEntries, isStorageFull, type StoredEntry, storage } from "./storage";
import { writeDocument } from "./stored-document";
import { tellTabs } from "./tabs";

/** A change is written this long after it, at most; the promise to people is one second. */
const DELAY = 250; // ms
/** After a failure the next try waits longer. */
const RETRY = 3000; // ms

let timer: ReturnType<typeof setTimeout> | null = null;
let saving: Promise<void> | null = null;
/** What storage holds: the document, if this page wrote it, and the history by identity of entries. */
let stored: { id: string | null; project: Project | null; history: History } = { id: null, project: null, history: NO_HISTORY };

/** To be called when a project has been read from storage, so that only what is new gets written. */
export function markStored(id: string, history: History): void {
  stored = { id, project: null, history };
}

/** Watches the open project until the returned function is called. */
export function startAutosave(): () => void {
  const stop = useOpenProject.subscribe((open, before) => {
    if (open.id !== null && open.id === before.id && open.project !== before.project && open.saving.kind === "pending") schedule(DELAY);
  });
  // The last moment at which a page that is closed can still write.
  const flush = () => void saveNow();
  const hidden = () => document.visibilityState === "hidden" && flush();
  addEventListener("pagehide", flush);
  document.addEventListener("visibilitychange", hidden);
  return () => {
    stop();
    removeEventListener("pagehide", flush);
    document.removeEventListener("visibilitychange", hidden);
  };
}

function schedule(delay: number): void {
  timer ??= setTimeout(() => {
    timer = null;
    void saveNow();
  }, delay);
}

/** Writes what is not yet written. Never throws: a failure is told in the project's `saving`. */
export async function saveNow(): Promise<void> {
  if (timer) clearTimeout(timer);
  timer = null;
  await saving;
  const open = useOpenProject.getState();
  if (open.id === null || open.access === "reader" || open.saving.kind === "saved") return;
  saving = write(open);
  await saving;
  saving = null;
}

async function write(open: OpenProject & { id: string | null }): Promise<void> {
  const { id, project, history, demo } = open;
  if (id === null) return;
  try {
    await storage.transaction("rw", storage.projects, storage.documents, storage.history, async () => {
      const known = stored.id === id ? stored.history : NO_HISTORY;
      const kept = sharedRun(known, history);
      await deleteEntries(id, history.first + kept);
      if (history.first > known.first) await deleteEntries(id, 0, history.first);
      for (const [k, entry] of history.entries.slice(kept).entries())
        await storage.history.put(storedEntry(id, history.first + kept + k, entry));
      await writeDocument(id, project, stored.id === id ? stored.project : null);
      const row = await storage.projects.get(id);
      await storage.projects.put({
        ...row,
        id,
        name: project.name,
        sources: project.sources.length,
        clips: project.clips.length,
        cursor: history.first + history.cursor,
        createdAt: row?.createdAt ?? Date.now(),
        savedAt: Date.now(),
        demo,
      });
    });
    stored = { id, project, history };
    // More may have changed while this was written; then it is still pending.
    if (useOpenProject.getState().project === project) useOpenProject.setState({ saving: { kind: "saved", at: Date.now() } });
    else schedule(DELAY);
    tellTabs({ kind: "saved", id });
  } catch (error) {
    const full = isStorageFull(error);
    const reason = full
      ? "This browser has no more room for the project."
      : `This browser could not save: ${error instanceof Error ? error.message : String(error)}`;
    if (useOpenProject.getState().id === id) useOpenProject.setState({ saving: { kind: "failed", full, reason } });
    if (!full) schedule(RETRY);
  }
}

/** How many leading entries of `history` are in storage already. */
function sharedRun(known: History, history: History): number {
  const skip = history.first - known.first;
  if (skip < 0) return 0;
  let count = 0;
  while (count < history.entries.length && known.entries[skip + count] === history.entries[count]) count++;
  return count;
}

function storedEntry(project: string, index: number, { label, forth, back }: HistoryEntry): StoredEntry {
  return { project, index, label, changes: JSON.stringify({ forth, back }) };
}
