/** Reading and writing files so that errors name them and outputs appear whole or not at all. */
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { NamedFile } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";

/** Throws `not-found` with the reason in words. */
export function readFile(path: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (cause) {
    throw new CaravanError("not-found", path, reasonOf(cause), "Check the path.", { cause });
  }
}

export function isFolder(path: string): boolean {
  try {
    return statSync(path).isDirectory();
  } catch (cause) {
    throw new CaravanError("not-found", path, reasonOf(cause), "Check the path.", { cause });
  }
}

/**
 * Writes files below `folder`. All are first written whole under other names and only then renamed into place, so that a
 * failure or a kill never leaves half a file under its own name. `files` is walked twice; it may make its bytes as it goes.
 */
export function writeFiles(folder: string, files: Iterable<NamedFile>): void {
  const pending: { from: string; to: string }[] = [];
  try {
    const made = new Set<string>();
    for (const { path, bytes } of files) {
      const to = join(folder, path);
      const parent = dirname(to);
      if (!made.has(parent)) {
        mkdirSync(parent, { recursive: true });
        removeLeftovers(parent);
      }
      made.add(parent);
      const from = join(parent, `.caravan-${process.pid}-${pending.length}.part`);
      pending.push({ from, to });
      writeFileSync(from, bytes);
    }
    for (const { from, to } of pending) renameSync(from, to);
  } catch (cause) {
    for (const { from } of pending) rmSync(from, { force: true });
    if (cause instanceof CaravanError) throw cause;
    throw new CaravanError("bad-call", folder, `Writing failed: ${reasonOf(cause)}`, "Check that the folder can be written and has room.", {
      cause,
    });
  }
}

/** Takes away unfinished files of commands that were killed; those of commands that run stay. */
function removeLeftovers(folder: string): void {
  for (const name of readdirSync(folder)) {
    const pid = /^\.caravan-(\d+)-\d+\.part$/.exec(name)?.[1];
    if (pid !== undefined && !isRunning(Number(pid))) rmSync(join(folder, name), { force: true });
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as { code?: string }).code !== "ESRCH";
  }
}

/** Writes only those files whose bytes are not there already, all as `writeFiles` does. Returns their paths. */
export function writeChangedFiles(folder: string, files: readonly NamedFile[]): string[] {
  const changed = files.filter(({ path, bytes }) => !holds(join(folder, path), bytes));
  if (changed.length > 0) writeFiles(folder, changed);
  return changed.map(({ path }) => path);
}

function holds(path: string, bytes: Uint8Array): boolean {
  try {
    return statSync(path).size === bytes.length && readFileSync(path).equals(bytes);
  } catch {
    return false;
  }
}

const REASONS: Record<string, string> = {
  ENOENT: "There is no such file or folder.",
  EACCES: "It may not be opened: permission denied.",
  EPERM: "It may not be opened: permission denied.",
  EISDIR: "It is a folder, not a file.",
  ENOTDIR: "A part of the path is a file, not a folder.",
  ENOSPC: "The disk is full.",
  EROFS: "The disk is read-only.",
};

function reasonOf(error: unknown): string {
  const code = (error as { code?: string }).code ?? "";
  return REASONS[code] ?? `The system says ${code || String(error)}.`;
}
