"use client";

import { duplicateClip, removeClip } from "@caravan/core/edit";
import type { Clip, ClipName } from "@caravan/core/model";
import { act } from "../../project/act";
import { useProject } from "../../project/open-project";
import { chooseClip, chosenAction, chosenClip, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, RowList } from "../../ui/row-list";
import { secondsInWords, totalOf } from "./pace-words";
import { ActionsList } from "./rose/actions-list";

/** All clips of the project with their lengths. */
export function List() {
  const project = useProject((each) => each);
  const chosen = useView((view) => (chosenAction(project, view) ? null : (chosenClip(project, view)?.name ?? null)));
  const { clips } = project;
  return (
    <>
      {project.actions.length > 0 && <ActionsList />}
      <ListHeading title="Clips" count={clips.length} />
      <RowList
        label="Clips"
        rows={clips.map((clip) => ({ id: clip.name, name: clip.name, fact: lengthInWords(clip) }))}
        chosen={chosen}
        onChoose={(name) => chooseClip(name as ClipName)}
      />
      {chosen !== null && (
        <div className="mt-3 flex flex-wrap gap-2 px-1.5">
          <Button onClick={() => act(duplicateClip, chosen)}>Duplicate</Button>
          <Button onClick={() => act(removeClip, chosen)}>Remove</Button>
        </div>
      )}
      {project.actions.length === 0 && clips.length > 0 && <ActionsList />}
    </>
  );
}

const SIGNS = { once: " once", loop: "", pingpong: " ↔" };

function lengthInWords(clip: Clip): string {
  return clip.steps.length === 0 ? "empty" : `${secondsInWords(totalOf(clip))}${SIGNS[clip.playback]}`;
}
