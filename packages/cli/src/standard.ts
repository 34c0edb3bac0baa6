/** Standard input as a file, and standard output as a destination for files; both are written `-`. */
import { readFileSync } from "node:fs";
import { type NamedFile, writeZip } from "@caravan/core/codec";
import { sayBeside, wrongCall } from "./output";

export const STANDARD = "-";

/** The name of a picture from standard input. */
export const UNNAMED = "picture";

/** What a file is called in messages. */
export function calledInWords(path: string): string {
  return path === STANDARD ? "standard input" : path;
}

let input: Uint8Array | null = null;

/** Everything that is handed over at standard input. It is read once, and can be asked for again. */
export function standardInput(): Uint8Array {
  if (process.stdin.isTTY) wrongCall("There is nothing on standard input. Add < FILE to the command, or name a file instead of -.");
  input ??= readFileSync(0);
  return input;
}

/** From now on messages go to standard error: standard output is for bytes. Throws if it is a terminal, or if JSON is wanted there too. */
export function reserveStandardOutput(json: boolean): void {
  if (json) wrongCall("--json and --out - both need standard output. Use only one of them.");
  if (process.stdout.isTTY) wrongCall("Standard output is a terminal, and the output is a ZIP. Add > FILE.zip to the command.");
  sayBeside();
}

/** Writes a set of files to standard output, as one ZIP. */
export function writeToStandardOutput(files: Iterable<NamedFile>): void {
  process.stdout.write(writeZip([...files]));
}
