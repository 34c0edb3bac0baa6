/** Decides which files to write into the project's folder, and which belong to somebody else. Pure, and tested. */

/** The state of the folder's document relative to our last read or write. */
export type Standing = "as known" | "as meant" | "changed" | "gone";

/** `writing` is what was about to be written when a page closed: if it is there now, we wrote it. */
export function standingOf(there: string | null, known: { readonly text: string; readonly writing?: { readonly text: string } }): Standing {
  if (there === null) return "gone";
  if (there === known.text) return "as known";
  return there === known.writing?.text ? "as meant" : "changed";
}

export interface ArtPlan {
  /** Paths at which the project's pictures are to be written. */
  readonly write: readonly string[];
  /** Paths where somebody else has put another picture: it stays, and is reviewed. */
  readonly others: readonly string[];
}

/**
 * All maps are from paths to hashes: `wanted` is the project's art, `there` the folder's current content, `known` its content at our last
 * look. Holds: a file is overwritten only if it is exactly what we left or found there.
 */
export function artPlan(
  wanted: ReadonlyMap<string, string>,
  there: ReadonlyMap<string, string>,
  known: ReadonlyMap<string, string>,
): ArtPlan {
  const write: string[] = [];
  const others: string[] = [];
  for (const [path, sha256] of wanted) {
    const found = there.get(path);
    if (found === sha256) continue;
    if (found === undefined || found === known.get(path)) write.push(path);
    else others.push(path);
  }
  return { write, others };
}
