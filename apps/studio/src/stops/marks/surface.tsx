"use client";

import type { Clip } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { chosenClip, go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { MarksBench } from "./marks-bench";

/** One frame of the chosen clip large, with what is marked on it. */
export function Surface() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  return clip && clip.steps.length > 0 ? <MarksBench key={clip.name} clip={clip} /> : <Empty clip={clip} />;
}

function Empty({ clip }: { clip: Clip | null }) {
  return (
    <div className="flex grow flex-col items-center justify-center gap-3 rounded-box border-2 border-dashed border-line-strong text-center">
      <p className="text-title font-bold">{clip ? `${clip.name} has no steps yet` : "No clips yet"}</p>
      <p className="max-w-96 text-muted">
        Here the frames of a clip get their origin, the boxes in which they are hit, and the points at which things are fastened.
        {clip ? " Add frames to the clip first." : " Make a clip at Frames first: pick the frames of a movement, and press C."}
      </p>
      <Button look="now" onClick={() => go(clip ? "clips" : "frames")}>
        {clip ? "Go to Clips" : "Go to Frames"}
      </Button>
    </div>
  );
}
