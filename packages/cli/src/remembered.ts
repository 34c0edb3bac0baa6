/**
 * Caches build results by everything that they depend on: document, art, options and the command itself. If nothing changed and all files
 * are still where they were delivered, nothing is decoded, packed or proved again. If anything is wrong with the cache, the build is
 * made.
 */
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { homedir } from "node:os";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { PROJECT_FILE, picturesOf } from "@caravan/core/bundle";
import { sha256Hex, textFromUtf8, utf8 } from "@caravan/core/codec";
import * as z from "zod";
import { artPath } from "./art-path";
import { isDelivered, receiptIn } from "./delivered-set";
import { isFolder, writeWhole } from "./files";
import { PRINTED } from "./printed";
import { openDocument } from "./project";
import { hashAt } from "./staged-file";
import { STANDARD } from "./standard";

/** A build's report, and the sources whose art had been overwritten, in words. */
const BuildResult = PRINTED.build.omit({ asBefore: true }).extend({ changed: z.array(z.string()) });
export type BuildResult = z.infer<typeof BuildResult>;

/** The number of entries to keep, by last use. */
const MOST = 100;

/** The cache folder: `CARAVAN_CACHE`, or the system's usual place; null if that variable is empty, for no cache. */
function folderOf(): string | null {
  const { CARAVAN_CACHE, XDG_CACHE_HOME, LOCALAPPDATA } = process.env;
  if (CARAVAN_CACHE !== undefined) return CARAVAN_CACHE === "" ? null : CARAVAN_CACHE;
  return join(XDG_CACHE_HOME || LOCALAPPDATA || join(homedir(), ".cache"), "caravan");
}

/** A key for everything that a build depends on; null if there is none. Throws what reading the document throws. */
export function keyOfBuild(path: string, only: readonly string[]): string | null {
  if (path === STANDARD || folderOf() === null) return null;
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  const made: unknown[] = [commandHash(), only];
  if (folder === null) made.push(hashAt(path));
  else {
    const document = openDocument(path);
    made.push(hashAt(join(folder, PROJECT_FILE)));
    for (const { file } of picturesOf(document)) made.push([file, hashAt(artPath(folder, file) ?? join(folder, file))]);
  }
  return sha256Hex(utf8(JSON.stringify(made)));
}

/** Another version of the command may make other files. */
function commandHash(): string | null {
  return hashAt(fileURLToPath(import.meta.url));
}

/** What this build came to before, if all of its files are in `out` as they were delivered. */
export function builtBefore(key: string, out: string): BuildResult | null {
  const folder = folderOf();
  if (folder === null) return null;
  try {
    const result = BuildResult.parse(JSON.parse(textFromUtf8(readFileSync(join(folder, `${key}.json`)))));
    const receipt = receiptIn(out);
    const isThere = ({ path, sha256 }: BuildResult["files"][number]) =>
      receipt.get(path)?.sha256 === sha256 && isDelivered(out, receipt, path);
    return result.files.length > 0 && result.files.every(isThere) ? result : null;
  } catch {
    return null;
  }
}

export function rememberBuild(key: string, result: BuildResult): void {
  const folder = folderOf();
  if (folder === null) return;
  try {
    mkdirSync(folder, { recursive: true });
    writeWhole(join(folder, `${key}.json`), utf8(JSON.stringify(result)));
    const all = readdirSync(folder).filter((name) => /^[0-9a-f]{64}\.json$/.test(name));
    if (all.length <= MOST) return;
    const byAge = all.map((name) => ({ name, at: statSync(join(folder, name)).mtimeMs })).sort((a, b) => b.at - a.at);
    for (const { name } of byAge.slice(MOST)) rmSync(join(folder, name), { force: true });
  } catch {
    // Without it the next build runs again, nothing worse.
  }
}
