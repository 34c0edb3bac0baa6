/**
 * Packs rectangles into as few and as small pages as a bounded search finds.
 *
 * Tries several page widths, orders and placing rules and keeps the smallest page that takes everything; if none does, fills
 * one page of the greatest size as far as it goes and continues with the rest. The number of tries depends on the number of
 * items, never on the clock, so that equal input gives equal output on every machine.
 * Units: whole pixels. Holds: every item is placed exactly once, no two are nearer than the padding, none leaves its page.
 */
import type { Size } from "../model";
import { type BinLayout, fillBin, type PlacingRule } from "./max-rects";

export interface PageOptions {
  readonly paddingPx: number;
  readonly maxPx: number;
  readonly turn: boolean;
  readonly powerOfTwo: boolean;
  readonly effort: "normal" | "high";
}

export interface Place {
  readonly page: number;
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
}

export type Packed =
  | { readonly kind: "placed"; readonly pages: readonly Size[]; readonly places: readonly Place[] }
  | { readonly kind: "too-large"; readonly items: readonly number[] };

/** Told between tries; `done` runs from 0 to 1. */
export type OnProgress = (done: number) => void;

export function packPages(items: readonly Size[], options: PageOptions, onProgress: OnProgress = () => {}): Packed {
  const { maxPx, paddingPx } = options;
  const tooLarge = items.flatMap((item, k) => (item.w > maxPx || item.h > maxPx ? [k] : []));
  if (tooLarge.length > 0) return { kind: "too-large", items: tooLarge };
  // Padding goes to the right and below each item, and the page is that much larger while packing: none at the page's edge.
  const padded = items.map(({ w, h }) => ({ w: w + paddingPx, h: h + paddingPx }));
  const pages: Size[] = [];
  const places: Place[] = new Array(items.length);
  let rest = items.map((_, k) => k);
  while (rest.length > 0) {
    const inner = rest.map((k) => padded[k] as Size);
    const { layout, size } = onePage(inner, options, (done) =>
      onProgress((items.length - rest.length + done * rest.length) / items.length),
    );
    layout.places.forEach((place, k) => {
      if (place) places[rest[k] as number] = { page: pages.length, ...place };
    });
    pages.push(size);
    rest = rest.filter((_, k) => layout.places[k] === null);
  }
  return { kind: "placed", pages, places };
}

interface Page {
  readonly layout: BinLayout;
  /** Without the padding beyond its edge. */
  readonly size: Size;
}

/** The smallest page found that takes all items, else the fullest of the greatest size. */
function onePage(items: readonly Size[], options: PageOptions, onProgress: OnProgress): Page {
  const area = items.reduce((sum, { w, h }) => sum + w * h, 0);
  const most = options.maxPx + options.paddingPx;
  const orders = sortings(items);
  if (area <= most * most) {
    const whole = options.powerOfTwo
      ? smallestPowerOfTwo(items, orders, area, options, onProgress)
      : smallestFree(items, orders, area, options, onProgress);
    if (whole) return whole;
  }
  return fullest(items, orders, options);
}

/** Page widths are tried around the square root of the area; the height is whatever comes out. */
function smallestFree(
  items: readonly Size[],
  orders: readonly number[][],
  area: number,
  options: PageOptions,
  onProgress: OnProgress,
): Page | null {
  const most = options.maxPx + options.paddingPx;
  const widest = items.reduce((w, item) => Math.max(w, options.turn ? Math.min(item.w, item.h) : item.w), 0);
  const tries = triesFor(items.length, options.effort);
  const widths = widthsToTry(Math.sqrt(area), widest, most, Math.ceil(tries / orders.length));
  const pad = options.paddingPx;
  let best: Page | null = null;
  let done = 0;
  for (const w of widths)
    for (const order of orders) {
      // Only a layout that ends above what is best so far is worth finishing.
      const h = best ? Math.min(most, Math.floor(((best.size.w + pad) * (best.size.h + pad)) / w) + pad) : most;
      const layout = fillBin({ w, h }, items, order, "lowest", options.turn, true);
      onProgress(++done / (widths.length * orders.length));
      if (layout.placed < items.length) continue;
      const size = { w: layout.usedW - pad, h: layout.usedH - pad };
      if (!best || isBetter(size, best.size)) best = { layout, size };
    }
  return best;
}

