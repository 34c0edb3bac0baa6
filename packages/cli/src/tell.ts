/** What the command says: results on standard output, everything else on standard error. */

/** A call that makes no sense as it stands; exits with 2. */
export class WrongCall extends Error {}

export function wrongCall(message: string): never {
  throw new WrongCall(message);
}

/** Prints the result: one JSON document and nothing else, or words. */
export function tell(json: boolean, result: unknown, words: () => string): void {
  process.stdout.write(`${json ? JSON.stringify(result) : words()}\n`);
}

/** A message beside the result. */
export function note(message: string): void {
  process.stderr.write(`${message}\n`);
}
