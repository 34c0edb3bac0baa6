import { addClip, dropFrames, nameForClip, restoreFrames } from "@caravan/core/edit";
import type { FrameRef } from "@caravan/core/model";
import { counted } from "@caravan/core/model";
import { rowThatPlays } from "../../preview/playing";
import { currentProject, edit } from "../../project/open-project";
import { chooseClip, clearPicks, go, pickedFrames, useView } from "../../project/view";
import { say, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";

/** Makes a clip of the picked frames in picking order, or else of the row that plays, and opens it; or stays, to pick the next. */
export function makeClip(options: { stay?: boolean } = {}): void {
  const picked = pickedFrames(currentProject(), useView.getState());
  const refs = picked.length > 0 ? picked : rowThatPlays(currentProject(), useView.getState());
  const name = nameForClip(currentProject(), refs);
  const error = edit(addClip, refs);
  if (error) {
    say({ tone: "trouble", text: error.message });
    return;
  }
  clearPicks();
  chooseClip(name);
  if (options.stay)
    say({
      tone: "good",
      text: t("Made the clip {name} of {frames}.", { name, frames: counted(refs.length, "frame") }),
      action: { label: t("See it"), run: () => go("clips") },
    });
  else {
    useView.setState({ naming: true });
    go("clips");
  }
}

/** Drops frames from the tray, or brings them back if all of them are dropped. */
export function dropOrRestore(refs: readonly FrameRef[], dropped: boolean): void {
  const error = refs.length === 0 ? null : edit(dropped ? restoreFrames : dropFrames, refs);
  sayUnlessDone(error);
  clearPicks();
}
