"use client";

import { nearestPresent } from "@caravan/core/facing";
import { type Action, clipsOfAction, facingsPresent } from "@caravan/core/model";
import { usePlayer } from "../../../preview/player-state";
import { useProject } from "../../../project/open-project";
import { PlaceFindings } from "../../../project/place-findings";
import { Detail, Facts } from "../../../ui/detail";
import { t } from "../../../ui/words";
import { secondsInWords, totalOf } from "../pace-words";
import { TogetherFields } from "../several-clips";

/** Shows an action's settings and its findings. */
export function ActionDetails({ action }: { action: Action }) {
  const project = useProject((each) => each);
  const clips = clipsOfAction(project, action);
  const facing = usePlayer((state) => state.facing);
  const shown = nearestPresent(facing, facingsPresent(action));
  const looked = clips.find(({ name }) => shown !== null && name === action.facings[shown]?.clip);
  const mirrored = Object.values(action.facings).filter(({ mirror }) => mirror).length;
  const lengths = [...new Set(clips.map((clip) => secondsInWords(totalOf(clip))))];
  return (
    <>
      <Detail title={t("The action")}>
        <Facts
          facts={[
            [t("facings"), t("{count} of {ways}", { count: facingsPresent(action).length, ways: action.ways })],
            [t("clips"), clips.length],
            [t("mirrored"), mirrored],
            [t("length"), lengths.join(", ") || t("none")],
          ]}
        />
        <p className="mt-2 text-small text-muted">
          {t(
            "Move the pointer over the figure above, or press [ and ], to turn it. A missing facing shows the nearest one; of two equally near, the one that faces you more.",
          )}
        </p>
      </Detail>
      {clips.length > 0 && (
        <Detail title={t("All its clips at once")}>
          <div className="flex flex-col items-start gap-2">
            <TogetherFields clips={clips} what={t("the action")} from={looked} />
          </div>
        </Detail>
      )}
      <PlaceFindings label={t("Findings on this action")} at={(place) => "action" in place && place.action === action.name} />
    </>
  );
}
