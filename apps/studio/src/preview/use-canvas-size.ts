"use client";

import { type RefObject, useEffect, useState } from "react";

export interface CanvasSize {
  /** CSS pixels. */
  readonly width: number;
  readonly height: number;
  /** Device pixels per CSS pixel. */
  readonly density: number;
}

/** The size of a canvas on the screen, and the display's density: both may change at any time. */
export function useCanvasSize(canvas: RefObject<HTMLCanvasElement | null>): CanvasSize {
  const [size, setSize] = useState<CanvasSize>({ width: 0, height: 0, density: 1 });
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const measure = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight, density: devicePixelRatio }),
    );
    measure.observe(element);
    return () => measure.disconnect();
  }, [canvas]);
  return size;
}
