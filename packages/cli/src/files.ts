/** Reads and writes files, with errors that name them. */
import { readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { refuseStandIn } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";
import { STANDARD, standardInput } from "./standard";

/** A file's bytes; those of `-` are standard input's. Throws `not-found` with the reason in words, and `not-here` for what only stands in its place. */
export function readFile(path: string): Uint8Array {
  if (path === STANDARD) return standardInput();
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(path);
  } catch (cause) {
    throw new CaravanError("not-found", path, reasonOf(cause), "Check the path.", { cause });
  }
  refuseStandIn(bytes, path);
  return bytes;
}

/** Whether a project is one file there, or a folder. */
export function isProjectFile(path: string): boolean {
  return /\.caravan$/i.test(path);
}

export function isFolder(path: string): boolean {
  if (path === STANDARD) return false;
  try {
    return statSync(path).isDirectory();
  } catch (cause) {
    throw new CaravanError("not-found", path, reasonOf(cause), "Check the path.", { cause });
  }
}

/** Writes one file, which appears whole or not at all. Throws `bad-call` with the reason in words. */
export function writeWhole(path: string, bytes: Uint8Array): void {
  const part = join(dirname(path), `.caravan-${process.pid}-${basename(path)}.part`);
  try {
    writeFileSync(part, bytes);
    renameSync(part, path);
  } catch (cause) {
    rmSync(part, { force: true });
    throw notWritten(path, cause, "Check that it can be written and that there is room.");
  }
}

const REASONS: Record<string, string> = {
  ENOENT: "There is no such file or folder.",
  EACCES: "It may not be opened: permission denied.",
  EPERM: "It may not be opened: permission denied.",
  EISDIR: "It is a folder, not a file.",
  ENOTDIR: "A part of the path is a file, not a folder.",
  ENOSPC: "The disk is full.",
  EDQUOT: "The room that this account may use on the disk is full.",
  EBUSY: "Another program uses it.",
  EIO: "The disk reports a fault.",
  ENAMETOOLONG: "A name in its path is longer than this system allows.",
  EROFS: "The disk is read-only.",
};

/** The error for a failure to write. `usual` is what to do, unless another name is what helps. */
export function notWritten(where: string, cause: unknown, usual: string): CaravanError {
  const isLong = (cause as { code?: string }).code === "ENAMETOOLONG";
  const remedy = isLong ? "Choose a shorter name: most systems allow 255 bytes." : usual;
  return new CaravanError("bad-call", where, `Writing failed: ${reasonOf(cause)}`, remedy, { cause });
}

/** What the system says of a failure, in words. */
function reasonOf(error: unknown): string {
  const code = (error as { code?: string }).code ?? "";
  return REASONS[code] ?? `The system says ${code || String(error)}.`;
}
