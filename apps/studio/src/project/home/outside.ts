/**
 * Compares the open project with a version of `caravan.json` that somebody else wrote into its folder, and applies what the person
 * decides.
 */

import { differenceInWords, differencesBetween, mergeProjects } from "@caravan/core/merge";
import { CaravanError, type Project, whyOf, withDistinctPaths } from "@caravan/core/model";
import { t } from "../../ui/words";
import { saveNow } from "../autosave";
import { begin } from "../begun";
import { useOpenProject } from "../open-project";
import { storage } from "../storage";
import { artIn } from "./art-folder";
import { withArtFrom } from "./art-from";
import { documentIn, look, sayRedrawn, writtenForm } from "./home";
import { type Outside, useHome } from "./home-state";
import { sayFollowed } from "./renamed-art";

export interface Comparison {
  /** What they changed, in words; and we, since the folder was last read or written. */
  readonly theirs: readonly string[];
  readonly ours: readonly string[];
  /** Both together; null where that cannot be, for the reason. */
  readonly both: { readonly project: Project; readonly conflicts: readonly string[] } | null;
  readonly why: string | null;
}

/** How the folder's version compares with the open one. */
export function comparedWith({ theirs, base }: Outside, open: Project): Comparison {
  const ours = withDistinctPaths(open);
  const changes = (after: Project) => eachOnce(differencesBetween(base, after).map(differenceInWords));
  const sides = { theirs: changes(theirs), ours: changes(ours) };
  try {
    const { project, conflicts } = mergeProjects(base, ours, theirs);
    return { ...sides, both: { project, conflicts: eachOnce(conflicts.map(({ where, message }) => `${where}: ${message}`)) }, why: null };
  } catch (error) {
    return { ...sides, both: null, why: whyOf(error) };
  }
}

/** The same words twice tell nothing more, and lists are shown by their words. */
const eachOnce = (lines: readonly string[]) => [...new Set(lines)];

export type Answer = "both" | "theirs" | "mine";

/**
 * Applies the user's choice as an undoable edit: with "mine", undo restores what was in the folder. Throws `changed-meanwhile` if the file
 * was written again since the review, and any problem with the art that it needs; then nothing has changed.
 */
export async function takeOutside(answer: Answer): Promise<void> {
  const { home } = useHome.getState();
  if (home?.state.kind !== "changed") return;
  const { outside } = home.state;
  const work = begin();
  const row = work.id === home.project ? await storage.homes.get(home.project) : undefined;
  if (!row) return;
  if ((await documentIn(row.folder)) !== outside.text) {
    await look();
    throw new CaravanError("changed-meanwhile", home.folder, t("It was written again after you looked at it."), t("Look at it once more."));
  }
  const { both, why } = comparedWith(outside, work.project);
  if (answer === "both" && !both) throw new CaravanError("damaged-project", home.folder, why ?? "", t("Choose one of the two."));
  const { project, art, redrawn, followed } = await withArtFrom(
    artIn(row.folder),
    both && answer === "both" ? both.project : outside.theirs,
  );
  work.still();
  if (useOpenProject.getState().project !== work.project)
    throw new CaravanError("changed-meanwhile", home.folder, t("The project was changed here meanwhile."), t("Do it again."));
  const done = (after: Project, label: string) => {
    const error = work.apply(
      () => after,
      () => label,
    );
    if (error) throw error;
  };
  done(project, `use the version in ${home.folder}`);
  // What is overwritten is one undo away.
  if (answer === "mine") done(work.project, `keep mine instead of what ${home.folder} has`);
  const { clean } = await writtenForm(outside.theirs);
  await storage.homes.update(row.project, { text: outside.text, clean, art: { ...row.art, ...Object.fromEntries(art) } });
  if (answer !== "mine") {
    sayRedrawn(redrawn, home.folder);
    sayFollowed(followed, home.folder);
  }
  await saveNow();
  await look();
}
