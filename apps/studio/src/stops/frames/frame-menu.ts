/** Context menu of a frame in the tray, or of all picked frames if it is one of them. */

import { type FrameRef, findFrame } from "@caravan/core/model";
import { currentProject } from "../../project/open-project";
import { pickedFrames, rowRefs, togglePick, togglePicks, useView } from "../../project/view";
import { goToField } from "../../ui/fields-by-key";
import type { Menu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { dropOrRestore, makeClip } from "./make-clip";

export function frameMenu(ref: FrameRef): Menu | null {
  const found = findFrame(currentProject(), ref);
  if (!found) return null;
  const { source, frame } = found;
  useView.setState({ cursor: ref });
  if (frame.dropped) return [{ label: t("Restore"), keys: "Delete", run: () => dropOrRestore([ref], true) }];
  const picked = pickedFrames(currentProject(), useView.getState());
  const isPicked = picked.includes(ref);
  const several = isPicked && picked.length > 1;
  const makeClipOfIt = () => {
    if (!isPicked) useView.setState({ picked: [ref] });
    makeClip();
  };
  return [
    { label: isPicked ? t("Unpick") : t("Pick"), keys: "x", run: () => togglePick(ref) },
    { label: t("Pick its row"), keys: "r", run: () => togglePicks(rowRefs(source, frame.row)) },
    {
      label: several ? t("Make a clip of the {count} picked", { count: picked.length }) : t("Make a clip of it"),
      keys: "c",
      run: makeClipOfIt,
    },
    { label: t("Name"), run: () => goToField("frameName") },
    null,
    {
      label: several ? t("Drop the {count} picked", { count: picked.length }) : t("Drop"),
      keys: "Delete",
      run: () => dropOrRestore(several ? picked : [ref], false),
    },
  ];
}
