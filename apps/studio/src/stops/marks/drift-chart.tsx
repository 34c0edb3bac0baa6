"use client";

import type { Clip } from "@caravan/core/model";
import { counted } from "@caravan/core/model";
import { memo, useDeferredValue, useMemo } from "react";
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from "recharts";
import { chooseStep } from "../../preview/shown-step";
import { useProject } from "../../project/open-project";
import { useCountFrom } from "../../ui/counting";
import { DRIFTS, jumpsIn } from "./drifts";
import { useStandings } from "./standings";

/** So many steps are charted on either side of the shown one. */
const AROUND = 60;

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
        <DriftLines points={points} step={step + countFrom} clip={clip} countFrom={countFrom} />
      </figure>
      <div className="flex w-64 shrink-0 flex-col gap-1 overflow-y-auto text-small">
        <p className="flex flex-wrap gap-x-3 text-muted">
          {DRIFTS.map(({ key, word, stroke, dash }) => (
            <span key={key} className="inline-flex items-center gap-1.5">
              <svg aria-hidden width="18" height="6">
                <line x1="0" x2="18" y1="3" y2="3" stroke={stroke} strokeDasharray={dash} strokeWidth="2.5" />
              </svg>
              {word}
            </span>
          ))}
        </p>
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

/** Drawn again only when a line or the step changes: a chart takes longer than all else on this screen. */
const DriftLines = memo(function DriftLines({
  points,
  step,
  clip,
  countFrom,
}: {
  points: readonly Point[];
  step: number;
  clip: Clip;
  countFrom: number;
}) {
  return (
    <ResponsiveContainer width="100%" height="100%">
      <LineChart
        data={points}
        margin={{ top: 8, right: 12, bottom: 0, left: 0 }}
        accessibilityLayer={false}
        onClick={({ activeLabel }) => {
          if (activeLabel !== undefined) chooseStep(clip, Number(activeLabel) - countFrom);
        }}
      >
        <CartesianGrid stroke="var(--line)" vertical={false} />
        <XAxis
          dataKey="at"
          height={18}
          stroke="var(--muted)"
          tick={{ fontSize: 12, fill: "var(--muted)" }}
          interval={0}
          ticks={ticksOf(points)}
        />
        <YAxis
          width={34}
          stroke="var(--muted)"
          tick={{ fontSize: 12, fill: "var(--muted)" }}
          tickCount={3}
          domain={[least, most]}
          unit=""
        />
        <ReferenceLine x={step} stroke="var(--now)" strokeWidth={2} />
        {DRIFTS.map(({ key, word, stroke, dash }) => (
          <Line
            key={key}
            dataKey={key}
            name={word}
            stroke={stroke}
            strokeDasharray={dash}
            strokeWidth={2}
            dot={points.length <= 60 ? { r: 2.5, strokeDasharray: "none" } : false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
});

/** Every step, or as many as have room: measuring which labels fit takes longer than drawing the lines. */
function ticksOf(points: readonly Point[]): number[] {
  const every = Math.ceil(points.length / 20);
  return points.filter((_, k) => k % every === 0).map(({ at }) => at);
}

/** Some room even where nothing drifts. */
const least = (value: number) => Math.min(-2, Math.floor(value));
const most = (value: number) => Math.max(2, Math.ceil(value));

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
