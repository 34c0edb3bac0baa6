/** Context menus at Clips, for clips and for steps. */

import { reverseSomeSteps } from "@caravan/core/edit";
import type { Clip, ClipName } from "@caravan/core/model";
import { act } from "../../project/act";
import { currentProject } from "../../project/open-project";
import { chooseClip, clipsTogether, goToMarks, useView } from "../../project/view";
import type { Menu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { duplicateNow, removeNow } from "./clip-acts";
import { dropChosen } from "./clip-keys";
import { copySteps, duplicateChosen, pasteCopied, splitAt, useCopiedSteps } from "./step-acts";

/** Chooses the clip, unless it is one of several that are selected: then it is for all of these. */
export function clipMenu(name: ClipName): Menu {
  const together = clipsTogether(currentProject(), useView.getState());
  const several = together.some((clip) => clip.name === name) ? together.length : 1;
  if (several === 1) chooseClip(name);
  return [
    { label: t("Rename"), keys: "n", run: () => rename(name), disabled: several > 1 },
    { label: t("Duplicate"), keys: "d", run: () => duplicateNow(name), disabled: several > 1 },
    { label: t("Its origins and marks"), keys: "g", run: () => goToMarks(name) },
    { label: t("Compare with another clip"), keys: "c", run: () => useView.setState({ bench: "compare" }) },
    null,
    { label: several > 1 ? t("Remove {several} clips", { several }) : t("Remove"), keys: "Shift+Delete", run: () => removeNow(name) },
  ];
}

function rename(name: ClipName): void {
  chooseClip(name);
  useView.setState({ naming: true });
}

/** Chooses the step, unless it is one of the chosen ones: then it is for all of these. */
export function stepMenu(clip: Clip, index: number): Menu {
  const before = useView.getState().steps;
  const steps = before.includes(index) ? before : [index];
  if (steps !== before) useView.setState({ steps });
  return [
    { label: t("Duplicate"), keys: "Mod+d", run: () => duplicateChosen(clip, steps) },
    { label: t("Copy"), keys: "Mod+c", run: () => copySteps(clip, steps) },
    {
      label: t("Paste after it"),
      keys: "Mod+v",
      run: () => pasteCopied(clip, steps),
      disabled: useCopiedSteps.getState().steps.length === 0,
    },
    { label: t("Reverse"), keys: "Shift+v", run: () => act(reverseSomeSteps, clip.name, steps), disabled: steps.length < 2 },
    { label: steps.length > 1 ? t("Split around them") : t("Split before it"), keys: "s", run: () => splitAt(clip, steps) },
    null,
    { label: t("Drop from the clip"), keys: "Delete", run: () => dropChosen(clip) },
  ];
}
