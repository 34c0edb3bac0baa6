"use client";

import type { Frame, Source } from "@caravan/core/model";
import { useMemo } from "react";
import { useStock } from "../project/stock";
import { stillOf } from "./draw-frame";
import { useStillUrl } from "./still-urls";

/** A still of one frame, drawn crisp from its source's shared bitmap. Decorative: the caller names the frame. */
export function FramePicture({ source, frame, size, className = "" }: { source: Source; frame: Frame; size: number; className?: string }) {
  const stock = useStock();
  const still = useMemo(() => stillOf(stock, source, frame), [stock, source, frame]);
  const url = useStillUrl(still, size * Math.max(1, Math.round(globalThis.devicePixelRatio ?? 1)));
  const box = { width: size, height: size };
  if (url === null) return <span aria-hidden className={className} style={box} />;
  // biome-ignore lint/performance/noImgElement: a picture made on the spot needs no server to make it smaller
  return <img src={url} alt="" draggable={false} className={`crisp pointer-events-none ${className}`} style={box} />;
}
