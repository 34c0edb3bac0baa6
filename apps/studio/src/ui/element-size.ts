import { type RefObject, useEffect, useState } from "react";

export interface ElementSize {
  /** CSS pixels, within its borders. */
  readonly width: number;
  readonly height: number;
  /** Device pixels per CSS pixel. */
  readonly density: number;
}

/** How large an element is on the screen, and the display's density: both may change at any time. Nothing at all until it is there. */
export function useElementSize(of: RefObject<HTMLElement | null>): ElementSize {
  const [size, setSize] = useState<ElementSize>({ width: 0, height: 0, density: 1 });
  useEffect(() => {
    const element = of.current;
    if (!element) return;
    const measure = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight, density: devicePixelRatio }),
    );
    measure.observe(element);
    return () => measure.disconnect();
  }, [of]);
  return size;
}
