"use client";

import { type OutlineFacts, outlineFacts } from "@caravan/core/marks";
import { type Clip, counted, findFrame, type OutlineKind, ownOf } from "@caravan/core/model";
import { useDeferredValue, useMemo } from "react";
import { useProject } from "../../project/open-project";
import { useSeenArt } from "../../project/seen-art";
import { useCountFrom } from "../../ui/counting";
import { t } from "../../ui/words";
import { AROUND, Legend, StepLines } from "./step-lines";

/**
 * Charts bottom, width and area as lengths, width and area relative to their medians, so that one scale fits all and a steady outline is
 * level.
 */
const LINES = [
  { key: "bottom", word: t("bottom over the ground"), stroke: "var(--lapis)", dash: "none" },
  { key: "width", word: t("width, from its median"), stroke: "var(--brick)", dash: "5 3" },
  { key: "side", word: t("root of the area, from its median"), stroke: "var(--muted)", dash: "2 3" },
] as const;

function heightsOf(facts: readonly (OutlineFacts | null | undefined)[]): Record<(typeof LINES)[number]["key"], number | null>[] {
  const there = facts.filter((each): each is OutlineFacts => !!each);
  const median = (values: number[]) => values.sort((x, y) => x - y)[values.length >> 1] ?? 0;
  const width = median(there.map((each) => each.width));
  const side = median(there.map(({ area }) => Math.sqrt(area)));
  return facts.map((each) =>
    each
      ? { bottom: -each.bottom, width: each.width - width, side: Math.round((Math.sqrt(each.area) - side) * 10) / 10 }
      : { bottom: null, width: null, side: null },
  );
}

/** How steady the outline is from step to step. */
export function OutlineChart({ clip, step, kind }: { clip: Clip; step: number; kind: OutlineKind }) {
  const project = useDeferredValue(useProject((each) => each));
  const outlines = useDeferredValue(useSeenArt((art) => art.outlines));
  const countFrom = useCountFrom();
  const facts = useMemo(
    () =>
      clip.steps.map(({ frame }) => {
        const placed = findFrame(project, frame);
        return placed && outlineFacts(placed, ownOf(outlines.get(frame), kind.name)?.polygons ?? []);
      }),
    [project, outlines, clip, kind.name],
  );
  const from = Math.max(0, step - AROUND);
  const points = useMemo(
    () =>
      heightsOf(facts)
        .slice(from, step + AROUND + 1)
        .map((each, k) => ({ at: from + k + countFrom, ...each })),
    [facts, from, step, countFrom],
  );
  return (
    <section aria-label={t("Outline from step to step")} className="flex h-24 shrink-0 gap-3">
      <figure aria-label={inWords(facts)} className="min-w-0 grow rounded-box border border-line bg-surface">
        <StepLines points={points} lines={LINES} step={step + countFrom} clip={clip} countFrom={countFrom} />
      </figure>
      <div className="flex w-64 shrink-0 flex-col gap-1 overflow-y-auto text-small">
        <Legend lines={LINES} />
        <p className="text-muted">{t("In px.")}</p>
      </div>
    </section>
  );
}

function inWords(facts: readonly (OutlineFacts | null | undefined)[]): string {
  const there = facts.filter((each): each is OutlineFacts => !!each);
  if (there.length === 0) return t("No outline on {steps}", { steps: counted(facts.length, "step") });
  const range = (of: (each: OutlineFacts) => number) => {
    const values = there.map(of);
    const [least, most] = [Math.min(...values), Math.max(...values)];
    return least === most ? `${least}` : t("{least} to {most}", { least, most });
  };
  return t("Outline over {steps}: bottom {bottom} px over the ground, width {width} px, area {area} px²", {
    steps: counted(facts.length, "step"),
    bottom: range(({ bottom }) => -bottom),
    width: range(({ width }) => width),
    area: range(({ area }) => area),
  });
}
