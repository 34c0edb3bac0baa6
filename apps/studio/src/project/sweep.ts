/** Frees storage: deletes removed projects permanently, and pictures that nothing refers to. */

import { CaravanError } from "@caravan/core/model";
import Dexie from "dexie";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { dropJournal } from "./journal";
import { useOpenProject } from "./open-project";
import { forgetWaiting, wasStoredHere } from "./picture-files";
import { deleteEntries, storage } from "./storage";
import { deleteDocument } from "./stored-document";
import { isOnlyTab, whileNobodyElseOwns } from "./tabs";
import { hashesIn } from "./unused-pictures";

/** A removed project can be brought back for this long. */
const KEPT_FOR = 30 * 24 * 3600 * 1000; // ms

/** How long a clock must go on saying so: one that is wrong, or is put right, makes everything look old at once. */
const OLD_FOR = 7 * 24 * 3600 * 1000; // ms

/** Deletes projects that were removed long ago, and have been found so for days. To be called when the page opens. */
export async function sweepOld(now = Date.now()): Promise<void> {
  const removed = await storage.projects.filter((row) => row.removedAt !== undefined).toArray();
  for (const { id, removedAt = now, oldSince } of removed) {
    const isOld = now - removedAt > KEPT_FOR;
    // One that another tab has open is left for another time.
    if (isOld && oldSince !== undefined && now - oldSince > OLD_FOR) await deleteForGood(id).catch(() => {});
    else if (isOld && (oldSince === undefined || oldSince > now)) await storage.projects.update(id, { oldSince: now });
    else if (!isOld && oldSince !== undefined) await storage.projects.where({ id }).modify(forgetOld);
  }
}

function forgetOld(row: { oldSince?: number }): void {
  delete row.oldSince;
}

/** Deletes a removed project, its history, and the pictures that only it used. There is no way back. Throws `read-only` if another tab has it open. */
export async function deleteForGood(id: string): Promise<void> {
  const name = (await storage.projects.get(id))?.name ?? "project";
  if (useOpenProject.getState().id === id)
    throw new CaravanError("read-only", name, t("It is open here."), t("Open another project first."));
  await whileNobodyElseOwns(id, name, () => deletedForGood(id));
  dropJournal(id);
}

async function deletedForGood(id: string): Promise<void> {
  await storage.transaction(
    "rw",
    [storage.projects, storage.documents, storage.history, storage.pictures, storage.links, storage.texts, storage.outlets, storage.homes],
    async () => {
      const row = await storage.projects.get(id);
      if (row?.removedAt === undefined) return;
      const gone = hashesIn([
        await storage.documents.where("[project+part]").between([id, Dexie.minKey], [id, Dexie.maxKey]).toArray(),
        await storage.history.where("[project+index]").between([id, Number.NEGATIVE_INFINITY], [id, Number.POSITIVE_INFINITY]).toArray(),
      ]);
      await storage.projects.delete(id);
      await deleteDocument(id);
      await storage.links.delete(id);
      await storage.homes.delete(id);
      await storage.texts.where("[project+source]").between([id, Dexie.minKey], [id, Dexie.maxKey]).delete();
      await storage.outlets.where("[project+delivery]").between([id, Dexie.minKey], [id, Dexie.maxKey]).delete();
      await deleteEntries(id, Number.NEGATIVE_INFINITY);
      // Only pictures of this project are deleted: another tab may be importing one that nothing refers to yet.
      const used = hashesIn([await storage.documents.toArray(), await storage.history.toArray()]);
      await storage.pictures.bulkDelete([...gone].filter((sha256) => !used.has(sha256)));
    },
  );
}

/**
 * Deletes pictures left by a killed page: stored for a document that never came. Only if no other tab is open, which may be importing. Call
 * it when the page has opened.
 */
export async function sweepLeft(): Promise<void> {
  if (!(await isOnlyTab())) return;
  const left = await run("picturesOfNobody", {});
  if (left.length === 0 || !(await isOnlyTab())) return;
  // What waits in the journal is put back when its project is opened.
  const needed = hashesIn([useOpenProject.getState().project, Object.values(localStorage)]);
  await storage.pictures.bulkDelete(left.filter((sha256) => !needed.has(sha256) && !wasStoredHere(sha256)));
}

/** Deletes those of the pictures that nothing refers to, in a worker. */
export async function sweepPictures(hashes: ReadonlySet<string>): Promise<void> {
  forgetWaiting(hashes);
  // The document that is open may refer to one since its last save.
  await run("sweepPictures", { hashes: [...hashes], keep: [...hashesIn(useOpenProject.getState().project)] });
}
