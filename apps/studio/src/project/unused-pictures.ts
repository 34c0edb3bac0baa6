/** Lists pictures that nothing refers to. Scans everything stored, so call it in a worker or rarely. */
import { storage } from "./storage";

/** Deletes those of the pictures that no stored document and no stored history refers to, nor `keep`; returns how many. */
export function deleteUnused(hashes: ReadonlySet<string>, keep: ReadonlySet<string>): Promise<number> {
  return storage.transaction("rw", [storage.documents, storage.history, storage.pictures], async () => {
    const used = hashesIn([await storage.documents.toArray(), await storage.history.toArray()]);
    const unused = [...hashes].filter((sha256) => !used.has(sha256) && !keep.has(sha256));
    await storage.pictures.bulkDelete(unused);
    return unused.length;
  });
}

/**
 * Stored pictures that nothing stored refers to: no document, no history, nothing kept aside. Without a transaction, which would delay
 * saving: pictures are stored first, so anything stored meanwhile only adds references.
 */
export async function picturesOfNobody(): Promise<string[]> {
  const all = (await storage.pictures.toCollection().primaryKeys()) as string[];
  const used = hashesIn([await storage.documents.toArray(), await storage.history.toArray(), await storage.settings.toArray()]);
  return all.filter((sha256) => !used.has(sha256));
}

/** Every SHA-256 anywhere in a value, in documents and in what undo would restore. */
export function hashesIn(value: unknown): Set<string> {
  return new Set(JSON.stringify(value).match(/(?<=")[0-9a-f]{64}(?=\\?")/g) ?? []);
}
