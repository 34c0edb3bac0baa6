/**
 * Packs rectangles into as few and as small pages as a bounded search finds.
 *
 * First tries one page for everything; if none fits, it fills one page of the greatest size as far as possible and continues with the rest.
 * The number of tries depends on the number of items, never on the clock. Units: whole pixels. Holds: every item is placed exactly once, no
 * two are closer than the padding, none leaves its page or enters its border.
 */
import type { Size } from "../model";
import { fullestPage } from "./fixed-page";
import { type Layout, workFor } from "./search-parts";
import { smallestPage } from "./smallest-page";

export interface PageOptions {
  readonly paddingPx: number;
  /** Kept clear along the page's sides. */
  readonly borderPx: number;
  /** Longest side of a page. */
  readonly maxPx: number;
  readonly turn: boolean;
  readonly sides: "free" | "powerOfTwo" | "fixed";
  /** Whether pages are as wide as they are high. */
  readonly square: boolean;
  /** The one size of pages whose sides are fixed. */
  readonly fixed: Size;
  readonly effort: "normal" | "high";
}

export interface Place {
  readonly page: number;
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
}

export type Packed =
  | {
      readonly kind: "placed";
      readonly pages: readonly Size[];
      readonly places: readonly Place[];
      /** Groups that no page can hold whole. */
      readonly split: readonly number[];
    }
  | { readonly kind: "too-large"; readonly items: readonly number[] };

/** Called between tries; `done` runs from 0 to 1. */
export type OnProgress = (done: number) => void;

interface Page {
  readonly layout: Layout;
  readonly size: Size;
}

/**
 * Packs the items. Items with the same number in `groups` share a page if pages are large enough; -1 is no group. Reports progress
 * occasionally.
 */
export function packPages(
  items: readonly Size[],
  options: PageOptions,
  groups: readonly number[] | null = null,
  onProgress: OnProgress = () => {},
): Packed {
  const greatest = greatestPage(options);
  const { paddingPx, borderPx } = options;
  const room = { w: greatest.w - 2 * borderPx, h: greatest.h - 2 * borderPx };
  const fits = ({ w, h }: Size) => (w <= room.w && h <= room.h) || (options.turn && h <= room.w && w <= room.h);
  const tooLarge = items.flatMap((item, k) => (fits(item) ? [] : [k]));
  if (tooLarge.length > 0) return { kind: "too-large", items: tooLarge };
  // Padding is to the right and below each item, and the page is larger by it while packing, so that there is none at the page's edge.
  const padded = items.map(({ w, h }) => ({ w: w + paddingPx, h: h + paddingPx }));
  const pages: Size[] = [];
  const places: Place[] = new Array(items.length);
  const split = new Set<number>();
  let rest = items.map((_, k) => k);
  while (rest.length > 0) {
    const told = (done: number) => onProgress((items.length - rest.length + done * rest.length) / items.length);
    const page = pageFor(rest, padded, options, groups, split, told);
    const left: number[] = [];
    page.of.forEach((k, index) => {
      const x = page.layout.x[index] as number;
      if (x < 0) left.push(k);
      else
        places[k] = {
          page: pages.length,
          x: x + borderPx,
          y: (page.layout.y[index] as number) + borderPx,
          turned: page.layout.turned[index] === 1,
        };
    });
    pages.push(page.size);
    rest = [...left, ...page.later].sort((a, b) => a - b);
  }
  onProgress(1);
  return { kind: "placed", pages, places, split: [...split].sort((a, b) => a - b) };
}

/** The next page of the remaining items: those tried on it, and those left for a later one. */
function pageFor(
  rest: readonly number[],
  padded: readonly Size[],
  options: PageOptions,
  groups: readonly number[] | null,
  split: Set<number>,
  onProgress: OnProgress,
): Page & { readonly of: readonly number[]; readonly later: readonly number[] } {
  const sizes = (of: readonly number[]) => of.map((k) => padded[k] as Size);
  const one = onePage(sizes(rest), options, onProgress);
  if (one) return { ...one, of: rest, later: [] };
  const chosen = groups ? togetherOnAPage(rest, padded, options, groups, split) : rest;
  const whole = chosen.length < rest.length ? onePage(sizes(chosen), options, onProgress) : null;
  const page =
    whole ?? fullest(sizes(chosen), options, chosen.length < rest.length ? QUICK * chosen.length : workFor(chosen.length, options.effort));
  const taken = new Set(chosen);
  return { ...page, of: chosen, later: rest.filter((k) => !taken.has(k)) };
}

