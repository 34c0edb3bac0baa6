"use client";

import { type Clip, type ClipName, msFromMicros } from "@caravan/core/model";
import { useMemo, useState } from "react";
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { useProject } from "../../../project/open-project";
import { Choice } from "../../../ui/choice";
import { useCountFrom } from "../../../ui/counting";
import { written } from "../../../ui/number-field";
import { t } from "../../../ui/words";
import { secondsInWords, totalOf } from "../pace-words";

/** Lines differ by their dashes as well as by their colours. */
const LINES = [
  { stroke: "var(--lapis)", dash: "none" },
  { stroke: "var(--brick)", dash: "7 4" },
  { stroke: "var(--cactus)", dash: "2 3" },
  { stroke: "var(--now-text)", dash: "10 3 2 3" },
] as const;

type Along = "step" | "share";

/** How long the steps of clips last, as lines over one another: rhythms that should be alike are seen to be, or not. */
export function RhythmBench({ clip }: { clip: Clip }) {
  const clips = useProject((project) => project.clips);
  const [others, setOthers] = useState<readonly ClipName[]>([]);
  const [along, setAlong] = useState<Along>("step");
  const countFrom = useCountFrom();
  const shown = [clip, ...clips.filter(({ name }) => others.includes(name) && name !== clip.name)].slice(0, LINES.length);
  const series = useMemo(
    () => shown.map((each) => ({ name: each.name, points: pointsOf(each, along, countFrom) })),
    [shown, along, countFrom],
  );
  const toggle = (name: ClipName) =>
    setOthers((before) => (before.includes(name) ? before.filter((each) => each !== name) : [...before, name].slice(-(LINES.length - 1))));
  return (
    <div className="flex min-h-0 grow flex-col gap-2.5">
      <figure
        aria-label={t("Time of each step: {shown}", { shown: shown.map(inWords).join("; ") })}
        className="min-h-48 grow rounded-box border border-line bg-surface p-2"
      >
        <ResponsiveContainer width="100%" height="100%">
          <LineChart margin={{ top: 12, right: 16, bottom: 20, left: 8 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="at"
              type="number"
              domain={along === "share" ? [0, 100] : ["dataMin", "dataMax"]}
              allowDuplicatedCategory={false}
              stroke="var(--muted)"
              tick={{ fontSize: 12, fill: "var(--muted)" }}
              label={{
                value: along === "share" ? t("% of the loop") : t("step"),
                position: "insideBottom",
                offset: -10,
                fill: "var(--muted)",
                fontSize: 12,
              }}
            />
            <YAxis
              domain={[0, "auto"]}
              stroke="var(--muted)"
              tick={{ fontSize: 12, fill: "var(--muted)" }}
              label={{ value: "ms", position: "insideTopLeft", offset: -4, fill: "var(--muted)", fontSize: 12 }}
            />
            <Tooltip
              isAnimationActive={false}
              formatter={(ms) => `${written(Number(ms), 3)} ms`}
              labelFormatter={(at) =>
                along === "share" ? t("{written} % of the loop", { written: written(Number(at), 1) }) : t("step {at}", { at: String(at) })
              }
              contentStyle={{ background: "var(--raised)", border: "1px solid var(--line)", borderRadius: 6, color: "var(--ink)" }}
            />
            {series.map(({ name, points }, k) => (
              <Line
                key={name}
                data={points}
                dataKey="ms"
                name={name}
                type="stepAfter"
                stroke={LINES[k]?.stroke ?? "var(--ink)"}
                strokeDasharray={LINES[k]?.dash ?? "none"}
                strokeWidth={2}
                dot={points.length <= 60 ? { r: 2.5, strokeDasharray: "none" } : false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </figure>
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label={t("Along")}
          value={along}
          options={[
            ["step", t("By step")],
            ["share", t("By share of the loop")],
          ]}
          onChange={setAlong}
        />
        <ul aria-label={t("Clips in the chart")} className="flex flex-wrap gap-x-4 gap-y-1">
          {shown.map((each, k) => (
            <li key={each.name} className="flex items-center gap-1.5">
              <svg aria-hidden width="26" height="8">
                <line x1="0" x2="26" y1="4" y2="4" stroke={LINES[k]?.stroke} strokeDasharray={LINES[k]?.dash} strokeWidth="2.5" />
              </svg>
              {inWords(each)}
            </li>
          ))}
        </ul>
      </div>
      <section aria-label={t("Clips to overlay")} className="flex max-h-24 shrink-0 flex-wrap gap-1.5 overflow-y-auto">
        {clips
          .filter(({ name }) => name !== clip.name)
          .map(({ name }) => (
            <button
              key={name}
              type="button"
              aria-pressed={others.includes(name)}
              onClick={() => toggle(name)}
              className={`min-h-7 rounded-box border px-2 ${others.includes(name) ? "border-lapis bg-lapis text-on-lapis" : "border-line bg-raised hover:border-lapis"}`}
            >
              {name}
            </button>
          ))}
      </section>
    </div>
  );
}

/** A point where each step begins, and one where the last ends. */
function pointsOf(clip: Clip, along: Along, countFrom: number): { at: number; ms: number }[] {
  const total = totalOf(clip);
  let start = 0;
  const points = clip.steps.map(({ duration }, k) => {
    const at = along === "share" ? (start / total) * 100 : k + countFrom;
    start += duration;
    return { at, ms: msFromMicros(duration) };
  });
  const last = points.at(-1);
  return last ? [...points, { at: along === "share" ? 100 : clip.steps.length + countFrom, ms: last.ms }] : [];
}

function inWords(clip: Clip): string {
  const times = clip.steps.map(({ duration }) => msFromMicros(duration));
  const [least, most] = [Math.min(...times), Math.max(...times)];
  const range =
    least === most
      ? t("{written} ms each", { written: written(least, 3) })
      : t("{least} to {most} ms", { least: written(least, 3), most: written(most, 3) });
  return t("{name}, {count} steps, {range}, {total}", {
    name: clip.name,
    count: clip.steps.length,
    range,
    total: secondsInWords(totalOf(clip)),
  });
}
