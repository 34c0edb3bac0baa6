/** What is kept in this browser, and nowhere else: projects, their history of edits, and pictures by the hash of their bytes. */
import type { Change } from "@caravan/core/edit";
import type { ProjectFile } from "@caravan/core/model";
import Dexie, { type EntityTable, type Table } from "dexie";

export interface StoredProject {
  readonly id: string;
  readonly name: string;
  readonly document: ProjectFile;
  /** How many history entries are applied; the ones above can be redone. */
  readonly cursor: number;
  readonly createdAt: number;
  readonly savedAt: number;
  /** Set while it lies among the removed ones, from where it can be brought back. */
  readonly removedAt?: number;
  /** True until the demo is changed for the first time. */
  readonly demo?: boolean;
  /** Where the person was: stop, source, clip. */
  readonly place?: StoredPlace;
}

export interface StoredPlace {
  readonly stop: string;
  readonly source: string | null;
  readonly clip: string | null;
}

export interface StoredEntry {
  readonly project: string;
  readonly index: number;
  readonly label: string;
  readonly forth: readonly Change[];
  readonly back: readonly Change[];
}

export interface StoredPicture {
  readonly sha256: string;
  readonly blob: Blob;
}

export interface StoredSetting {
  readonly key: string;
  readonly value: unknown;
}

class Storage extends Dexie {
  projects!: EntityTable<StoredProject, "id">;
  history!: Table<StoredEntry, [string, number]>;
  pictures!: EntityTable<StoredPicture, "sha256">;
  settings!: EntityTable<StoredSetting, "key">;

  constructor() {
    super("caravan");
    this.version(1).stores({ projects: "id, savedAt", history: "[project+index]", pictures: "sha256", settings: "key" });
  }
}

export const storage = new Storage();

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