/** The smallest page found for all items, null if there is none. */
function onePage(items: readonly Size[], options: PageOptions, onProgress: OnProgress): Page | null {
  const { maxPx, paddingPx, borderPx, turn, square, effort } = options;
  const area = items.reduce((sum, { w, h }) => sum + w * h, 0);
  const more = paddingPx - 2 * borderPx; // what a page has beyond its size while packing
  const most = maxPx + more;
  const work = workFor(items.length, effort);
  if (options.sides !== "free") return smallestOf(items, area, options, work, onProgress);
  if (area > most * most) return null;
  const layout = smallestPage(items, { mostW: most, mostH: most, mayTurn: turn, square, work }, onProgress);
  return layout && { layout, size: pageSize(layout, options) };
}

/** As small as its items allow, if sides are free. */
function pageSize({ usedW, usedH }: Layout, { paddingPx, borderPx, square }: PageOptions): Size {
  const w = usedW - paddingPx + 2 * borderPx;
  const h = usedH - paddingPx + 2 * borderPx;
  return square ? { w: Math.max(w, h), h: Math.max(w, h) } : { w, h };
}

/** The smallest allowed size that holds everything. */
function smallestOf(items: readonly Size[], area: number, options: PageOptions, work: number, onProgress: OnProgress): Page | null {
  const more = options.paddingPx - 2 * options.borderPx;
  const possible = sizesThatMayBe(options).filter(({ w, h }) => w + more > 0 && h + more > 0 && (w + more) * (h + more) >= area);
  for (const [k, size] of possible.entries()) {
    onProgress(k / possible.length);
    const layout = fullestPage(items, { w: size.w + more, h: size.h + more }, options.turn, work / 4);
    if (layout.placed === items.length) return { layout, size };
  }
  return null;
}

/** Pages of 2^a × 2^b, by area, square before long, wide before tall; or the one size that is fixed. */
function sizesThatMayBe({ sides, fixed, maxPx, square }: PageOptions): Size[] {
  if (sides === "fixed") return [fixed];
  const powers: number[] = [];
  for (let side = 1; side <= maxPx; side *= 2) powers.push(side);
  const sizes = powers.flatMap((w) => powers.map((h) => ({ w, h })));
  return sizes
    .filter(({ w, h }) => (square ? w === h : Math.max(w, h) <= 4 * Math.min(w, h)))
    .sort((a, b) => a.w * a.h - b.w * b.h || Math.max(a.w, a.h) - Math.max(b.w, b.h) || b.w - a.w);
}

function greatestPage({ sides, fixed, maxPx }: PageOptions): Size {
  if (sides === "fixed") return fixed;
  const side = sides === "powerOfTwo" ? 2 ** Math.floor(Math.log2(maxPx)) : maxPx;
  return { w: side, h: side };
}

/** One page of the greatest size, as full as a search finds. */
function fullest(items: readonly Size[], options: PageOptions, work: number): Page {
  const greatest = greatestPage(options);
  const more = options.paddingPx - 2 * options.borderPx;
  const layout = fullestPage(items, { w: greatest.w + more, h: greatest.h + more }, options.turn, work);
  return { layout, size: options.sides === "free" ? pageSize(layout, options) : greatest };
}

/**
 * What the next page tries to hold: groups from large to small, as many as fit whole, then single items. A group larger than any page is
 * noted in `split` and fills this page alone as far as possible; the rest of it becomes single items.
 */
function togetherOnAPage(
  rest: readonly number[],
  padded: readonly Size[],
  options: PageOptions,
  groups: readonly number[],
  split: Set<number>,
): readonly number[] {
  const bundles = new Map<number, number[]>();
  const singles: number[] = [];
  for (const k of rest) {
    const group = groups[k] as number;
    if (group < 0 || split.has(group)) singles.push(k);
    else bundles.set(group, [...(bundles.get(group) ?? []), k]);
  }
  const area = (of: readonly number[]) => of.reduce((sum, k) => sum + (padded[k] as Size).w * (padded[k] as Size).h, 0);
  const takes = (of: readonly number[]) => {
    const sizes = [...of].sort((a, b) => a - b).map((k) => padded[k] as Size);
    return fullest(sizes, options, QUICK * of.length).layout.placed === of.length;
  };
  let chosen: number[] = [];
  for (const [group, bundle] of [...bundles].sort((a, b) => area(b[1]) - area(a[1]))) {
    if (takes([...chosen, ...bundle])) chosen = [...chosen, ...bundle];
    else if (chosen.length === 0) {
      split.add(group);
      return bundle;
    }
  }
  if (chosen.length === 0) return rest;
  // As many single items, the large ones first, as fit beside the groups.
  singles.sort((a, b) => area([b]) - area([a]) || a - b);
  let least = 0;
  let most = singles.length;
  while (least < most) {
    const middle = Math.ceil((least + most) / 2);
    if (takes([...chosen, ...singles.slice(0, middle)])) least = middle;
    else most = middle - 1;
  }
  return [...chosen, ...singles.slice(0, least)].sort((a, b) => a - b);
}

/** The number of layouts tried to see whether a page holds some groups. */
const QUICK = 40;
