"use client";

import { type Clip, type ClipName, clipNamed, type DataValue, frameName, type Step, textOfValue, valueIn } from "@caravan/core/model";
import { timeAt } from "@caravan/core/playback";
import { useDroppable } from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { memo, useMemo } from "react";
import { seek } from "../../preview/clock";
import { FramePicture } from "../../preview/frame-picture";
import { usePlayerClock } from "../../preview/player-state";
import { startOfStep, timelineOfClip } from "../../preview/timelines";
import { currentProject } from "../../project/open-project";
import { usePlacedFrame } from "../../project/placed-frame";
import { useView } from "../../project/view";
import { useCountFrom } from "../../ui/counting";
import { written } from "../../ui/number-field";
import { type Menu, WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { clickedSteps } from "./chosen-steps";
import { EdgeHandle } from "./edge-handle";
import { stepMenu } from "./menus";
import { edgesOf, timeThatFits } from "./ribbon-scale";

const HEIGHT = 112; // px

/** The chosen clip: each step as wide as it is long, with its picture. Only steps between `from` and `until` px are drawn. */
export function TallRibbon({ clip, scale, from, until }: { clip: Clip; scale: number; from: number; until: number }) {
  const edges = useMemo(() => edgesOf(clip), [clip]);
  const { setNodeRef, isOver } = useDroppable({ id: "ribbon", data: {} });
  const chosen = useView((view) => view.steps);
  const timeline = timelineOfClip(clip);
  const now = usePlayerClock((state) => timeline?.shownAt(timeAt(state)).step);
  const width = (edges.at(-1) as number) * scale;
  const count = clip.steps.length;
  // The same list while the number of steps is the same: otherwise every visible step would be rendered again.
  const ids = useMemo(() => Array.from({ length: count }, (_, k) => `step ${k}`), [count]);
  const inSight = clip.steps.flatMap((step, k) => {
    const left = (edges[k] as number) * scale;
    const right = (edges[k + 1] as number) * scale;
    return right >= from && left <= until ? [{ step, k, left, wide: right - left }] : [];
  });
  return (
    <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
      <WithMenu label={t("Step menu")} menuOf={(target) => menuOf(clip, target)}>
        <ol
          ref={setNodeRef}
          aria-label={t("Steps of {name}", { name: clip.name })}
          className={`relative shrink-0 rounded-box border bg-raised ${isOver ? "border-now" : "border-lapis"}`}
          style={{ width: Math.max(width, 120) + 2, height: HEIGHT }}
        >
          {inSight.map(({ step, k, left, wide }) => (
            // Only positions change while an earlier edge is dragged: the steps themselves are not rendered again.
            <li key={k} className="absolute top-0 h-full" style={{ left, width: wide }}>
              <StepCell
                id={ids[k] as string}
                name={clip.name}
                step={step}
                index={k}
                width={wide}
                chosen={chosen.includes(k)}
                now={k === now}
                roundsFrom={k > 0 && k === clip.loopFrom}
                scale={scale}
              />
            </li>
          ))}
          {clip.steps.length === 0 && (
            <li className="flex h-full items-center justify-center px-3 text-center text-muted">
              {t("Drag frames here, or pick them below and press Enter.")}
            </li>
          )}
        </ol>
      </WithMenu>
    </SortableContext>
  );
}

function menuOf(clip: Clip, target: Element): Menu | null {
  const step = target.closest<HTMLElement>("[data-step]")?.dataset.step;
  return step === undefined ? null : stepMenu(clip, Number(step));
}

interface StepProps {
  readonly id: string;
  readonly name: ClipName;
  readonly step: Step;
  readonly index: number;
  readonly width: number;
  readonly chosen: boolean;
  /** Whether the player shows it. */
  readonly now: boolean;
  /** Whether later rounds begin with it. */
  readonly roundsFrom: boolean;
  /** CSS pixels a microsecond. */
  readonly scale: number;
}

const StepCell = memo(function StepCell({ id, name: clip, step, index, width, chosen, now, roundsFrom, scale }: StepProps) {
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id, data: { step: index } });
  const found = usePlacedFrame(step.frame);
  const shown = found && !found.frame.dropped ? found : null;
  const name = shown ? frameName(shown.source, shown.frame) : t("missing frame");
  const ms = written(step.duration / 1000, 3);
  const number = index + useCountFrom();
  const fired = step.events?.map((event) => withValue(event, valueIn(step.eventValues, event)));
  // In steps, so that a step dragged wider is not rendered again at every pixel.
  const size = Math.min(68, Math.floor((width - 6) / 4) * 4);
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      className={`h-full w-full touch-pan-x ${isDragging ? "relative z-20 opacity-70" : "relative"}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button
        type="button"
        data-chooses
        data-step={index}
        aria-pressed={chosen}
        aria-label={
          fired
            ? t("Step {number}: {name}, fires {fired}, {ms} ms", { number, name, ms, fired: fired.join(` ${t("and")} `) })
            : t("Step {number}: {name}, {ms} ms", { number, name, ms })
        }
        title={
          fired ? t("{name}, {ms} ms, fires {fired}", { name, ms, fired: fired.join(` ${t("and")} `) }) : t("{name}, {ms} ms", { name, ms })
        }
        tabIndex={-1}
        onClick={(event) => {
          useView.setState((view) => ({ steps: clickedSteps(view.steps, index, event.shiftKey, event.ctrlKey || event.metaKey) }));
          seek(usePlayerClock, startOfStep(clipNamed(currentProject(), clip), index));
        }}
        className={`flex h-full w-full flex-col items-center justify-between overflow-hidden border-r border-line py-1 ${chosen ? "outline-2 -outline-offset-2 outline-now" : ""} ${!shown ? "bg-brick-soft" : now ? "bg-now-soft" : ""} ${roundsFrom ? "border-l-4 border-l-lapis" : ""}`}
      >
        <span className="flex w-full justify-between gap-1 px-1 text-small">
          <span className="number text-muted">{number}</span>
          {fired && <span className={`truncate font-semibold ${now ? "text-now-text" : "text-lapis"}`}>{fired.join(", ")}</span>}
        </span>
        {shown && size >= 8 ? (
          <span className="check block shrink-0">
            <FramePicture source={shown.source} frame={shown.frame} size={size} className="block" />
          </span>
        ) : (
          <span className="text-small text-brick">{shown ? "" : t("missing")}</span>
        )}
        <span className="number px-0.5 text-small whitespace-nowrap">{timeThatFits(ms, width)}</span>
      </button>
      <EdgeHandle name={clip} step={index} scale={scale} />
    </div>
  );
});

/** "footfall: sand". */
function withValue(event: string, value: DataValue | undefined): string {
  return value === undefined || value === true ? event : `${event}: ${textOfValue(value)}`;
}
