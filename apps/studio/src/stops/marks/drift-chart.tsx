"use client";

import type { Clip } from "@caravan/core/model";
import { counted } from "@caravan/core/model";
import { useDeferredValue, useMemo } from "react";
import { useProject } from "../../project/open-project";
import { useCountFrom } from "../../ui/counting";
import { DRIFTS, jumpsIn } from "./drifts";
import { useStandings } from "./standings";
import { AROUND, Legend, StepLines } from "./step-lines";

/** How feet and middle drift about the origin from step to step. */
export function DriftChart({ clip, step }: { clip: Clip; step: number }) {
  // A dragged origin shows first; the chart follows.
  const project = useDeferredValue(useProject((each) => each));
  const countFrom = useCountFrom();
  const standings = useStandings(project, clip);
  const from = Math.max(0, step - AROUND);
  const points = useMemo(
    () =>
      standings.slice(from, step + AROUND + 1).map((standing, k) => ({
        at: from + k + countFrom,
        feet: standing ? DRIFTS[0].of(standing) : null,
        middle: standing ? DRIFTS[1].of(standing) : null,
      })),
    [standings, from, step, countFrom],
  );
  const jumps = useMemo(() => jumpsIn(standings, clip), [standings, clip]);
  return (
    <section aria-label="Drift" className="flex h-24 shrink-0 gap-3">
      <figure aria-label={inWords(points, jumps.length)} className="min-w-0 grow rounded-box border border-line bg-surface">
        <StepLines points={points} lines={DRIFTS} step={step + countFrom} clip={clip} countFrom={countFrom} />
      </figure>
      <div className="flex w-64 shrink-0 flex-col gap-1 overflow-y-auto text-small">
        <Legend lines={DRIFTS} />
        <p className="text-muted">In px from the origin. {jumps.length === 0 ? "No step jumps." : `${counted(jumps.length, "jump")}.`}</p>
      </div>
    </section>
  );
}

interface Point {
  readonly at: number;
  readonly feet: number | null;
  readonly middle: number | null;
}

function inWords(points: readonly Point[], jumps: number): string {
  const range = (values: readonly (number | null)[]) => {
    const seen = values.filter((value): value is number => value !== null);
    if (seen.length === 0) return "not drawn";
    const [lowest, highest] = [Math.min(...seen), Math.max(...seen)];
    return lowest === highest ? `${lowest} px` : `${lowest} to ${highest} px`;
  };
  const feet = range(points.map((point) => point.feet));
  const middle = range(points.map((point) => point.middle));
  return `Drift over ${points.length} steps: feet ${feet} over the ground, middle ${middle} to the right of the origin; ${jumps === 0 ? "no step jumps" : `${jumps} jumps`}`;
}
