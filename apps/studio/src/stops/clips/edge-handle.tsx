"use client";

import { moveBorder, setStepDurations } from "@caravan/core/edit";
import { type Clip, type ClipName, clipNamed, type Project } from "@caravan/core/model";
import { type PointerEvent, useEffect, useRef } from "react";
import { create } from "zustand";
import { apply, currentProject } from "../../project/open-project";
import { t } from "../../ui/words";

/** A dragged edge snaps to whole milliseconds; with Shift to whole microseconds. */
const GRAIN = 1000; // µs

/** The ribbons' scale during a drag: it stays, so that the edge stays under the pointer. */
export const useHeldScale = create<{ readonly scale: number | null }>(() => ({ scale: null }));

/**
 * A step's right edge, draggable: the step changes its duration and all later ones move; with Alt only the border moves, and the clip keeps
 * its length. The alternative without a pointer is typing a duration.
 */
export function EdgeHandle({ name, step, scale }: { name: ClipName; step: number; scale: number }) {
  const drag = useRef<{ readonly x: number; readonly clip: Clip; readonly gesture: string } | null>(null);
  // A handle removed during a drag, as by undo, must release the ribbons' scale.
  useEffect(() => () => void (drag.current && useHeldScale.setState({ scale: null })), []);
  const drawn = (event: PointerEvent) => {
    const { current } = drag;
    const before = current?.clip.steps[step];
    if (!current || !before) return;
    const grain = event.shiftKey ? 1 : GRAIN;
    const by = Math.round((event.clientX - current.x) / scale / grain) * grain;
    // Each move starts from the original clip: dragging back leaves nothing behind.
    const change = (project: Project) => {
      const start = asItWas(project, current.clip, step);
      return event.altKey
        ? moveBorder(start, name, step, by)
        : setStepDurations(start, name, [step], Math.max(GRAIN, before.duration + by));
    };
    apply(change, () => t("set the duration of step {step} of {name}", { step, name }), current.gesture);
  };
  return (
    <span
      aria-hidden
      data-testid={`edge ${step}`}
      title={t("Drag to change the step's duration; with Alt only the border moves")}
      className="absolute top-0 -right-1 z-10 h-full w-2 cursor-ew-resize pointer-coarse:-right-3 pointer-coarse:w-6 touch-none hover:bg-now"
      // The step itself would take it for a drag to another place.
      onMouseDown={(event) => event.stopPropagation()}
      onTouchStart={(event) => event.stopPropagation()}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, clip: clipNamed(currentProject(), name), gesture: `edge ${name} ${step} ${event.timeStamp}` };
        useHeldScale.setState({ scale });
      }}
      onPointerMove={drawn}
      onPointerUp={() => {
        drag.current = null;
        useHeldScale.setState({ scale: null });
      }}
      onPointerCancel={() => {
        const { current } = drag;
        if (current)
          apply(
            (project) => asItWas(project, current.clip, step),
            () => t("set the duration of step {step} of {name}", { step, name }),
            current.gesture,
          );
        drag.current = null;
        useHeldScale.setState({ scale: null });
      }}
    />
  );
}

/** The project with the times that the step and its neighbour had. */
function asItWas(project: Project, { name, steps }: Clip, step: number): Project {
  return [step, step + 1].reduce((next, place) => {
    const duration = steps[place]?.duration;
    return duration === undefined ? next : setStepDurations(next, name, [place], duration);
  }, project);
}
