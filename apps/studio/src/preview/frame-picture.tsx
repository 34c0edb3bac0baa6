"use client";

import type { Rect } from "@caravan/core/model";
import { useEffect, useRef } from "react";
import { usePicture } from "../project/pictures";

/** A still of one frame, drawn crisp from its source's one shared bitmap. Decoration: whoever uses it names the frame. */
export function FramePicture({ sha256, rect, size, className = "" }: { sha256: string; rect: Rect; size: number; className?: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = usePicture(sha256);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const density = Math.max(1, Math.round(devicePixelRatio));
    const edge = size * density;
    context.canvas.width = edge;
    context.canvas.height = edge;
    if (!picture) return;
    const scale = stillScale(rect, edge);
    const w = rect.w * scale;
    const h = rect.h * scale;
    context.imageSmoothingEnabled = false;
    context.drawImage(picture.bitmap, rect.x, rect.y, rect.w, rect.h, Math.round((edge - w) / 2), Math.round((edge - h) / 2), w, h);
  }, [picture, rect, size]);
  return <canvas ref={canvas} aria-hidden className={className} style={{ width: size, height: size }} />;
}

/** The largest whole-number scale that fits, or the fitting fraction for what is larger than the square. */
export function stillScale({ w, h }: Rect, edge: number): number {
  const fit = Math.min(edge / w, edge / h);
  return fit >= 1 ? Math.floor(fit) : fit;
}
