"use client";

import type { Clip } from "@caravan/core/model";
import { useEffect, useMemo, useRef } from "react";
import { usePlayerClock } from "../../preview/player-state";
import { timelineOfClip } from "../../preview/timelines";
import { edgesOf } from "./ribbon-scale";

/** The playhead on the selected ribbon. It moves at every refresh without React, because nothing else changes with it. */
export function Playhead({ clip, scale, left }: { clip: Clip; scale: number; left: number }) {
  const line = useRef<HTMLDivElement>(null);
  const timeline = timelineOfClip(clip);
  const edges = useMemo(() => edgesOf(clip), [clip]);
  useEffect(() => {
    const place = ({ elapsed }: { elapsed: number }) => {
      if (!line.current || !timeline) return;
      const t = Math.min(Math.round(elapsed), Number.isFinite(timeline.end) ? timeline.end : Math.round(elapsed));
      const { at, until, step } = timeline.spanAt(t);
      const share = Math.min(1, (t - at) / Math.max(1, until - at));
      const x = ((edges[step] as number) + share * ((edges[step + 1] as number) - (edges[step] as number))) * scale;
      line.current.style.transform = `translateX(${x}px)`;
    };
    place(usePlayerClock.getState());
    return usePlayerClock.subscribe(place);
  }, [timeline, edges, scale]);
  if (!timeline) return null;
  return (
    <div
      ref={line}
      aria-hidden
      className="pointer-events-none absolute top-3 bottom-0 w-0.5 bg-now will-change-transform"
      style={{ left: left - 1 }}
    />
  );
}
