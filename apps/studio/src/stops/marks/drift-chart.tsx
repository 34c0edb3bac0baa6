"use client";

import type { Clip } from "@caravan/core/model";
import { counted } from "@caravan/core/model";
import { useDeferredValue, useMemo } from "react";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { inBackground } from "../../ui/in-background";
import { t } from "../../ui/words";
import { DRIFTS, jumpsIn } from "./drifts";
import { useStandings } from "./standings";
import { putSteady, useAxes, useStandingsBefore } from "./steady-clip";
import { AROUND, Legend, StepLines } from "./step-lines";

/** Charts how feet and centre drift around the origin from step to step. */
export function DriftChart({ clip, step }: { clip: Clip; step: number }) {
  // A dragged origin shows first; the chart follows.
  const project = useDeferredValue(useProject((each) => each));
  const countFrom = useCountFrom();
  const standings = useStandings(project, clip);
  const before = useStandingsBefore(clip);
  const axes = useAxes((state) => state.axes);
  const from = Math.max(0, step - AROUND);
  const points = useMemo(
    () =>
      standings.slice(from, step + AROUND + 1).map((standing, k) => {
        const was = before?.[from + k];
        return {
          at: from + k + countFrom,
          feet: standing ? DRIFTS[0].of(standing) : null,
          middle: standing ? DRIFTS[1].of(standing) : null,
          ...(before ? { feetBefore: was ? DRIFTS[0].of(was) : null, middleBefore: was ? DRIFTS[1].of(was) : null } : {}),
        };
      }),
    [standings, before, from, step, countFrom],
  );
  const jumps = useMemo(() => jumpsIn(standings, clip), [standings, clip]);
  return (
    <section aria-label={t("Drift")} className="flex h-24 shrink-0 gap-3">
      <figure aria-label={inWords(points, jumps.length)} className="min-w-0 grow rounded-box border border-line bg-surface">
        <StepLines points={points} lines={before ? WITH_BEFORE : DRIFTS} step={step + countFrom} clip={clip} countFrom={countFrom} />
      </figure>
      <div className="flex w-64 shrink-0 flex-col gap-1 overflow-y-auto text-small">
        <Legend lines={DRIFTS} />
        {clip.steps.length > 1 && (
          <Button className="min-h-6 self-start" onClick={() => inBackground(putSteady(clip))}>
            {axes === "both" ? t("Steady the clip") : t("Steady the clip, {axes} alone", { axes })}
          </Button>
        )}
        <p className="text-muted">
          {jumps.length === 0
            ? t("In px from the origin. No step jumps.")
            : t("In px from the origin. {jumps}.", { jumps: counted(jumps.length, "jump") })}
          {before && ` ${t("Thin line: before it was steadied.")}`}
        </p>
      </div>
    </section>
  );
}

const WITH_BEFORE = [
  ...DRIFTS.map((line) => ({ ...line, key: `${line.key}Before`, word: t("{word}, before", { word: line.word }), isFaint: true })),
  ...DRIFTS,
] as const;

interface Point {
  readonly at: number;
  readonly feet: number | null;
  readonly middle: number | null;
  readonly feetBefore?: number | null;
  readonly middleBefore?: number | null;
}

function inWords(points: readonly Point[], jumps: number): string {
  const range = (values: readonly (number | null)[]) => {
    const seen = values.filter((value): value is number => value !== null);
    if (seen.length === 0) return t("not drawn");
    const [lowest, highest] = [Math.min(...seen), Math.max(...seen)];
    return lowest === highest ? `${lowest} px` : t("{lowest} to {highest} px", { lowest, highest });
  };
  const drift = {
    count: points.length,
    feet: range(points.map((point) => point.feet)),
    middle: range(points.map((point) => point.middle)),
  };
  const now =
    jumps === 0
      ? t("Drift over {count} steps: feet {feet} over the ground, middle {middle} to the right of the origin; no step jumps.", drift)
      : t("Drift over {count} steps: feet {feet} over the ground, middle {middle} to the right of the origin; {jumps} jumps.", {
          ...drift,
          jumps,
        });
  if (points.every((point) => point.feetBefore === undefined)) return now;
  const feet = range(points.map((point) => point.feetBefore ?? null));
  const middle = range(points.map((point) => point.middleBefore ?? null));
  return `${now} ${t("Before it was steadied: feet {feet}, middle {middle}.", { feet, middle })}`;
}
