"use client";

import { drawFrames, placeFrames } from "@caravan/core/edit";
import { frameRef, type Rect, type Source, sheetOf } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { useRef, useState } from "react";
import { currentProject, edit } from "../../project/open-project";
import { useView } from "../../project/view";
import { say } from "../../ui/notices";
import { gestureAt, type HandGesture, rectDuring, type Spot, snapped } from "./hand-gesture";

const REACH = 5; // CSS px: how near to a line counts as on it

/** Drawing, moving and resizing frames with the pointer. `draft` is the rectangle while it is dragged. */
export function useHand(source: Source, coverage: Coverage | null, zoom: number) {
  const gesture = useRef<HandGesture | null>(null);
  const [draft, setDraft] = useState<Rect | null>(null);
  const { width, height } = sheetOf(source);
  const reach = Math.max(1, REACH / zoom);
  const rectAt = (at: Spot, free: boolean): Rect | null => {
    if (!gesture.current) return null;
    const rect = rectDuring(gesture.current, at, { w: width, h: height });
    return free ? rect : snapped(gesture.current, rect, source, coverage, reach);
  };
  return {
    draft,
    down: (at: Spot) => {
      gesture.current = gestureAt(source, at, reach);
    },
    /** With `free`, nothing snaps. */
    move: (at: Spot, free: boolean) => setDraft(rectAt(at, free)),
    up: (at: Spot, free: boolean) => {
      const rect = rectAt(at, free);
      const done = gesture.current;
      gesture.current = null;
      setDraft(null);
      if (!rect || !done) return;
      const error = done.kind === "draw" ? edit(drawFrames, source.id, [rect]) : edit(placeFrames, new Map([[done.ref, rect]]));
      if (error) {
        say({ tone: "trouble", text: error.message });
        return;
      }
      const last =
        done.kind === "draw"
          ? currentProject()
              .sources.find(({ id }) => id === source.id)
              ?.frames.at(-1)
          : undefined;
      useView.setState({ cursor: last ? frameRef(source, last) : done.kind === "draw" ? null : done.ref });
    },
    cancel: () => {
      gesture.current = null;
      setDraft(null);
    },
  };
}
