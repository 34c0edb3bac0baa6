"use client";

import type { Clip } from "@caravan/core/model";
import { chosenReel } from "../../preview/reel";
import { useProject } from "../../project/open-project";
import { go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { MarksBench } from "./marks-bench";

/** One frame of the chosen clip or source large, with what is marked on it. */
export function Surface() {
  const project = useProject((each) => each);
  // The reel of a clip is made anew at each look, but its clip is not.
  const clip = useView((view) => chosenReel(project, view)?.clip ?? null);
  const source = useView((view) => chosenReel(project, view)?.source ?? null);
  return clip && clip.steps.length > 0 ? <MarksBench key={source?.id ?? clip.name} clip={clip} source={source} /> : <Empty clip={clip} />;
}

function Empty({ clip }: { clip: Clip | null }) {
  return (
    <div className="flex grow flex-col items-center justify-center gap-3 rounded-box border-2 border-dashed border-line-strong text-center">
      <p className="text-title font-bold">{clip ? `${clip.name} has no steps yet` : "No frames yet"}</p>
      <p className="max-w-96 text-muted">
        Here frames get their origin, the boxes in which they are hit, and the points at which things are fastened.
        {clip ? " Add frames to the clip first." : " Cut a sheet at Frames first, and make clips of its frames."}
      </p>
      <Button look="now" onClick={() => go(clip ? "clips" : "frames")}>
        {clip ? "Go to Clips" : "Go to Frames"}
      </Button>
    </div>
  );
}
