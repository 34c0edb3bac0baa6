/** Context menu of a frame in the tray, or of all picked frames if it is one of them. */
import { type FrameRef, findFrame } from "@caravan/core/model";
import { currentProject } from "../../project/open-project";
import { pickedFrames, rowRefs, togglePick, togglePicks, useView } from "../../project/view";
import { goToField } from "../../ui/fields-by-key";
import type { Menu } from "../../ui/with-menu";
import { dropOrRestore, makeClip } from "./make-clip";

export function frameMenu(ref: FrameRef): Menu | null {
  const found = findFrame(currentProject(), ref);
  if (!found) return null;
  const { source, frame } = found;
  useView.setState({ cursor: ref });
  if (frame.dropped) return [{ label: "Restore", keys: "Delete", run: () => dropOrRestore([ref], true) }];
  const picked = pickedFrames(currentProject(), useView.getState());
  const isPicked = picked.includes(ref);
  const several = isPicked && picked.length > 1;
  const makeClipOfIt = () => {
    if (!isPicked) useView.setState({ picked: [ref] });
    makeClip();
  };
  return [
    { label: isPicked ? "Take it out of what is picked" : "Pick", keys: "x", run: () => togglePick(ref) },
    { label: "Pick its row", keys: "r", run: () => togglePicks(rowRefs(source, frame.row)) },
    { label: several ? `Make a clip of the ${picked.length} picked` : "Make a clip of it", keys: "c", run: makeClipOfIt },
    { label: "Name", run: () => goToField("frameName") },
    null,
    {
      label: several ? `Drop the ${picked.length} picked` : "Drop",
      keys: "Delete",
      run: () => dropOrRestore(several ? picked : [ref], false),
    },
  ];
}
