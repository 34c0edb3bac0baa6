"use client";

import { type RefObject, useEffect, useRef } from "react";

/** The wheel distance for one zoom step; pinching gives smaller distances that count more. */
const TURN = 80;
const PINCH = 8;

/** Reports whole steps of the wheel, or of a pinch, over an element. Shorter turns add up. `at` is relative to its corner. */
export function useWheelSteps(
  element: RefObject<HTMLElement | null>,
  onStep: (direction: 1 | -1, at: { x: number; y: number }) => void,
  isOn = true,
): void {
  const latest = useRef(onStep);
  latest.current = onStep;
  useEffect(() => {
    const target = isOn ? element.current : null;
    let turned = 0;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      turned += event.deltaY * (event.ctrlKey ? PINCH : 1) * (event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 30 : 1);
      if (Math.abs(turned) < TURN) return;
      const bounds = target?.getBoundingClientRect();
      latest.current(turned < 0 ? 1 : -1, { x: event.clientX - (bounds?.left ?? 0), y: event.clientY - (bounds?.top ?? 0) });
      turned = 0;
    };
    // React's own wheel listeners may not keep the page from scrolling.
    target?.addEventListener("wheel", wheel, { passive: false });
    return () => target?.removeEventListener("wheel", wheel);
  }, [element, isOn]);
}
