/**
 * Writes files into a folder as a set. All are staged beside the others first, with a list of where they go; then each is renamed into
 * place. A kill before the list exists leaves the earlier delivery; a kill after it leaves the rest to the next command that writes
 * there, which finishes the list. Only files that an earlier command wrote are replaced.
 */
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { NamedFile } from "@caravan/core/codec";
import { CaravanError } from "@caravan/core/model";
import { type DeliveredFile, RECEIPT, type Receipt, readReceipt, receiptAfter, writeReceipt } from "@caravan/core/receipt";
import { notWritten } from "./files";
import { wrongCall } from "./output";
import { hashAt, type StagedFile, type Staging, stageFile } from "./staged-file";
import { STANDARD, writeToStandardOutput } from "./standard";

export interface WrittenSet {
  /** Paths that were written; the others were there already, byte for byte. */
  readonly written: readonly string[];
  /** Paths that the same command wrote earlier and makes no longer; they are still there. */
  readonly left: readonly string[];
}

/** A staged file and its place. */
interface Move {
  readonly copy: string;
  readonly path: string;
}

/** Written beside staged files once all of them are there. */
interface StagedList {
  readonly files: readonly Move[];
  readonly receipt: readonly DeliveredFile[];
}

const LIST = "list.json";

/**
 * Writes `files` below `folder`, or as one ZIP to standard output if that is `-`; `by` names the writer, so that its own earlier files are
 * recognised. `files` is iterated once, and may produce its bytes lazily. Throws `not-ours` with the names of files in the way, unless
 * `replace` allows replacing them; then nothing was written.
 */
export function writeSet(folder: string, files: Iterable<NamedFile>, by: string, replace = false): WrittenSet {
  if (folder === STANDARD) {
    writeToStandardOutput(files);
    return { written: [], left: [] };
  }
  const staging = begun(folder, replace);
  try {
    const made: StagedFile[] = [];
    for (const file of files) made.push(stageFile(staging, file, String(made.length)));
    return finished(staging, made, by);
  } catch (cause) {
    throw givenUp(staging, cause);
  }
}

/** The same for files that `stage` produces and stages itself, for example in several threads. */
export async function writeStaged(
  folder: string,
  stage: (staging: Staging) => Promise<readonly StagedFile[]>,
  by: string,
  replace: boolean,
): Promise<WrittenSet> {
  const staging = begun(folder, replace);
  try {
    return finished(staging, await stage(staging), by);
  } catch (cause) {
    throw givenUp(staging, cause);
  }
}

function begun(folder: string, replace: boolean): Staging {
  if (folder.trim() === "") wrongCall("--out does not name a folder. Give one, such as --out delivered, or --out . for this one.");
  const staged = join(folder, `.caravan-staged-${process.pid}`);
  try {
    mkdirSync(folder, { recursive: true });
    finishEarlier(folder);
    const ours = new Map([...receiptIn(folder)].map(([path, { sha256 }]) => [path, sha256]));
    return { folder, staged, ours, replace };
  } catch (cause) {
    throw inWords(folder, cause);
  }
}

function finished({ folder, staged }: Staging, files: readonly StagedFile[], by: string): WrittenSet {
  const strange = files.filter(({ how }) => how === "strange").map(({ path }) => path);
  if (strange.length > 0) throw notOurs(folder, strange);
  const { receipt, left } = receiptAfter(
    receiptIn(folder),
    files.map(({ path, sha256 }) => ({ path, sha256 })),
    by,
  );
  const moves = files.filter(({ how }) => how === "staged").map(({ copy, path }): Move => ({ copy, path }));
  if (moves.length > 0) {
    const list: StagedList = { files: moves, receipt: [...receipt.values()] };
    // The list appears atomically: from then on the set is delivered, whoever completes it.
    writeFileSync(join(staged, `${LIST}.part`), JSON.stringify(list));
    renameSync(join(staged, `${LIST}.part`), join(staged, LIST));
    putInPlace(folder, staged, list);
  } else writeReceiptIn(folder, receipt);
  return { written: moves.map(({ path }) => path), left: left.filter((path) => existsSync(join(folder, path))) };
}

/** Removes staged files, unless the set was complete. */
function givenUp({ folder, staged }: Staging, cause: unknown): unknown {
  if (!existsSync(join(staged, LIST))) rmSync(staged, { recursive: true, force: true });
  return inWords(folder, cause);
}

function inWords(folder: string, cause: unknown): unknown {
  if (cause instanceof CaravanError || !(cause instanceof Error && "code" in cause)) return cause;
  return notWritten(folder, cause, "Check that the folder can be written and has room.");
}

/** Paths that `by` wrote into the folder earlier, that are still there and not among `files`. */
export function leftIn(folder: string, files: readonly Pick<DeliveredFile, "path" | "sha256">[], by: string): string[] {
  return receiptAfter(receiptIn(folder), files, by).left.filter((path) => existsSync(join(folder, path)));
}

/** Removes leftover files that are unchanged since they were written, and takes them off the list. */
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

/** Completes or removes what killed commands left. Throws `bad-call` if one is running there now. */
function finishEarlier(folder: string): void {
  for (const name of readdirSync(folder)) {
    const pid = /^\.caravan-staged-(\d+)$/.exec(name)?.[1];
    if (pid === undefined) continue;
    if (Number(pid) !== process.pid && isRunning(Number(pid)))
      throw new CaravanError("bad-call", folder, "Another command is writing into it right now.", "Try again when it has finished.");
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
  for (const below of new Set(files.map(({ path }) => dirname(path)))) mkdirSync(join(folder, below), { recursive: true });
  for (const { copy, path } of files)
    try {
      renameSync(join(staged, copy), join(folder, path));
    } catch (error) {
      if ((error as { code?: string }).code !== "ENOENT") throw error;
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
