/** Stages one file of a set: compares it with the existing file and writes it beside. Used by commands and their threads. */
import { createHash } from "node:crypto";
import { lstatSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { NamedFile } from "@caravan/core/codec";

/** The destination of a set. */
export interface Staging {
  readonly folder: string;
  /** Beside the existing file, on the same disk. */
  readonly staged: string;
  /** Hashes of what earlier commands wrote, by path. */
  readonly ours: ReadonlyMap<string, string>;
  /** Whether files of others may be replaced, too. */
  readonly replace: boolean;
}

export interface StagedFile {
  readonly path: string;
  readonly sha256: string;
  /** The same bytes are there; or a file that is not ours to replace is; or it was written under the name `copy`. */
  readonly how: "same" | "strange" | "staged";
  readonly copy: string;
}

/** Writes the file as `copy`, a path, into the staging folder if its place has other bytes that may be replaced. Throws what the system throws. */
export function stageFile({ folder, staged, ours, replace }: Staging, { path, bytes }: NamedFile, copy: string): StagedFile {
  const sha256 = hashOf(bytes);
  const there = hashAt(join(folder, path));
  if (there === sha256) return { path, sha256, how: "same", copy };
  if (there !== null && !replace && ours.get(path) !== there) return { path, sha256, how: "strange", copy };
  try {
    writeFileSync(join(staged, copy), bytes);
  } catch (error) {
    if ((error as { code?: string }).code !== "ENOENT") throw error;
    mkdirSync(dirname(join(staged, copy)), { recursive: true });
    writeFileSync(join(staged, copy), bytes);
  }
  return { path, sha256, how: "staged", copy };
}

function hashOf(bytes: Uint8Array): string {
  return createHash("sha256").update(bytes).digest("hex");
}

/** Null if nothing is there; anything but a plain file has no hash and is never ours. */
export function hashAt(path: string): string | null {
  try {
    const found = lstatSync(path, { throwIfNoEntry: false });
    if (!found) return null;
    return found.isFile() ? hashOf(readFileSync(path)) : "no file";
  } catch (error) {
    const { code } = error as { code?: string };
    if (code === "ENOENT" || code === "ENOTDIR") return null;
    throw error;
  }
}
