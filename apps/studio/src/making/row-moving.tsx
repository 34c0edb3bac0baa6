"use client";

import type { Source } from "@caravan/core/model";
import { useMemo } from "react";
import { stillOf } from "../preview/draw-frame";
import { MovingFrames } from "../preview/moving-frames";
import { useStock } from "../project/stock";

/** Plays a row's kept frames in order. */
export function RowMoving({ source, row }: { source: Source; row: number }) {
  const stock = useStock();
  const stills = useMemo(
    () => source.frames.filter((frame) => frame.row === row && !frame.dropped).map((frame) => stillOf(stock, source, frame)),
    [stock, source, row],
  );
  return <MovingFrames stills={stills} size={48} className="check shrink-0 rounded-sm" />;
}
