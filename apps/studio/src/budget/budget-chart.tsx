"use client";

import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from "recharts";
import { t } from "../ui/words";
import type { CountedTiles } from "../workers/jobs";

/** Charts the tiles that only one frame has, per frame. */
export default function BudgetChart({ perFrame }: Pick<CountedTiles, "perFrame">) {
  const points = perFrame.map(({ name, own }, k) => ({ at: k, name, own }));
  const dearest = perFrame.reduce<{ name: string; own: number }>((most, each) => (each.own > most.own ? each : most), {
    name: "none",
    own: 0,
  });
  return (
    <figure aria-label={t("Tiles of each frame alone; most: {name}, {own}", { name: dearest.name, own: dearest.own })} className="h-24">
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={points} margin={{ top: 4, right: 4, bottom: 0, left: 0 }} accessibilityLayer={false}>
          <XAxis dataKey="at" tick={{ fontSize: 11, fill: "var(--muted)" }} stroke="var(--line-strong)" />
          <YAxis width={28} allowDecimals={false} tick={{ fontSize: 11, fill: "var(--muted)" }} stroke="var(--line-strong)" />
          <Bar dataKey="own" fill="var(--lapis)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}
