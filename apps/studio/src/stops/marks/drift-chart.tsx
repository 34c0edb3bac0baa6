"use client";

import { jumpsOf, type Standing } from "@caravan/core/marks";
import { type Clip, findFrame, frameName, type Project } from "@caravan/core/model";
import { useDeferredValue, useMemo } from "react";
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from "recharts";
import { chooseStep } from "../../preview/shown-step";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { nudge } from "./set-origin";
import { useStandings } from "./standings";

/** So many steps are charted on either side of the shown one. */
const AROUND = 100;

/** What is charted, each as a number that grows upward or to the right. */
const LINES = [
  {
    key: "feet",
    word: "feet over the ground",
    of: ({ feet }: Standing) => -feet.y,
    stroke: "var(--lapis)",
    dash: "none",
    ways: ["higher", "lower"],
    mend: "Level the feet",
  },
  {
    key: "middle",
    word: "middle, to the right",
    of: ({ middle }: Standing) => middle.x,
    stroke: "var(--brick)",
    dash: "5 3",
    ways: ["further right", "further left"],
    mend: "Bring it in line",
  },
] as const;

/** How feet and middle drift about the origin from step to step; a step that jumps is told, and put back by its origin. */
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
        feet: standing ? LINES[0].of(standing) : null,
        middle: standing ? LINES[1].of(standing) : null,
      })),
    [standings, from, step, countFrom],
  );
  const jumps = useMemo(() => allJumps(standings, clip), [standings, clip]);
  return (
    <section aria-label="Drift" className="flex h-24 shrink-0 gap-3">
      <figure aria-label={inWords(points, jumps.length)} className="min-w-0 grow rounded-box border border-line bg-surface">
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
              interval="preserveStartEnd"
            />
            <YAxis
              width={34}
              stroke="var(--muted)"
              tick={{ fontSize: 12, fill: "var(--muted)" }}
              tickCount={3}
              domain={[least, most]}
              unit=""
            />
            <ReferenceLine x={step + countFrom} stroke="var(--now)" strokeWidth={2} />
            {LINES.map(({ key, word, stroke, dash }) => (
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
      </figure>
      <div className="flex w-64 shrink-0 flex-col gap-1 overflow-y-auto text-small">
        <p className="flex flex-wrap gap-x-3 text-muted">
          {LINES.map(({ key, word, stroke, dash }) => (
            <span key={key} className="inline-flex items-center gap-1.5">
              <svg aria-hidden width="18" height="6">
                <line x1="0" x2="18" y1="3" y2="3" stroke={stroke} strokeDasharray={dash} strokeWidth="2.5" />
              </svg>
              {word}
            </span>
          ))}
        </p>
        {jumps.length === 0 ? (
          <p className="text-muted">In px from the origin. No step jumps.</p>
        ) : (
          <ul aria-label="Steps that jump" className="flex flex-col gap-1">
            {jumps.map(({ line, step: at, by }) => (
              <li key={`${line.key} ${at}`} className="border-l-4 border-lapis pl-2">
                {line === LINES[0] ? "Feet" : "Middle"} {Math.abs(by)} px {line.ways[by > 0 ? 0 : 1]} on step {at + countFrom}
                <span className="mt-0.5 flex flex-wrap gap-1.5">
                  <Button className="min-h-6" onClick={() => chooseStep(clip, at)}>
                    Show it
                  </Button>
                  <Button className="min-h-6" onClick={() => putBack(project, clip, at, line.key, by)}>
                    {line.mend}
                  </Button>
                </span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}

function allJumps(standings: readonly (Standing | null | undefined)[], { playback, times }: Clip) {
  const loops = playback === "loop" && times !== 1;
  return LINES.flatMap((line) =>
    jumpsOf(
      standings.map((standing) => (standing ? line.of(standing) : null)),
      loops,
    ).map((jump) => ({ ...jump, line })),
  ).sort((a, b) => a.step - b.step);
}

/** Moves that one frame's origin, so that its drawing stands where its neighbours do. */
function putBack(project: Project, clip: Clip, step: number, line: (typeof LINES)[number]["key"], by: number): void {
  const ref = clip.steps[step]?.frame;
  const placed = ref ? findFrame(project, ref) : null;
  if (!placed) return;
  const scope = { name: frameName(placed.source, placed.frame), frames: [placed] };
  nudge(scope, line === "feet" ? { x: 0, y: -by } : { x: by, y: 0 }, `put back ${ref} ${line}`);
}

/** Some room even where nothing drifts. */
const least = (value: number) => Math.min(-2, Math.floor(value));
const most = (value: number) => Math.max(2, Math.ceil(value));

function inWords(points: readonly { readonly feet: number | null; readonly middle: number | null }[], jumps: number): string {
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
