"use client";

import type { Clip } from "@caravan/core/model";
import { memo } from "react";
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from "recharts";
import { chooseStep } from "../../preview/shown-step";

/** The number of steps charted on either side of the current one. */
export const AROUND = 60;

export interface ChartedLine {
  readonly key: string;
  readonly word: string;
  readonly stroke: string;
  readonly dash: string;
  /** Thin and pale, as what was is. */
  readonly isFaint?: boolean;
}

/** A step by its number on the screen, and each line's value there by key; null if it has none. */
interface Point {
  readonly at: number;
  readonly [key: string]: number | null | undefined;
}

/** Which line is which. */
export function Legend({ lines }: { lines: readonly ChartedLine[] }) {
  return (
    <p className="flex flex-wrap gap-x-3 text-muted">
      {lines.map(({ key, word, stroke, dash }) => (
        <span key={key} className="inline-flex items-center gap-1.5">
          <svg aria-hidden width="18" height="6">
            <line x1="0" x2="18" y1="3" y2="3" stroke={stroke} strokeDasharray={dash} strokeWidth="2.5" />
          </svg>
          {word}
        </span>
      ))}
    </p>
  );
}

/** Renders again only when a line or the step changes: a chart takes longer than everything else on this screen. */
export const StepLines = memo(function StepLines({
  points,
  lines,
  step,
  clip,
  countFrom,
}: {
  points: readonly Point[];
  lines: readonly ChartedLine[];
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
        {lines.map(({ key, word, stroke, dash, isFaint = false }) => (
          <Line
            key={key}
            dataKey={key}
            name={word}
            stroke={stroke}
            strokeDasharray={dash}
            strokeWidth={isFaint ? 1 : 2}
            strokeOpacity={isFaint ? 0.55 : 1}
            dot={points.length <= 60 && !isFaint ? { r: 2.5, strokeDasharray: "none" } : false}
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
});

/** Every step, or as many as fit: measuring which labels fit takes longer than drawing the lines. */
function ticksOf(points: readonly Point[]): number[] {
  const every = Math.ceil(points.length / 20);
  return points.filter((_, k) => k % every === 0).map(({ at }) => at);
}

/** Some room even where nothing drifts. */
const least = (value: number) => Math.min(-2, Math.floor(value));
const most = (value: number) => Math.max(2, Math.ceil(value));
