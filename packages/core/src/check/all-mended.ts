import { CaravanError, type Project } from "../model";
import type { Finding } from "./finding";
import { findingsOf } from "./findings";
import { isMendable, mended } from "./mend";

/**
 * Applies the mendings of all findings with one code. Mending may reveal or enable further ones, so it repeats until a round changes
 * nothing. Cost: one search for findings per round, and few rounds.
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

/** Mendings that undo each other would loop forever. */
const MOST_ROUNDS = 8;

/** Unchanged if another mending took its place, such as a name: the next round finds another way. */
function mendedIfItCan(project: Project, finding: Finding): Project {
  try {
    return mended(project, finding);
  } catch (error) {
    if (error instanceof CaravanError) return project;
    throw error;
  }
}
