"use client";

import { type Clip, findFrame, frameName, type Project } from "@caravan/core/model";
import { useDeferredValue, useMemo } from "react";
import { chooseStep } from "../../preview/shown-step";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { Detail } from "../../ui/detail";
import { t } from "../../ui/words";
import { type DRIFTS, jumpsIn } from "./drifts";
import { nudge } from "./set-origin";
import { useStandings } from "./standings";

/** The number of jumps listed at once; with more, the clip is restless rather than wrong in one place. */
const MOST = 8;

/** The steps on which the drawing jumps about its origin, each put back by moving that frame's origin. */
export function Jumps({ clip }: { clip: Clip }) {
  const project = useDeferredValue(useProject((each) => each));
  const countFrom = useCountFrom();
  const standings = useStandings(project, clip);
  const jumps = useMemo(() => jumpsIn(standings, clip), [standings, clip]);
  if (jumps.length === 0) return null;
  return (
    <Detail title={t("Steps that jump")} aside={String(jumps.length)}>
      <ul aria-label={t("Steps that jump")} className="flex flex-col gap-2">
        {jumps.slice(0, MOST).map(({ drift, step, by }) => (
          <li key={`${drift.key} ${step}`} className="border-l-4 border-lapis pl-2">
            <p className="mb-1 text-small">
              {t("{subject}  {by} px {way} on step {step} than around it", {
                subject: drift.subject,
                by: Math.abs(by),
                way: drift.ways[by > 0 ? 0 : 1],
                step: step + countFrom,
              })}
            </p>
            <div className="flex flex-wrap gap-1.5">
              <Button className="min-h-6" onClick={() => chooseStep(clip, step)}>
                {t("Show it")}
              </Button>
              <Button className="min-h-6" onClick={() => putBack(project, clip, step, drift.key, by)}>
                {drift.mend}
              </Button>
            </div>
          </li>
        ))}
      </ul>
      {jumps.length > MOST && (
        <p className="mt-2 text-small text-muted">{t("And {count} more, in the order of the clip.", { count: jumps.length - MOST })}</p>
      )}
    </Detail>
  );
}

/** Moves that one frame's origin, so that its drawing is in line with its neighbours. */
function putBack(project: Project, clip: Clip, step: number, line: (typeof DRIFTS)[number]["key"], by: number): void {
  const ref = clip.steps[step]?.frame;
  const placed = ref ? findFrame(project, ref) : null;
  if (!placed) return;
  const scope = { name: frameName(placed.source, placed.frame), frames: [placed] };
  nudge(scope, line === "feet" ? { x: 0, y: -by } : { x: by, y: 0 }, `put back ${ref} ${line}`);
}
