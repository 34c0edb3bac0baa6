import { CaravanError, type Project } from "../model";
import type { Finding } from "./finding";
import { findingsOf } from "./findings";
import { isMendable, mended } from "./mend";

/**
 * Mends everything of one code that edits can mend. What a mending shows anew, or what it stood in the way of, is mended in a further
 * round; it ends when a round changes nothing. Cost: a look through the project for each round, and few rounds.
 */
export function allMended(project: Project, code: Finding["code"]): Project {
  let current = project;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = current;
    for (const finding of findingsOf(before)) if (finding.code === code && isMendable(finding)) current = mendedIfItCan(current, finding);
    if (current === before) break;
  }
  return current;
}

/** Mendings that undo each other would go on forever. */
const MOST_ROUNDS = 8;

/** As it was where another mending took the place, such as a name: the next round finds another way. */
function mendedIfItCan(project: Project, finding: Finding): Project {
  try {
    return mended(project, finding);
  } catch (error) {
    if (error instanceof CaravanError) return project;
    throw error;
  }
}
