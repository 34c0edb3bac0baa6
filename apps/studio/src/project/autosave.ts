/**
 * Saves the open project automatically, soon after every change: pictures first, then document and history in one transaction, so that a
 * tab killed at any moment leaves either the state before or the state after. Only the tab that owns the project writes; ownership is
 * checked inside the transaction.
 */

import { allPictures, type Project } from "@caravan/core/model";
import { inBackground } from "../ui/in-background";
import { say } from "../ui/notices";
import { t } from "../ui/words";
import { type History, type HistoryEntry, NO_HISTORY } from "./history";
import { dropJournal, writeJournal } from "./journal";
import { type OpenProject, useOpenProject } from "./open-project";
import { heldPicture, holdPictures, picturesWaiting, storeWaiting } from "./picture-files";
import { failedSaving } from "./saving-failed";
import { sawMissing } from "./seen-art";
import { deleteEntries, type StoredEntry, type StoredProject, storage } from "./storage";
import { writeDocument } from "./stored-document";
import { THIS_TAB, tellTabs } from "./tabs";

/** A change is written this long after it, at most: with the writing itself, which a busy machine makes slow, no more than half a second is lost to a kill. */
const DELAY = 150; // ms
/** The first change after a pause is written sooner: nothing else is waiting. */
const SOON = 50; // ms
/** So long without a change is a rest. */
const REST = 1000; // ms
/** After a failure the next try waits longer. */
const RETRY = 3000; // ms
/** After this time without an answer the header says so: damaged storage may never give one. */
const PATIENCE = 20_000; // ms
/** So long where there was no room: people have to make some first. */
const RETRY_FULL = 15_000; // ms

interface Stored {
  readonly id: string | null;
  /** The document as read or written; null if there was none. */
  readonly project: Project | null;
  /** Whether storage holds it in exactly the form that would be written, so that unchanged parts can be skipped. */
  readonly exact: boolean;
  readonly history: History;
  readonly revision: number;
}

const NOTHING: Stored = { id: null, project: null, exact: false, history: NO_HISTORY, revision: 0 };

let timer: ReturnType<typeof setTimeout> | null = null;
let running: Promise<void> | null = null;
/** What storage holds, the history by identity of entries. */
let stored: Stored = NOTHING;

/** Call this when a project has been read from storage, so that only changes are written. */
export function markStored(id: string, history: History, project: Project | null = null, revision = 0): void {
  stored = { id, project, exact: false, history, revision };
}

/** Watches the open project until the returned function is called. */
export function startAutosave(): () => void {
  const stop = useOpenProject.subscribe((open, before) => {
    if (open.id === null || open.access === "reader") return;
    if (open.saving.kind === "pending" && (open.project !== before.project || before.saving.kind !== "pending")) {
      const rested = performance.now() - changedAt > REST;
      changedAt = performance.now();
      schedule(rested ? SOON : DELAY);
    } else if (open.saving.kind === "failed" && before.saving !== open.saving) schedule(open.saving.full ? RETRY_FULL : RETRY);
  });
  const hidden = () => {
    if (document.visibilityState !== "hidden") return;
    keepForLater();
    void saveNow();
  };
  const leave = () => {
    keepForLater();
    void saveNow();
  };
  const asked = (event: BeforeUnloadEvent) => {
    if (isAllKept()) return;
    event.preventDefault();
    event.returnValue = "";
  };
  addEventListener("pagehide", leave);
  addEventListener("beforeunload", asked);
  document.addEventListener("visibilitychange", hidden);
  return () => {
    stop();
    removeEventListener("pagehide", leave);
    removeEventListener("beforeunload", asked);
    document.removeEventListener("visibilitychange", hidden);
  };
}

/** Whether storage holds all of the open project: its document, its history and its pictures. */
export function isSaved(): boolean {
  const { id, saving } = useOpenProject.getState();
  return id === null || (saving.kind === "saved" && picturesWaiting() === 0);
}

/** Writes unsaved changes to the journal at once. False if that fails. */
function keepForLater(): boolean {
  const { id, project, history, saving, access } = useOpenProject.getState();
  if (id === null || saving.kind === "saved" || access === "reader") return true;
  if (stored.id !== id || stored.project === null) return false;
  return writeJournal(id, { project: stored.project, history: stored.history, revision: stored.revision }, project, history);
}

/** Whether the page may go away without anything being lost. */
function isAllKept(): boolean {
  const { saving } = useOpenProject.getState();
  if (isSaved()) return true;
  // Changes that just wait their turn go into the journal; those that storage refused are for the user to save.
  return saving.kind === "pending" && picturesWaiting() === 0 && keepForLater();
}

/** When something was last changed, by the page's clock. */
let changedAt = Number.NEGATIVE_INFINITY;

/** When the next save is due, by the page's clock. */
let due = Number.POSITIVE_INFINITY;

/** Saves after this many ms, or earlier if that was requested: a late retry after a failure does not delay new changes. */
function schedule(delay: number): void {
  const at = performance.now() + delay;
  if (timer && due <= at) return;
  if (timer) clearTimeout(timer);
  due = at;
  timer = setTimeout(() => void saveNow(), delay);
}

/** Writes all unsaved changes, including those made while it writes. Never throws: a failure is shown in the project's `saving`. */
export function saveNow(): Promise<void> {
  if (timer) clearTimeout(timer);
  timer = null;
  running ??= drain().finally(() => {
    running = null;
  });
  return running;
}

