/** The browser's database: projects, their edit history, and pictures by the hash of their bytes. */
import { type ProjectFile, whyOf } from "@caravan/core/model";
import Dexie, { type EntityTable, type Table, type Transaction } from "dexie";
import { t } from "../ui/words";

export interface StoredProject {
  readonly id: string;
  readonly name: string;
  /** How many it has of each, for the list of projects. */
  readonly sources: number;
  readonly clips: number;
  /** How many history entries are applied; the ones above can be redone. */
  readonly cursor: number;
  readonly createdAt: number;
  readonly savedAt: number;
  /** Set while the project is among the removed ones, from where it can be restored. */
  readonly removedAt?: number;
  /** When it was first found to have been removed long ago; it is deleted some days later. */
  readonly oldSince?: number;
  /** True until the demo is changed for the first time. */
  readonly demo?: boolean;
  /** The tab that may write it: a save by any other is refused, whatever that one believes. */
  readonly owner?: string;
  /** Counts saves, so that the journal can name the save that it follows. */
  readonly revision?: number;
  /** Where the person was: stop, source, clip. */
  readonly place?: StoredPlace;
}

export interface StoredPlace {
  readonly stop: string;
  readonly source: string | null;
  readonly clip: string | null;
}

/** One part of a project's document; `stored-document.ts` says which there are. */
export interface StoredPart {
  readonly project: string;
  readonly part: string;
  readonly text: string;
}

export interface StoredEntry {
  readonly project: string;
  readonly index: number;
  readonly label: string;
  /** The changes both ways, `{ forth, back }`, as JSON text. */
  readonly changes: string;
}

export interface StoredPicture {
  readonly sha256: string;
  readonly blob: Blob;
}

export interface StoredSetting {
  readonly key: string;
  readonly value: unknown;
}

/** The folder of a project's art. Handles can be stored directly. */
export interface StoredLink {
  readonly project: string;
  readonly folder: FileSystemDirectoryHandle;
  /** Distinguishes this link from all others, even of a folder with the same name. */
  readonly mark?: string;
  /** Files that were decided on, by path, as they were then. */
  readonly ignored: Record<string, string>;
  /** The files that have a source's art where others fit as well, by what its art is called; none of them if it is empty. */
  readonly chosen?: Record<string, readonly string[]>;
  /** Whether it is the folder that the project is kept in: only its picture files are checked. */
  readonly home?: true;
}

/** The folder that a project is kept in, `caravan.json` and art, and its content at the last read or write. */
export interface StoredHome {
  readonly project: string;
  readonly folder: FileSystemDirectoryHandle;
  /** `caravan.json` as it was. */
  readonly text: string;
  /** The hash of the same document as we write it; "" if the open one is to overwrite it. */
  readonly clean: string;
  /** What was about to be written there, for a page that was closed meanwhile. */
  readonly writing?: { readonly text: string; readonly clean: string };
  /** Hashes of its art, by path. */
  readonly art: Readonly<Record<string, string>>;
}

/** The game folder of a delivery. */
export interface StoredOutlet {
  readonly project: string;
  /** Name of the delivery. */
  readonly delivery: string;
  readonly folder: FileSystemDirectoryHandle;
  /** What was delivered there the last time, by path. */
  readonly paths: readonly string[];
}

/** The metadata file that cut a source, to read it again when a field was understood wrongly. */
export interface StoredText extends KeptText {
  readonly project: string;
  readonly source: string;
  /** What cut the source before, the latest first: an undo returns to it. */
  readonly earlier?: readonly KeptText[];
}

/** A metadata file as it was read; texts of former versions have no hash. */
export interface KeptText {
  readonly file: string;
  readonly sha256?: string;
  readonly text: string;
}

