"use client";

import { setClipRules } from "@caravan/core/edit";
import type { Clip, Micros } from "@caravan/core/model";
import { type PointerEvent, useMemo, useRef } from "react";
import { pause, seek } from "../../preview/clock";
import { usePlayerClock } from "../../preview/player-state";
import { editInGesture } from "../../project/open-project";
import { useView } from "../../project/view";
import { t } from "../../ui/words";
import { edgesOf, nearestEdge, rulerMarks, stepsBetween } from "./ribbon-scale";

interface Props {
  readonly clip: Clip;
  /** CSS pixels a microsecond. */
  readonly scale: number;
  /** The position of time 0, and the space after the end, in pixels. */
  readonly left: number;
  readonly margin: number;
  /** Marks outside of these pixels are not drawn: a long clip has thousands. */
  readonly from: number;
  readonly until: number;
}

/**
 * The time ruler over the selected ribbon. Dragging moves the playhead; with Shift it selects steps. A bracket marks where later loops
 * begin, and can be dragged to another step.
 */
export function Ruler({ clip, scale, left, margin, from, until }: Props) {
  const edges = useMemo(() => edgesOf(clip), [clip]);
  const end = edges.at(-1) as Micros;
  const marks = rulerMarks(end, scale).filter((at) => at * scale >= from && at * scale <= until);
  const swept = useRef<Micros | null>(null);
  const timeAt = (event: PointerEvent<HTMLElement>) =>
    Math.max(0, Math.min(end - 1, Math.round((event.clientX - event.currentTarget.getBoundingClientRect().left) / scale)));
  const go = (event: PointerEvent<HTMLElement>) => {
    const at = timeAt(event);
    if (swept.current !== null) useView.setState({ steps: stepsBetween(edges, swept.current, at) });
    else {
      pause(usePlayerClock);
      seek(usePlayerClock, at);
    }
  };
  return (
    <div
      aria-hidden
      data-testid="ruler"
      title={t("Drag to move through time; with Shift select steps")}
      className="relative h-6 cursor-ew-resize touch-none"
      style={{ marginLeft: left, width: end * scale + margin }}
      onPointerDown={(event) => {
        if (event.button !== 0 || end === 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        swept.current = event.shiftKey ? timeAt(event) : null;
        go(event);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && go(event)}
      onPointerCancel={() => {
        swept.current = null;
      }}
    >
      {marks.map((at) => (
        <span
          key={at}
          className="number absolute bottom-0 border-l border-line-strong pl-1 text-small leading-4 text-muted"
          style={{ left: at * scale }}
        >
          {at / 1000}
        </span>
      ))}
      {clip.playback !== "once" && clip.steps.length > 1 && <RoundsFrom clip={clip} edges={edges} scale={scale} />}
    </div>
  );
}

/** The bracket at the step from which later rounds begin. Without a pointer, that step is typed. */
function RoundsFrom({ clip, edges, scale }: { clip: Clip; edges: readonly Micros[]; scale: number }) {
  const drag = useRef<{ readonly x: number; readonly at: Micros; readonly gesture: string } | null>(null);
  const at = edges[clip.loopFrom] ?? 0;
  return (
    <span
      data-testid="rounds-from"
      title={t("Later loops begin here; drag it to another step")}
      className="absolute -top-1 z-10 h-3 w-3 cursor-col-resize touch-none border-t-3 border-l-3 border-lapis hover:border-now"
      style={{ left: at * scale }}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, at, gesture: `rounds ${clip.name} ${event.timeStamp}` };
      }}
      onPointerMove={(event) => {
        event.stopPropagation();
        const { current } = drag;
        if (!current) return;
        const step = Math.min(clip.steps.length - 1, nearestEdge(edges, current.at + (event.clientX - current.x) / scale));
        if (step !== clip.loopFrom) editInGesture(current.gesture, setClipRules, clip.name, { loopFrom: step });
      }}
      onPointerUp={() => {
        drag.current = null;
      }}
      onPointerCancel={() => {
        drag.current = null;
      }}
    />
  );
}
