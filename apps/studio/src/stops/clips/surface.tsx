"use client";

import { renameClip } from "@caravan/core/edit";
import type { Clip, ClipName } from "@caravan/core/model";
import { useEffect } from "react";
import { edit, useProject } from "../../project/open-project";
import { chooseClip, chosenClip, go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { TextField } from "../../ui/text-field";
import { ClipKeys } from "./clip-keys";
import { PaceFields } from "./pace-fields";
import { Ribbons } from "./ribbons";
import { RuleFields } from "./rule-fields";

/** The chosen clip as a tall ribbon on a time ruler, the others thin around it, and the tray to add frames from. */
export function Surface() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  if (!clip) return <Empty />;
  return (
    <>
      <ClipKeys clip={clip} />
      <header className="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
        <div className="flex min-w-0 items-baseline gap-2">
          <h2 className="min-w-0 text-title font-bold">
            <ClipNameField key={clip.name} clip={clip} />
          </h2>
          <span className="text-muted">{clip.steps.length === 1 ? "1 step" : `${clip.steps.length} steps`}</span>
        </div>
        <PaceFields clip={clip} />
      </header>
      <RuleFields clip={clip} />
      <Ribbons clip={clip} />
    </>
  );
}

/** The clip's name. Right after the clip was made it waits to be typed. */
function ClipNameField({ clip }: { clip: Clip }) {
  const naming = useView((view) => view.naming);
  useEffect(() => {
    if (!naming) return;
    useView.setState({ naming: false });
    document.getElementById(CLIP_NAME_FIELD)?.focus();
  }, [naming]);
  const rename = (name: string): string | undefined => {
    const error = edit(renameClip, clip.name, name);
    if (!error) chooseClip(name.trim() as ClipName);
    return error?.message;
  };
  return <TextField id={CLIP_NAME_FIELD} label="Clip name" value={clip.name} onChange={rename} className="max-w-full font-bold" />;
}

export const CLIP_NAME_FIELD = "clip-name";

function Empty() {
  return (
    <div className="flex grow flex-col items-center justify-center gap-3 rounded-box border-2 border-dashed border-line-strong text-center">
      <p className="text-title font-bold">No clips yet</p>
      <p className="max-w-96 text-muted">
        At Frames, pick the frames of one movement in order, by click or by row, and press C. The clip appears here as a ribbon of time.
      </p>
      <Button look="now" onClick={() => go("frames")}>
        Go to Frames
      </Button>
    </div>
  );
}
