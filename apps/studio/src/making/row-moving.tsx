"use client";

import type { Source } from "@caravan/core/model";
import { useMemo } from "react";
import { MovingFrames, shownFrame } from "../preview/moving-frames";

/** Plays a row's kept frames in order. */
export function RowMoving({ source, row }: { source: Source; row: number }) {
  const frames = useMemo(
    () => source.frames.filter((frame) => frame.row === row && !frame.dropped).map((frame) => shownFrame(source, frame)),
    [source, row],
  );
  return <MovingFrames frames={frames} size={48} className="check shrink-0 rounded-sm" />;
}
