import { type RefObject, useEffect, useRef } from "react";

export interface Pinch {
  /** Two fingers are apart by so much more, or less, that the next zoom is meant; (x, y) is between them, from the element's corner. */
  readonly onZoom: (direction: 1 | -1, x: number, y: number) => void;
  /** They have moved together, in CSS pixels. */
  readonly onPan?: (dx: number, dy: number) => void;
}

/** Fingers this many times further apart ask for the next zoom. */
const NEXT = 1.35;

/**
 * Two fingers on an element. The gesture of the first one is cancelled, as when the browser takes a touch for itself, so that a pinch never
 * also draws or picks.
 */
export function usePinch(element: RefObject<HTMLElement | null>, pinch: Pinch): void {
  const latest = useRef(pinch);
  latest.current = pinch;
  useEffect(() => {
    const target = element.current;
    if (!target) return;
    const fingers = new Map<number, { x: number; y: number }>();
    let apart = 0;
    let middle = { x: 0, y: 0 };
    const measured = () => {
      const [a, b] = [...fingers.values()] as [{ x: number; y: number }, { x: number; y: number }];
      return { apart: Math.hypot(a.x - b.x, a.y - b.y), middle: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } };
    };
    const down = (event: PointerEvent) => {
      if (event.pointerType !== "touch" || fingers.size > 1) return;
      fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
      if (fingers.size < 2) return;
      event.stopPropagation();
      const [first] = fingers.keys();
      target.dispatchEvent(new PointerEvent("pointercancel", { pointerId: first ?? 0, pointerType: "touch", bubbles: true }));
      ({ apart, middle } = measured());
    };
    const move = (event: PointerEvent) => {
      if (!fingers.has(event.pointerId)) return;
      fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
      if (fingers.size < 2) return;
      event.stopPropagation();
      const now = measured();
      latest.current.onPan?.(now.middle.x - middle.x, now.middle.y - middle.y);
      middle = now.middle;
      const box = target.getBoundingClientRect();
      const ratio = now.apart / Math.max(1, apart);
      if (ratio < NEXT && ratio > 1 / NEXT) return;
      apart = now.apart;
      latest.current.onZoom(ratio > 1 ? 1 : -1, middle.x - box.left, middle.y - box.top);
    };
    const up = (event: PointerEvent) => {
      if (!event.isTrusted || !fingers.has(event.pointerId)) return;
      // The finger that stays neither draws nor picks any more: it is of no use until it is lifted.
      if (fingers.size === 2) event.stopPropagation();
      fingers.delete(event.pointerId);
    };
    const options = { capture: true };
    target.addEventListener("pointerdown", down, options);
    target.addEventListener("pointermove", move, options);
    target.addEventListener("pointerup", up, options);
    target.addEventListener("pointercancel", up, options);
    return () => {
      target.removeEventListener("pointerdown", down, options);
      target.removeEventListener("pointermove", move, options);
      target.removeEventListener("pointerup", up, options);
      target.removeEventListener("pointercancel", up, options);
    };
  }, [element]);
}
