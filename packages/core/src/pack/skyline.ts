/**
 * Fills a page from the top down along its skyline: the lowest gap is always filled next, by the item that fits it best.
 *
 * Best is an item exactly as wide as the gap that ends level with a neighbour; then one as wide; then one that ends level; then the first
 * by rank. After the best-fit idea of E. K. Burke, G. Kendall and G. Whitwell, "A New Placement Heuristic for the Orthogonal Stock-Cutting
 * Problem", 2004, with the order of fits of S. C. H. Leung and D. Zhang, "A fast layer-based heuristic for non-guillotine strip packing",
 * 2011; the thresholds for narrow gaps are measured (bench/packing.ts). Units: whole pixels, y down. Holds: placed items lie in the page
 * and do not overlap; equal input, equal placement. Cost: O(n · (s + log n)) for n items and s segments of the skyline.
 */
import type { Size } from "../model";
import { Remaining } from "./remaining";

/** How narrow gaps are treated; both in mean widths of the remaining items. */
export interface Taste {
  /** A gap narrower than this gets the widest item that fits, a wider one the first by rank. */
  readonly narrow: number;
  /** An item that only ends level must leave at least this fraction of the gap. */
  readonly spare: number;
}

const WALL = 0x3fffffff; // px: the page's sides

export class Skyline {
  readonly ways: Remaining;
  /** Where each item is, and whether it is turned; x is -1 if it found no place. */
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly turned: Uint8Array;
  /** Right and bottom edge of the placed items, their area and their number. */
  usedW = 0;
  usedH = 0;
  area = 0;
  placed = 0;
  private readonly left: Int32Array;
  private readonly top: Int32Array;
  private segments = 0;
  private readonly itemCount: number;

  constructor(items: readonly Size[], mayTurn: boolean) {
    this.itemCount = items.length;
    this.ways = new Remaining(items, mayTurn);
    this.x = new Int32Array(items.length);
    this.y = new Int32Array(items.length);
    this.turned = new Uint8Array(items.length);
    this.left = new Int32Array(items.length * 2 + 4);
    this.top = new Int32Array(items.length * 2 + 4);
  }

  /**
   * Places all orientations in order of rank into `width` × `height`. With `whole` it stops at the first item without a place; otherwise it
   * leaves that out. Returns whether all were placed.
   */
  fill(width: number, height: number, order: Int32Array, taste: Taste, whole: boolean): boolean {
    const { ways, x, left, top } = this;
    ways.begin(order);
    if (!whole) x.fill(-1);
    left[0] = 0;
    top[0] = 0;
    left[1] = width;
    this.segments = 1;
    this.usedW = 0;
    this.usedH = 0;
    this.area = 0;
    this.placed = 0;
    while (ways.left > 0) {
      const k = this.lowest();
      const y = top[k] as number;
      const gap = (left[k + 1] as number) - (left[k] as number);
      const wallLeft = k > 0 ? (top[k - 1] as number) - y : WALL;
      const wallRight = k + 1 < this.segments ? (top[k + 1] as number) - y : WALL;
      const choice = ways.least <= gap ? this.choose(gap, wallLeft, wallRight, taste) : -1;
      if (choice < 0) {
        // Nothing is narrow enough: the gap is closed up to its lower wall, or nothing fits the page at all.
        if (this.segments === 1) return false;
        this.raise(k, Math.min(wallLeft, wallRight));
        continue;
      }
      if (y + (ways.h[choice] as number) > height) {
        // The lowest gap is too low for it, so every other one is.
        if (whole) return false;
        const other = ways.mate[choice] as number;
        if (other !== choice && y + (ways.h[other] as number) <= height) ways.takeOnly(choice);
        else ways.take(choice);
        continue;
      }
      ways.take(choice);
      this.place(k, choice, gap, wallLeft, wallRight);
    }
    return this.placed === this.itemCount;
  }

  /** The leftmost of the lowest segments. */
  private lowest(): number {
    const { top, segments } = this;
    let found = 0;
    let least = top[0] as number;
    for (let k = 1; k < segments; k++)
      if ((top[k] as number) < least) {
        least = top[k] as number;
        found = k;
      }
    return found;
  }

  /** The way up that fits the gap best. Something fits. */
  private choose(gap: number, wallLeft: number, wallRight: number, { narrow, spare }: Taste): number {
    const { ways } = this;
    const exact = ways.firstOfWidth(gap);
    if (exact >= 0) {
      const lower = Math.min(wallLeft, wallRight);
      let below = -1;
      for (let way = exact; way >= 0; way = ways.nextOfWidth(way)) {
        const h = ways.h[way] as number;
        if (h === wallLeft || h === wallRight) return way;
        if (below < 0 && h < lower) below = way;
      }
      return below >= 0 ? below : exact;
    }
    const mean = ways.sumW / ways.left;
    const most = gap - Math.max(1, spare * mean);
    for (let way = ways.firstOfHeight(wallLeft); way >= 0; way = ways.nextOfHeight(way)) if ((ways.w[way] as number) <= most) return way;
    for (let way = ways.firstOfHeight(wallRight); way >= 0; way = ways.nextOfHeight(way)) if ((ways.w[way] as number) <= most) return way;
    return gap < narrow * mean ? ways.widestWithin(gap) : ways.firstWithin(gap);
  }

  /** Places it in the gap of segment k: at the right if it ends level there, otherwise at the left. */
  private place(k: number, way: number, gap: number, wallLeft: number, wallRight: number): void {
    const { ways, left, top } = this;
    const w = ways.w[way] as number;
    const h = ways.h[way] as number;
    const bottom = (top[k] as number) + h;
    const toRight = w < gap && h === wallRight && h !== wallLeft;
    const from = toRight ? (left[k + 1] as number) - w : (left[k] as number);
    const item = ways.item[way] as number;
    this.x[item] = from;
    this.y[item] = top[k] as number;
    this.turned[item] = way === item ? 0 : 1;
    this.placed++;
    this.area += w * h;
    if (bottom > this.usedH) this.usedH = bottom;
    if (from + w > this.usedW) this.usedW = from + w;
    if (w === gap) this.raise(k, h);
    else if (toRight) left[k + 1] = from;
    else if (h === wallLeft) left[k] = from + w;
    else {
      this.insert(k);
      top[k] = bottom;
      left[k + 1] = from + w;
    }
  }

  /** Lowers all of segment k by `by` and merges it with neighbours that are then level. */
  private raise(k: number, by: number): void {
    const { top } = this;
    const now = (top[k] as number) + by;
    top[k] = now;
    if (k + 1 < this.segments && top[k + 1] === now) this.remove(k + 1);
    if (k > 0 && top[k - 1] === now) this.remove(k);
  }

  /** Doubles segment k. */
  private insert(k: number): void {
    const { left, top } = this;
    for (let j = this.segments; j >= k; j--) {
      left[j + 1] = left[j] as number;
      top[j + 1] = top[j] as number;
    }
    this.segments++;
  }

  /** Removes segment k; the previous one extends over it. */
  private remove(k: number): void {
    const { left, top, segments } = this;
    for (let j = k; j < segments; j++) {
      left[j] = left[j + 1] as number;
      top[j] = top[j + 1] as number;
    }
    this.segments--;
  }
}
