"use client";

import { type RefObject, useEffect, useState } from "react";

/** How far outside the scrolled list something counts as near. */
const MARGIN = "600px 0px";

/**
 * Whether an item of a scrolled list has been near its visible part; from then on it stays so. With `always` it is from the start, which is
 * simpler for everything that searches in the list.
 */
export function useNearView(item: RefObject<Element | null>, always: boolean): boolean {
  const [wasNear, setWasNear] = useState(false);
  const waits = !always && !wasNear;
  useEffect(() => {
    const element = item.current;
    if (!waits || !element) return;
    const observer = new IntersectionObserver((seen) => seen.some(({ isIntersecting }) => isIntersecting) && setWasNear(true), {
      root: element.closest("ul, ol"),
      rootMargin: MARGIN,
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [item, waits]);
  return !waits;
}