/** Less area; among equals the one nearer to a square. */
function isBetter(a: Size, b: Size): boolean {
  const byArea = a.w * a.h - b.w * b.h;
  return byArea < 0 || (byArea === 0 && Math.max(a.w, a.h) < Math.max(b.w, b.h));
}

/** Pages of 2^a × 2^b, by area, wide before tall, until one takes everything. */
function smallestPowerOfTwo(
  items: readonly Size[],
  orders: readonly number[][],
  area: number,
  options: PageOptions,
  onProgress: OnProgress,
): Page | null {
  const sides: number[] = [];
  for (let side = 1; side <= options.maxPx; side *= 2) sides.push(side);
  const sizes = sides.flatMap((w) => sides.map((h) => ({ w, h }))).filter(({ w, h }) => Math.max(w, h) <= 4 * Math.min(w, h));
  sizes.sort((a, b) => a.w * a.h - b.w * b.h || Math.max(a.w, a.h) - Math.max(b.w, b.h) || b.w - a.w);
  const pad = options.paddingPx;
  const possible = sizes.filter(({ w, h }) => (w + pad) * (h + pad) >= area);
  for (const [k, size] of possible.entries()) {
    onProgress(k / possible.length);
    for (const rule of RULES)
      for (const order of orders) {
        const layout = fillBin({ w: size.w + pad, h: size.h + pad }, items, order, rule, options.turn, true);
        if (layout.placed === items.length) return { layout, size };
      }
  }
  return null;
}

const RULES: readonly PlacingRule[] = ["lowest", "snug"];

/** Fills one page of the greatest size; the layout with the most area wins, the earliest among equals. */
function fullest(items: readonly Size[], orders: readonly number[][], options: PageOptions): Page {
  const side = options.powerOfTwo ? 2 ** Math.floor(Math.log2(options.maxPx)) : options.maxPx;
  const bin = { w: side + options.paddingPx, h: side + options.paddingPx };
  let best: BinLayout | null = null;
  for (const rule of RULES)
    for (const order of orders) {
      const layout = fillBin(bin, items, order, rule, options.turn);
      if (!best || layout.area > best.area) best = layout;
    }
  const layout = best as BinLayout;
  const size = options.powerOfTwo ? { w: side, h: side } : { w: layout.usedW - options.paddingPx, h: layout.usedH - options.paddingPx };
  return { layout, size };
}

/** Orders that place big things first, each deterministic: ties go by the other side, then by index. */
function sortings(items: readonly Size[]): number[][] {
  const by = (first: (item: Size) => number, second: (item: Size) => number) =>
    items
      .map((_, k) => k)
      .sort((a, b) => first(items[b] as Size) - first(items[a] as Size) || second(items[b] as Size) - second(items[a] as Size) || a - b);
  return [
    by(
      ({ h }) => h,
      ({ w }) => w,
    ),
    by(
      ({ w, h }) => w * h,
      ({ h }) => h,
    ),
    by(
      ({ w, h }) => Math.max(w, h),
      ({ w, h }) => Math.min(w, h),
    ),
  ];
}

/** Layouts to try: as many as a second or so allows, counted in items so that it is the same everywhere. */
function triesFor(count: number, effort: PageOptions["effort"]): number {
  const most = effort === "high" ? 800 : 200;
  const work = effort === "high" ? 500_000 : 80_000;
  return Math.max(6, Math.min(most, Math.floor(work / count)));
}

/** `count` widths from 0.75 to 1.6 of `around`, the middle one first, each at least `least` and at most `most`. */
function widthsToTry(around: number, least: number, most: number, count: number): number[] {
  const widths = new Set<number>();
  for (let k = 0; k < count; k++) {
    const share = count === 1 ? 0.3 : k / (count - 1);
    widths.add(Math.min(most, Math.max(least, Math.ceil(around * (0.75 + share * 0.85)))));
  }
  return [...widths];
}
