/**
 * The list of delivered files in a folder: paths with hashes and who made them. A later delivery replaces only the files it finds listed;
 * any other file is left alone.
 */
import * as z from "zod";
import { textFromUtf8, utf8 } from "../codec";
import { SHA256 } from "../model";

/** Name of the list in the folder that was delivered into. */
export const RECEIPT = ".caravan-delivered.json";

const Content = z.object({
  format: z.literal("caravan-delivered"),
  version: z.literal(1),
  files: z.array(z.object({ path: z.string(), sha256: SHA256, by: z.string() })),
});

export interface DeliveredFile {
  readonly path: string;
  readonly sha256: string;
  /** The delivery or command that made it. */
  readonly by: string;
}

export type Receipt = ReadonlyMap<string, DeliveredFile>;

/** The list as read; empty if there is none, or if it cannot be read: then no file counts as ours. */
export function readReceipt(bytes: Uint8Array | null): Receipt {
  if (bytes === null) return new Map();
  try {
    const { files } = Content.parse(JSON.parse(textFromUtf8(bytes)));
    return new Map(files.map((file) => [file.path, file]));
  } catch {
    return new Map();
  }
}

/** The list's bytes, in the order of paths. */
export function writeReceipt(receipt: Receipt): Uint8Array {
  const files = [...receipt.values()].sort((a, b) => (a.path < b.path ? -1 : 1)).map(({ path, sha256, by }) => ({ path, sha256, by }));
  return utf8(`${JSON.stringify({ format: "caravan-delivered", version: 1, files }, null, 1)}\n`);
}

/** The list after `files` were delivered by `by`, and what the same one had made before and makes no longer. */
export function receiptAfter(
  before: Receipt,
  files: readonly { readonly path: string; readonly sha256: string }[],
  by: string,
): { receipt: Receipt; left: string[] } {
  const receipt = new Map(before);
  for (const { path, sha256 } of files) receipt.set(path, { path, sha256, by });
  const made = new Set(files.map(({ path }) => path));
  return { receipt, left: [...before.values()].filter((file) => file.by === by && !made.has(file.path)).map(({ path }) => path) };
}
