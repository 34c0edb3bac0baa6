"use client";

import type { Clip } from "@caravan/core/model";
import { chosenReel } from "../../preview/reel";
import { useProject } from "../../project/open-project";
import { go, useView } from "../../project/view";
import { EmptyPanel } from "../../ui/empty-panel";
import { t } from "../../ui/words";
import { MarksBench } from "./marks-bench";

/** Shows one frame of the selected clip or source enlarged, with its marks. */
export function Surface() {
  const project = useProject((each) => each);
  // The reel of a clip is made again each time, but its clip is not.
  const clip = useView((view) => chosenReel(project, view)?.clip ?? null);
  const source = useView((view) => chosenReel(project, view)?.source ?? null);
  return clip && clip.steps.length > 0 ? <MarksBench key={source?.id ?? clip.name} clip={clip} source={source} /> : <Empty clip={clip} />;
}

function Empty({ clip }: { clip: Clip | null }) {
  return (
    <EmptyPanel
      title={clip ? t("{name} has no steps yet", { name: clip.name }) : t("No frames yet")}
      next={{ label: clip ? t("Go to Clips") : t("Go to Frames"), run: () => go(clip ? "clips" : "frames") }}
    >
      {clip
        ? t("Here frames get their origin, boxes for hits, and points where things attach. Add frames to the clip first.")
        : t(
            "Here frames get their origin, boxes for hits, and points where things attach. Cut a sheet at Frames first, and make clips of its frames.",
          )}
    </EmptyPanel>
  );
}
