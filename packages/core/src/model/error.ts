/** The error for anything that the person at the screen or terminal can fix. */
export type ErrorCode =
  | "bad-name"
  | "name-taken"
  | "not-found"
  | "nothing-picked"
  | "cell-too-large"
  | "bad-count"
  | "bad-margin"
  | "bad-duration"
  | "bad-number"
  | "bad-outline"
  | "not-a-picture"
  | "damaged-picture"
  | "picture-too-large"
  | "too-many-pictures"
  | "project-too-large"
  | "empty-file"
  | "not-here"
  | "not-a-project"
  | "newer-version"
  | "damaged-project"
  | "repeated-name"
  | "picture-mismatch"
  | "missing-picture"
  | "frame-too-large"
  | "too-many-pages"
  | "empty-clip"
  | "missing-frame"
  | "name-collision"
  | "proof-failed"
  | "read-only"
  | "cancelled"
  | "bad-metadata"
  | "bad-track"
  | "unsupported"
  | "other-project"
  | "changed-meanwhile"
  | "not-stored"
  | "not-ours"
  | "internal"
  | "bad-call";

/**
 * A problem that its reader can fix. `where` is a place they know: a file, a clip and step, a command's option; `what` says what is wrong
 * there and `remedy` what to do; both are complete sentences.
 */
export class CaravanError extends Error {
  override readonly name = "CaravanError";

  constructor(
    readonly code: ErrorCode,
    readonly where: string,
    readonly what: string,
    readonly remedy: string,
    options?: ErrorOptions,
  ) {
    super(`${where}: ${what} ${remedy}`, options);
  }
}

/** Ends a `switch` over a closed union: a new member does not compile until the switch answers it. */
export function unreachable(value: never): never {
  throw new Error(`A value that the types rule out arrived: ${JSON.stringify(value)}`);
}

/** What an error of any kind says; anything can be thrown. */
export function whyOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
