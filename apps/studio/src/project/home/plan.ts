/** Decides which files to write into the project's folder, and which belong to somebody else. Pure, and tested. */

/** How the document in the folder stands to what we last read or wrote there. */
export type Standing = "as known" | "as meant" | "changed" | "gone";

/** `writing` is what was about to be written when a page was closed: if that is what stands there, it was we who wrote it. */
export function standingOf(there: string | null, known: { readonly text: string; readonly writing?: { readonly text: string } }): Standing {
  if (there === null) return "gone";
  if (there === known.text) return "as known";
  return there === known.writing?.text ? "as meant" : "changed";
}

export interface ArtPlan {
  /** Paths at which the project's pictures are to be written. */
  readonly write: readonly string[];
  /** Paths at which somebody else has put another picture: it stays, and is asked about. */
  readonly others: readonly string[];
}

/**
 * All maps are from paths to hashes: `wanted` is the project's art, `there` what the folder has, `known` what it had when we last looked. Holds:
 * a file is written over only if it is the very one that we left or found there.
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
