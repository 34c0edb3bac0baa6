"use client";

import { lookOf } from "@caravan/core/art";
import type { ShownFrame } from "@caravan/core/intake";
import { useBeat } from "../ui/ticking";
import type { Still } from "./draw-frame";
import { useStillUrl } from "./still-urls";

const NO_INSET = { x: 0, y: 0 };

/** Frames one after the other, small: what a clip will be before it is there. Decoration: whoever uses it names the clip. */
export function MovingFrames({
  stills,
  size,
  mirrored = false,
  className = "",
}: {
  stills: readonly Still[];
  size: number;
  mirrored?: boolean;
  className?: string;
}) {
  const beat = useBeat(stills.length > 1);
  const shown = stills[beat % Math.max(1, stills.length)];
  if (!shown) return <span aria-hidden className={className} style={{ width: size, height: size }} />;
  return <Shown still={shown} size={size} className={`${mirrored ? "-scale-x-100" : ""} ${className}`} />;
}

function Shown({ still, size, className }: { still: Still; size: number; className: string }) {
  const url = useStillUrl(still, size * Math.max(1, Math.round(globalThis.devicePixelRatio ?? 1)));
  const box = { width: size, height: size };
  if (url === null) return <span aria-hidden className={className} style={box} />;
  // biome-ignore lint/performance/noImgElement: a picture made on the spot needs no server to make it smaller
  return <img src={url} alt="" draggable={false} className={`crisp pointer-events-none ${className}`} style={box} />;
}

/** A still of a frame that is not in the project yet. */
export function stillOfShown({ rect, turned = false, ...picture }: ShownFrame): Still {
  const upright = turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h };
  const look = lookOf(picture, picture);
  return { look, layers: [{ name: null, look, blend: "normal" }], rect, turned, size: upright, drawn: upright, inset: NO_INSET, scale: 1 };
}
