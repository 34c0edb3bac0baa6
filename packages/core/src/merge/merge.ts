/** Merges two versions of a project with a common origin by meaning: clips, steps, marks, rules. */
import { CaravanError, checkDocument, type Project, whyOf } from "../model";
import { type Clash, merged } from "../three-way";
import { t } from "../words";
import { withRectanglesOfBoth } from "./at-their-pixels";
import { withAddedApart } from "./both-added";
import type { Conflict } from "./conflict";
import { whatDoesNotFit } from "./does-not-fit";
import { withFramesOfOneCut } from "./frames-of-one-cut";
import { withNeeded } from "./needed";
import { withOwnIds } from "./new-ids";
import { withRenamesFollowed } from "./renames";
import { settled } from "./settled";

const MESSAGES: Readonly<Record<Clash["how"], () => string>> = {
  "both changed it": () => t("Both sides changed it differently; ours is kept."),
  "we removed it, they changed it": () => t("We removed it and they changed it; theirs is kept, so that no work is lost."),
  "they removed it, we changed it": () => t("They removed it and we changed it; ours is kept."),
  "both moved it": () => t("Both sides reordered it; ours is kept."),
};

/**
 * Edits of different things always merge; the rest is reported as conflicts, with ours kept. Holds: `mergeProjects(b, b, x)` and
 * `mergeProjects(b, x, b)` give x. Throws `damaged-project` if the result is not a valid project; then a person must choose a side.
 */
export function mergeProjects(base: Project, ours: Project, theirs: Project): { project: Project; conflicts: Conflict[] } {
  const followed = withRenamesFollowed(base, ours, withOwnIds(base, ours, theirs));
  const conflicts: Conflict[] = followed.twice.map(({ list, from, ours: mine, theirs: hers }) => ({
    where: `${list}, ${from}`,
    message: t("We renamed it {mine} and they {hers}; ours is kept.", { mine, hers }),
  }));
  const theirsApart = withAddedApart(followed.base, followed.ours, followed.theirs, (found) => conflicts.push(found));
  const ofOneCut = withFramesOfOneCut({ ...followed, theirs: theirsApart }, (found) => conflicts.push(found));
  const versions = withRectanglesOfBoth(ofOneCut);
  const together = merged(versions.base, versions.ours, versions.theirs, [], ({ path, how }) =>
    conflicts.push({ where: path.join(", ") || t("the project"), message: MESSAGES[how]() }),
  ) as Project;
  const completed = (project: Project) => {
    const { project: whole, back } = withNeeded(project, versions);
    for (const { where, by } of back)
      conflicts.push({
        where,
        message: t("One side removed it, and {by} of the other needs it; it is kept, so that no work is lost.", { by }),
      });
    return whole;
  };
  const fitting = settled(
    completed(together),
    followed.ours,
    (tried) => withNeeded(tried, versions).project,
    (found) => conflicts.push(found),
  );
  // What is ours again may need more of what they removed.
  const project = completed(fitting);
  try {
    checkDocument(project, t("the merged project"));
  } catch (error) {
    throw new CaravanError(
      "damaged-project",
      t("the merged project"),
      t("The two sides conflict: {error}", { error: whyOf(error) }),
      t("Use one side, and repeat the other's changes in it."),
    );
  }
  return { project, conflicts: [...conflicts, ...whatDoesNotFit(project, followed.ours, theirsApart)] };
}
