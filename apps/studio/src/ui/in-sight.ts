"use client";

import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { type RefObject, useLayoutEffect, useState } from "react";

/** Shorter lists are rendered whole, which is simpler for everything that searches in them. */
const MOST_WHOLE = 120;

interface Options {
  readonly count: number;
  /** Its estimated height in CSS pixels; rendered items are measured. */
  readonly height: number;
  /** Indexes that are always rendered: the selected and the focused item. */
  readonly kept: readonly number[];
  /** The element that the items follow one another in, and its scrolling ancestor, or itself. */
  readonly list: RefObject<HTMLElement | null>;
  readonly scroller: () => HTMLElement | null;
}

/** The rendered content, in order: an item by its index, or the space of items that are not rendered. */
export type InSight = { readonly index: number } | { readonly room: number; readonly before: number };

/**
 * The visible part of a long list and a little around it. `measure` is each item's ref, which also provides its index as `data-index`;
 * `bring` scrolls an item into view.
 */
export function useInSight({ count, height, kept, list, scroller }: Options) {
  const isLong = count > MOST_WHOLE;
  const [margin, setMargin] = useState(0);
  const virtualizer = useVirtualizer({
    count,
    enabled: isLong,
    getScrollElement: scroller,
    estimateSize: () => height,
    overscan: 12,
    scrollMargin: margin,
    initialRect: { width: 0, height: 900 },
    rangeExtractor: (range) =>
      [...new Set([...defaultRangeExtractor(range), ...kept.filter((each) => each >= 0 && each < count)])].sort((a, b) => a - b),
  });
  // Elements above the list come and go.
  useLayoutEffect(() => {
    const [element, around] = [list.current, scroller()];
    if (!isLong || !element || !around) return;
    const top = element === around ? 0 : element.getBoundingClientRect().top - around.getBoundingClientRect().top + around.scrollTop;
    if (Math.abs(top - margin) > 1) setMargin(top);
  });
  if (!isLong) return { shown: Array.from({ length: count }, (_, index): InSight => ({ index })), measure: undefined, bring: () => {} };
  const shown: InSight[] = [];
  let at = margin;
  for (const { index, start, end } of virtualizer.getVirtualItems()) {
    if (start - at > 0.5) shown.push({ room: start - at, before: index });
    shown.push({ index });
    at = end;
  }
  const rest = virtualizer.getTotalSize() + margin - at;
  if (rest > 0.5) shown.push({ room: rest, before: count });
  return { shown, measure: virtualizer.measureElement, bring: (index: number) => virtualizer.scrollToIndex(index) };
}
