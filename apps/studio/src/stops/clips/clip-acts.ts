/** Actions on whole clips, shared by keys and buttons. They apply to all selected clips, or else to the current one. */
import { duplicateClip, moveClips, removeClip, removeClips } from "@caravan/core/edit";
import type { ClipName } from "@caravan/core/model";
import { act } from "../../project/act";
import { currentProject } from "../../project/open-project";
import { chooseClip, clipsTogether, useView } from "../../project/view";

function selected(chosen: ClipName): readonly ClipName[] {
  const together = clipsTogether(currentProject(), useView.getState());
  return together.length > 0 ? together.map(({ name }) => name) : [chosen];
}

/** The copy becomes current, and its name waits to be typed. */
export function duplicateNow(name: ClipName): void {
  if (!act(duplicateClip, name)) return;
  const { clips } = currentProject();
  const copy = clips[clips.findIndex((clip) => clip.name === name) + 1];
  if (!copy) return;
  chooseClip(copy.name);
  useView.setState({ naming: true });
}

export function removeNow(chosen: ClipName): void {
  const names = selected(chosen);
  if (names.length > 1) act(removeClips, names);
  else act(removeClip, chosen);
}

export function moveNow(chosen: ClipName, by: -1 | 1): void {
  act(moveClips, selected(chosen), by);
}
