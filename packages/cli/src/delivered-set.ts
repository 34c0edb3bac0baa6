/**
 * Files written into a folder as a set. All are written beside the others first, with a list of where they go; then each is renamed into
 * its place. A kill before the list is there leaves what was delivered before; a kill after it leaves the rest to the next command that
 * writes there, which finishes what the list says. Only files that an earlier command wrote are replaced.
 */
import { createHash } from "node:crypto";
import { existsSync, lstatSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { NamedFile } from "@caravan/core/codec";
import { type DeliveredFile, RECEIPT, type Receipt, readReceipt, receiptAfter, writeReceipt } from "@caravan/core/deliver";
import { CaravanError } from "@caravan/core/model";
import { reasonOf } from "./files";
import { STANDARD, writeToStandardOutput } from "./standard";
import { wrongCall } from "./tell";

export interface WrittenSet {
  /** Paths that were written; the others were there already, byte for byte. */
  readonly written: readonly string[];
  /** Paths that the same command wrote earlier and makes no longer; they are still there. */
  readonly left: readonly string[];
}

interface StagedFile {
  readonly copy: string;
  readonly path: string;
}

/** What stands beside staged files once all of them are there. */
interface StagedList {
  readonly files: readonly StagedFile[];
  readonly receipt: readonly DeliveredFile[];
}

const LIST = "list.json";

/**
 * Writes `files` below `folder`, or as one ZIP to standard output if that is `-`; `by` names who makes them, so that its own earlier files are told apart. `files` is walked once, and may
 * make its bytes as it goes. Throws `not-ours` with the names of files that stand in the way, unless `replace` allows to replace them;
 * then nothing was written.
 */
export function writeSet(folder: string, files: Iterable<NamedFile>, by: string, replace = false): WrittenSet {
  if (folder === STANDARD) {
    writeToStandardOutput(files);
    return { written: [], left: [] };
  }
  if (folder.trim() === "") wrongCall("--out names no folder. Give one, such as --out delivered, or --out . for this one.");
  const staged = join(folder, `.caravan-staged-${process.pid}`);
  try {
    mkdirSync(folder, { recursive: true });
    finishEarlier(folder);
    const before = receiptIn(folder);
    const made: { path: string; sha256: string }[] = [];
    const moves: StagedFile[] = [];
    const strange: string[] = [];
    for (const { path, bytes } of files) {
      const sha256 = hashOf(bytes);
      made.push({ path, sha256 });
      const there = hashAt(join(folder, path));
      if (there === sha256) continue;
      if (there !== null && !replace && before.get(path)?.sha256 !== there) strange.push(path);
      if (strange.length > 0) continue;
      mkdirSync(staged, { recursive: true });
      const copy = String(moves.length);
      writeFileSync(join(staged, copy), bytes);
      moves.push({ copy, path });
    }
    if (strange.length > 0) throw notOurs(folder, strange);
    const { receipt, left } = receiptAfter(before, made, by);
    if (moves.length > 0) {
      const list: StagedList = { files: moves, receipt: [...receipt.values()] };
      // The list appears whole: from then on the set is delivered, whoever finishes it.
      writeFileSync(join(staged, `${LIST}.part`), JSON.stringify(list));
      renameSync(join(staged, `${LIST}.part`), join(staged, LIST));
      putInPlace(folder, staged, list);
    } else writeReceiptIn(folder, receipt);
    return { written: moves.map(({ path }) => path), left: left.filter((path) => existsSync(join(folder, path))) };
  } catch (cause) {
    if (!existsSync(join(staged, LIST))) rmSync(staged, { recursive: true, force: true });
    if (cause instanceof CaravanError || !(cause instanceof Error && "code" in cause)) throw cause;
    throw new CaravanError("bad-call", folder, `Writing failed: ${reasonOf(cause)}`, "Check that the folder can be written and has room.", {
      cause,
    });
  }
}

/** Removes files that were named as left, as far as they are as they were written, and takes them off the list. */
export function removeLeft(folder: string, paths: readonly string[]): string[] {
  const receipt = new Map(receiptIn(folder));
  const removed = paths.filter((path) => receipt.get(path)?.sha256 === hashAt(join(folder, path)));
  for (const path of removed) {
    rmSync(join(folder, path), { force: true });
    receipt.delete(path);
  }
  writeReceiptIn(folder, receipt);
  return removed;
}

/** What earlier commands wrote into a folder. */
export function receiptIn(folder: string): Receipt {
  const path = join(folder, RECEIPT);
  return readReceipt(existsSync(path) ? readFileSync(path) : null);
}

/** Whether the file at this path of the folder is as an earlier command wrote it there. */
export function isDelivered(folder: string, receipt: Receipt, path: string): boolean {
  const known = receipt.get(path);
  return known !== undefined && known.sha256 === hashAt(join(folder, path));
}

/** Finishes, or takes away, what commands that were killed left. Throws `bad-call` if one is at work there right now. */
function finishEarlier(folder: string): void {
  for (const name of readdirSync(folder)) {
    const pid = /^\.caravan-staged-(\d+)$/.exec(name)?.[1];
    if (pid === undefined) continue;
    if (Number(pid) !== process.pid && isRunning(Number(pid)))
      throw new CaravanError("bad-call", folder, "Another command is writing into it right now.", "Try again when that has ended.");
    const staged = join(folder, name);
    const list = readList(staged);
    if (list) putInPlace(folder, staged, list);
    else rmSync(staged, { recursive: true, force: true });
  }
}

function readList(staged: string): StagedList | null {
  try {
    return JSON.parse(readFileSync(join(staged, LIST), "utf8")) as StagedList;
  } catch {
    return null;
  }
}

/** May be done again after a kill: copies that have moved already are no longer there. */
function putInPlace(folder: string, staged: string, { files, receipt }: StagedList): void {
  for (const { copy, path } of files) {
    const from = join(staged, copy);
    if (!existsSync(from)) continue;
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    renameSync(from, join(folder, path));
  }
  writeReceiptIn(folder, new Map(receipt.map((file) => [file.path, file])));
  rmSync(staged, { recursive: true, force: true });
}

/** Left untouched if it says the same already: who watches the folder should not hear of it. */
function writeReceiptIn(folder: string, receipt: Receipt): void {
  const path = join(folder, RECEIPT);
  const bytes = writeReceipt(receipt);
  if (existsSync(path) && readFileSync(path).equals(bytes)) return;
  const part = join(folder, `.caravan-delivered-${process.pid}.part`);
  writeFileSync(part, bytes);
  renameSync(part, path);
}

function hashOf(bytes: Uint8Array): string {
  return createHash("sha256").update(bytes).digest("hex");
}

/** Null where there is nothing; what is no plain file has no hash and is never ours. */
function hashAt(path: string): string | null {
  try {
    return lstatSync(path).isFile() ? hashOf(readFileSync(path)) : "no file";
  } catch (error) {
    const { code } = error as { code?: string };
    if (code === "ENOENT" || code === "ENOTDIR") return null;
    throw error;
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

function notOurs(folder: string, paths: readonly string[]): CaravanError {
  const shown = paths.slice(0, 5).join(", ") + (paths.length > 5 ? ` and ${paths.length - 5} more` : "");
  return new CaravanError(
    "not-ours",
    folder,
    `It holds ${paths.length === 1 ? "a file" : "files"} that Caravan did not write, or that changed since: ${shown}. Nothing was written.`,
    "Choose another folder or name, or add --replace to replace them.",
  );
}
