"use client";

import { lookOf } from "@caravan/core/art";
import type { ShownFrame } from "@caravan/core/intake";
import { type Frame, pictureOf, type Source } from "@caravan/core/model";
import { useMemo } from "react";
import { useBeat } from "../ui/ticking";
import type { Still } from "./draw-frame";
import { useStillUrl } from "./still-urls";

const NO_INSET = { x: 0, y: 0 };

/** Frames one after the other, small: what a clip will be before it is there. Decoration: whoever uses it names the clip. */
export function MovingFrames({
  frames,
  size,
  mirrored = false,
  className = "",
}: {
  frames: readonly ShownFrame[];
  size: number;
  mirrored?: boolean;
  className?: string;
}) {
  const beat = useBeat(frames.length > 1);
  const shown = frames[beat % Math.max(1, frames.length)];
  if (!shown) return <span aria-hidden className={className} style={{ width: size, height: size }} />;
  return <Shown frame={shown} size={size} className={`${mirrored ? "-scale-x-100" : ""} ${className}`} />;
}

function Shown({ frame, size, className }: { frame: ShownFrame; size: number; className: string }) {
  const still = useMemo(() => stillOfShown(frame), [frame]);
  const url = useStillUrl(still, size * Math.max(1, Math.round(globalThis.devicePixelRatio ?? 1)));
  const box = { width: size, height: size };
  if (url === null) return <span aria-hidden className={className} style={box} />;
  // biome-ignore lint/performance/noImgElement: a picture made on the spot needs no server to make it smaller
  return <img src={url} alt="" draggable={false} className={`crisp pointer-events-none ${className}`} style={box} />;
}

/** A frame of a source, to be shown moving. */
export function shownFrame(source: Source, frame: Frame): ShownFrame {
  const { sha256 } = pictureOf(source, frame);
  return { sha256, ...(source.clearing ? { clearing: source.clearing } : {}), rect: frame.rect, turned: frame.turned };
}

function stillOfShown({ rect, turned = false, ...picture }: ShownFrame): Still {
  const upright = turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h };
  const look = lookOf(picture, picture);
  return { look, layers: [{ name: null, look, blend: "normal" }], rect, turned, size: upright, drawn: upright, inset: NO_INSET, scale: 1 };
}