class Storage extends Dexie {
  projects!: EntityTable<StoredProject, "id">;
  documents!: Table<StoredPart, [string, string]>;
  history!: Table<StoredEntry, [string, number]>;
  pictures!: EntityTable<StoredPicture, "sha256">;
  settings!: EntityTable<StoredSetting, "key">;
  links!: EntityTable<StoredLink, "project">;
  texts!: Table<StoredText, [string, string]>;
  outlets!: Table<StoredOutlet, [string, string]>;
  homes!: EntityTable<StoredHome, "project">;

  constructor() {
    super("caravan");
    this.version(1).stores({ projects: "id, savedAt", history: "[project+index]", pictures: "sha256", settings: "key" });
    this.version(2).stores({ documents: "[project+part]" }).upgrade(documentsAsText);
    this.version(3).stores({ links: "project", texts: "[project+source]" });
    this.version(4).stores({ outlets: "[project+delivery]" });
    this.version(5).stores({ homes: "project" });
  }
}

/** The document was in the project's own row, and changes in the history's, both as objects. */
async function documentsAsText(old: Transaction): Promise<void> {
  type Before = StoredProject & { document?: ProjectFile };
  const parts: StoredPart[] = [];
  await old
    .table<Before>("projects")
    .toCollection()
    .modify((row) => {
      if (!row.document) return;
      const { sources, clips, ...rest } = row.document;
      for (const [part, value] of Object.entries({ sources, clips, rest }))
        parts.push({ project: row.id, part, text: JSON.stringify(value) });
      Object.assign(row, { sources: sources.length, clips: clips.length });
      delete row.document;
    });
  await old.table<StoredPart>("documents").bulkPut(parts);
  await old
    .table("history")
    .toCollection()
    .modify((entry: { forth?: unknown; back?: unknown; changes?: string }) => {
      entry.changes = JSON.stringify({ forth: entry.forth, back: entry.back });
      delete entry.forth;
      delete entry.back;
    });
}

export const storage = new Storage();

/** This browser keeps nothing for us, so that no project can be opened. */
export class NoStorage extends Error {
  override readonly name = "NoStorage";
}

/** Opens the database. Throws `NoStorage` with what a person can do: browsers' own errors are for developers. */
export async function openStorage(): Promise<void> {
  try {
    await storage.open();
  } catch (cause) {
    const { name, inner } = cause as { readonly name?: string; readonly inner?: { readonly name?: string } };
    const isForbidden = name === Dexie.errnames.MissingAPI || name === "SecurityError" || inner?.name === "SecurityError";
    const text = isForbidden
      ? t("This browser does not allow Caravan to store anything: in its settings, or because the window is a private one.")
      : t("This browser's storage does not open, as when its disk is full or its data is damaged.");
    const remedy = isForbidden
      ? t("Allow this address to store data, which some browsers call cookies, or open Caravan in another browser or window.")
      : t("Make room on the disk, close the browser and open it again. Its report: {why}", { why: whyOf(cause) });
    throw new NoStorage(`${text} ${remedy}`, { cause });
  }
}

/** True for the error that a browser gives when it has no more room for us. */
export function isStorageFull(error: unknown): boolean {
  const names = [(error as Error | null)?.name, (error as { inner?: Error } | null)?.inner?.name, (error as Error | null)?.message];
  return names.some((name) => name?.includes("QuotaExceeded") ?? false);
}

export async function readSetting<Value>(key: string): Promise<Value | undefined> {
  return (await storage.settings.get(key))?.value as Value | undefined;
}

export async function writeSetting(key: string, value: unknown): Promise<void> {
  await storage.settings.put({ key, value });
}

/** Every entry of a project's history, oldest first. */
export function entriesOf(project: string): Promise<StoredEntry[]> {
  return storage.history.where("[project+index]").between([project, Dexie.minKey], [project, Dexie.maxKey]).toArray();
}

export async function deleteEntries(project: string, from: number, below = Number.POSITIVE_INFINITY): Promise<void> {
  await storage.history
    .where("[project+index]")
    .between([project, from], [project, below === Number.POSITIVE_INFINITY ? Dexie.maxKey : below], true, false)
    .delete();
}
