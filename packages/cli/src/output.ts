/** Prints what commands say: results on standard output, everything else on standard error. */

import type { CaravanError } from "@caravan/core/model";

/** An invalid call; exits with 2. */
export class WrongCall extends Error {}

export function wrongCall(message: string): never {
  throw new WrongCall(message);
}

let quiet = false;

/** From now on only JSON that was asked for, and what went wrong, is printed. */
export function beQuiet(): void {
  quiet = true;
}

export function isQuiet(): boolean {
  return quiet;
}

let beside = false;

/** From now on words of results go to standard error as well, since standard output has bytes. */
export function sayBeside(): void {
  beside = true;
}

/** Prints the result: one JSON document and nothing else, or text. */
export function tell(json: boolean, result: unknown, words: () => string): void {
  if (beside) note(words());
  else if (json || !quiet) process.stdout.write(`${json ? JSON.stringify(result) : words()}\n`);
}

/** A message besides the result. */
export function note(message: string): void {
  if (!quiet) process.stderr.write(`${message}\n`);
}

/** What a known error says, for programs and in one line for people. */
export function failureOf({ code, where, message }: CaravanError): { code: string; where: string; message: string } {
  return { code, where, message: message.replace(/\s+/g, " ") };
}

/** What went wrong, in one line; with `--json` also as the one JSON document, for programs. */
export function tellFailure(json: boolean, { code, where, message }: { code: string; where: string; message: string }): void {
  process.stderr.write(`caravan: ${message}\n`);
  if (json) process.stdout.write(`${JSON.stringify({ error: { code, where, message } })}\n`);
}
