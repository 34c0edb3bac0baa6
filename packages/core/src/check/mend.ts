import type { Project } from "../model";
import type { Finding } from "./finding";
import { findingsOf } from "./findings";

/** Whether a finding can be mended by an edit alone. */
export function isMendable({ mend }: Finding): boolean {
  return mend !== undefined && "apply" in mend;
}

/** The project with the finding mended; as it was if no edit mends it. Throws what the edit throws. */
export function mended(project: Project, { mend }: Finding): Project {
  return mend && "apply" in mend ? mend.apply(project) : project;
}

/** Mends everything of one code that edits can mend. One mending may undo the need of another, so each is looked for anew. */
export function allMended(project: Project, code: Finding["code"]): Project {
  let current = project;
  // What mends one place may show the same at another; it ends since no place is mended twice.
  const done = new Set<string>();
  for (;;) {
    const next = findingsOf(current).find((each) => each.code === code && isMendable(each) && !done.has(each.where));
    if (!next) return current;
    done.add(next.where);
    current = mended(current, next);
  }
}
