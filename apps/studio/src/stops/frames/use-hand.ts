"use client";

import type { Rect, Size } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { useRef, useState } from "react";
import { type Box, type BoxGesture, type Edges, gestureAt, rectDuring, type Spot, snapped } from "../../preview/box-gesture";

const REACH = 5; // CSS px: how near to a line counts as on it

export interface HandInput {
  readonly boxes: readonly Box[];
  readonly sheet: Size;
  readonly coverage: Coverage | null;
  readonly zoom: number;
  /** Whether a drag inside a box draws another one instead of moving it. */
  readonly onlyEdges: boolean;
  /** Whether edges snap to what is drawn; not where grid lines are meant. */
  readonly toDrawn: boolean;
  /** Receives a finished drag: `id` is the box that was moved or resized, null for a new one. */
  readonly onDone: (id: string | null, rect: Rect) => void;
}

/** Drawing, moving and resizing boxes with the pointer. `draft` is the rectangle while it is dragged. */
export function useHand({ boxes, sheet, coverage, zoom, onlyEdges, toDrawn, onDone }: HandInput) {
  const gesture = useRef<BoxGesture | null>(null);
  const [draft, setDraft] = useState<Rect | null>(null);
  const reach = Math.max(1, REACH / zoom);
  const rectAt = (at: Spot, free: boolean): Rect | null => {
    if (!gesture.current) return null;
    const rect = rectDuring(gesture.current, at, { x: 0, y: 0, ...sheet });
    return free ? rect : snapped(gesture.current, rect, boxes, toDrawn ? coverage : null, reach);
  };
  return {
    draft,
    /** The edges that a press at a place would take; null for none. */
    edgesAt: (at: Spot): Edges | null => {
      const would = gestureAt(boxes, at, reach, onlyEdges);
      return would.kind === "resize" ? would.edges : null;
    },
    down: (at: Spot) => {
      gesture.current = gestureAt(boxes, at, reach, onlyEdges);
    },
    /** With `free`, nothing snaps. */
    move: (at: Spot, free: boolean) => setDraft(rectAt(at, free)),
    up: (at: Spot, free: boolean) => {
      const rect = rectAt(at, free);
      const done = gesture.current;
      gesture.current = null;
      setDraft(null);
      if (rect && done) onDone(done.kind === "draw" ? null : done.id, rect);
    },
    cancel: () => {
      gesture.current = null;
      setDraft(null);
    },
  };
}
