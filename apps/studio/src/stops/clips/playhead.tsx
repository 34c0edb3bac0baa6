"use client";

import type { Clip } from "@caravan/core/model";
import { useEffect, useMemo, useRef } from "react";
import { usePlayerClock } from "../../preview/player-state";
import { timelineOfClip } from "../../preview/timelines";
import { edgesOf } from "./ribbon-scale";

/** px: farther than any ribbon is long. */
const FAR = 1_000_000;

/**
 * The playhead on the selected ribbon. It moves at every refresh without React, because nothing else changes with it: as a paused animation
 * whose time is its place in px, because Chromium arranges all layers of the page anew for a changed `style.transform`, a third of the work
 * of a picture.
 */
export function Playhead({ clip, scale, left }: { clip: Clip; scale: number; left: number }) {
  const line = useRef<HTMLDivElement>(null);
  const timeline = timelineOfClip(clip);
  const edges = useMemo(() => edgesOf(clip), [clip]);
  useEffect(() => {
    const along = line.current?.animate([{ transform: "translateX(0)" }, { transform: `translateX(${FAR}px)` }], { duration: FAR });
    along?.pause();
    const place = ({ elapsed }: { elapsed: number }) => {
      if (!along || !timeline) return;
      const t = Math.min(Math.round(elapsed), Number.isFinite(timeline.end) ? timeline.end : Math.round(elapsed));
      const { at, until, step } = timeline.spanAt(t);
      const share = Math.min(1, (t - at) / Math.max(1, until - at));
      along.currentTime = ((edges[step] as number) + share * ((edges[step + 1] as number) - (edges[step] as number))) * scale;
    };
    place(usePlayerClock.getState());
    const stop = usePlayerClock.subscribe(place);
    return () => {
      stop();
      along?.cancel();
    };
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
