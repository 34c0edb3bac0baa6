import { type Finding, mended } from "@caravan/core/check";
import { inBackground } from "../ui/in-background";
import { sayUnlessDone } from "../ui/notices";
import { clearSource } from "./clear-source";
import { apply, currentProject } from "./open-project";

/** Applies a finding's mending as one undo entry, and reports errors. */
export function mendFinding(finding: Finding): void {
  const { mend, where } = finding;
  if (mend && "clears" in mend) {
    const source = currentProject().sources.find(({ id }) => id === mend.clears.source);
    if (source) inBackground(clearSource(source, mend.clears.clearing));
    return;
  }
  const error =
    mend &&
    apply(
      (project) => mended(project, finding),
      () => `mend ${where}`,
    );
  sayUnlessDone(error);
}
