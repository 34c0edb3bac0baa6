/** Merges two versions of a project with a common origin by meaning: clips, steps, marks, rules. */
import { CaravanError, checkDocument, type Project, whyOf } from "../model";
import { withNeeded } from "./needed";
import { withOwnIds } from "./new-ids";
import { withRenamesFollowed } from "./renames";
import { type Clash, merged } from "./three-way";

/** Something that only a person can decide. The merged project has it as ours does. */
export interface Conflict {
  /** In words, from the outside in: `clips, walk, playback`. */
  readonly where: string;
  readonly message: string;
}

const MESSAGES: Readonly<Record<Clash["how"], string>> = {
  "both changed it": "Both sides changed it, each otherwise; ours stays.",
  "we removed it, they changed it": "We removed it and they changed it; theirs stays, so that no work is lost.",
  "they removed it, we changed it": "They removed it and we changed it; ours stays.",
  "both put it elsewhere": "Both sides put it in another order; ours stays.",
};

/**
 * Edits of different things always come together; what cannot is told as conflicts, where ours stays. Holds: `mergeProjects(b, b, x)` and
 * `mergeProjects(b, x, b)` give x. Throws `damaged-project` where what came together is no project; then a person has to choose a side.
 */
export function mergeProjects(base: Project, ours: Project, theirs: Project): { project: Project; conflicts: Conflict[] } {
  const followed = withRenamesFollowed(base, ours, withOwnIds(base, ours, theirs));
  const conflicts: Conflict[] = followed.twice.map(({ list, from, ours: mine, theirs: hers }) => ({
    where: `${list}, ${from}`,
    message: `We renamed it ${mine} and they ${hers}; ours stays.`,
  }));
  const together = merged(followed.base, followed.ours, followed.theirs, [], ({ path, how }) =>
    conflicts.push({ where: path.join(", ") || "the project", message: MESSAGES[how] }),
  ) as Project;
  const { project, back } = withNeeded(together, [followed.ours, followed.theirs, followed.base]);
  for (const { where, by } of back)
    conflicts.push({ where, message: `One side removed it, and ${by} of the other needs it; it stays, so that no work is lost.` });
  try {
    checkDocument(project, "the merged project");
  } catch (error) {
    throw new CaravanError(
      "damaged-project",
      "the merged project",
      `What the two sides did does not go together: ${whyOf(error)}`,
      "Take one side, and do the other's work again in it.",
    );
  }
  return { project, conflicts };
}