async function drain(): Promise<void> {
  for (;;) {
    const open = useOpenProject.getState();
    if (open.id === null || open.access === "reader" || isSaved()) return;
    const late = setInterval(sayLate, PATIENCE, open.id);
    const written = await write(open, open.id);
    clearInterval(late);
    if (!written) return;
  }
}

/** Work is not said to be on its way for ever: a person may want to save it to a file. The save goes on. */
function sayLate(id: string): void {
  if (useOpenProject.getState().id !== id) return;
  const reason = t("This browser's storage has not answered for {seconds} seconds.", { seconds: PATIENCE / 1000 });
  useOpenProject.setState({ saving: { kind: "failed", full: false, reason } });
}

/** Thrown inside a save when another tab has taken the project over. */
class NotOwner extends Error {}

/** Whether it was written. */
async function write({ project, history, demo }: OpenProject, id: string): Promise<boolean> {
  const isOpen = () => useOpenProject.getState().id === id;
  try {
    // Once it could not be opened, as while a disk was full, it is not tried again by itself.
    if (!storage.isOpen()) await storage.open();
    await storeWaiting();
    const known = stored.id === id ? stored : NOTHING;
    let revision = 0;
    let whole = false;
    await storage.transaction("rw", storage.projects, storage.documents, storage.history, async () => {
      const row = await storage.projects.get(id);
      if (row?.owner !== undefined && row.owner !== THIS_TAB) throw new NotOwner();
      // Deleted elsewhere: then all of it is written again, never a part.
      whole = row === undefined;
      revision = (row?.revision ?? 0) + 1;
      await dropUndone(id, history, whole ? NOTHING : known);
      // Sent together: each wait for storage would also wait for whatever the page is drawing.
      await Promise.all([
        writeHistory(id, history, whole ? NO_HISTORY : known.history),
        writeDocument(id, project, !whole && known.exact ? known.project : null),
        storage.projects.put(rowOf(row, id, project, history, demo, revision)),
      ]);
    });
    if (whole && known.project !== null) await bringBackPictures(project);
    if (project.sources !== known.project?.sources) inBackground(holdPictures(project));
    stored = { id, project, exact: true, history, revision };
    askToKeep();
    dropJournal(id);
    tellTabs({ kind: "saved", id });
    const now = useOpenProject.getState();
    // More may have changed while this was written; then it is still pending.
    if (isOpen() && now.project === project && picturesWaiting() === 0)
      useOpenProject.setState({ saving: { kind: "saved", at: Date.now() } });
    return true;
  } catch (error) {
    if (!isOpen()) return false;
    if (isNotOwner(error)) {
      const reason = t("Another tab took this project over before the last changes made here were saved.");
      useOpenProject.setState({ access: "reader", saving: { kind: "failed", full: false, reason } });
    } else useOpenProject.setState({ saving: failedSaving(error) });
    return false;
  }
}

let asked = false;

/** Asks the browser once not to evict our storage; it may refuse, and asking costs nothing. */
function askToKeep(): void {
  if (asked) return;
  asked = true;
  globalThis.navigator?.storage?.persist?.().catch(() => {});
}

/** Dexie wraps errors thrown inside a transaction in some browsers. */
function isNotOwner(error: unknown): boolean {
  return error instanceof NotOwner || (error as { inner?: unknown } | null)?.inner instanceof NotOwner;
}

/** Removes the stored entries that the history no longer has, if there are any. */
async function dropUndone(id: string, history: History, { history: known, exact }: Stored): Promise<void> {
  const from = history.first + sharedRun(known, history);
  // Before this page has written it, storage may hold more than could be read, as after a damaged entry.
  if (!exact || known.first + known.entries.length > from) await deleteEntries(id, from);
  if (history.first > known.first) await deleteEntries(id, 0, history.first);
}

/** Writes the entries that are not stored yet. */
async function writeHistory(id: string, history: History, known: History): Promise<void> {
  const kept = sharedRun(known, history);
  const added = history.entries.slice(kept);
  if (added.length > 0) await storage.history.bulkPut(added.map((entry, k) => storedEntry(id, history.first + kept + k, entry)));
}

function rowOf(
  row: StoredProject | undefined,
  id: string,
  { name, sources, clips }: Project,
  history: History,
  demo: boolean,
  revision: number,
): StoredProject {
  return {
    ...row,
    id,
    name,
    sources: sources.length,
    clips: clips.length,
    cursor: history.first + history.cursor,
    createdAt: row?.createdAt ?? Date.now(),
    savedAt: Date.now(),
    demo,
    owner: THIS_TAB,
    revision,
  };
}

/** Pictures that went with a project that was deleted elsewhere, from what this page still holds of them. Says so if some are lost. */
async function bringBackPictures({ sources }: Project): Promise<void> {
  const hashes = new Set(sources.flatMap(allPictures).map(({ sha256 }) => sha256));
  for (const sha256 of await storage.pictures
    .where("sha256")
    .anyOf([...hashes])
    .primaryKeys())
    hashes.delete(sha256);
  const lost: string[] = [];
  // Asked for together: each that is lost may take a while to say so.
  const held = await Promise.all([...hashes].map(async (sha256) => ({ sha256, blob: await heldPicture(sha256) })));
  for (const { sha256, blob } of held)
    if (blob) await storage.pictures.put({ sha256, blob });
    else lost.push(sha256);
  if (lost.length === 0) return;
  sawMissing(lost);
  say({
    tone: "trouble",
    text: t(
      "What this browser stores was deleted while the project was open, and {lost} of its pictures are gone. The rest is stored again: drop the art to restore it.",
      { lost: lost.length },
    ),
  });
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
