"use client";

import type { Frame, Size, Source } from "@caravan/core/model";
import { useEffect, useMemo, useRef } from "react";
import { usePicture } from "../project/pictures";
import { drawStill, stillOf } from "./draw-frame";

/** A still of one frame, drawn crisp from its source's one shared bitmap. Decoration: whoever uses it names the frame. */
export function FramePicture({ source, frame, size, className = "" }: { source: Source; frame: Frame; size: number; className?: string }) {
  const { look, rect, turned, inset, size: whole } = useMemo(() => stillOf(source, frame), [source, frame]);
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = usePicture(look);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const density = Math.max(1, Math.round(devicePixelRatio));
    const edge = size * density;
    context.canvas.width = edge;
    context.canvas.height = edge;
    if (!picture) return;
    const scale = stillScale(whole, edge);
    const left = Math.round((edge - whole.w * scale) / 2);
    const top = Math.round((edge - whole.h * scale) / 2);
    context.imageSmoothingEnabled = false;
    drawStill(context, picture.bitmap, { rect, turned, inset }, left, top, scale);
  }, [picture, rect, turned, inset, whole, size]);
  return <canvas ref={canvas} aria-hidden className={className} style={{ width: size, height: size }} />;
}

/** The largest whole-number scale that fits, or the fitting fraction for what is larger than the square. */
export function stillScale({ w, h }: Size, edge: number): number {
  const fit = Math.min(edge / w, edge / h);
  return fit >= 1 ? Math.floor(fit) : fit;
}
