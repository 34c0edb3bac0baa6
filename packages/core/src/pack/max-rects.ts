/**
 * Places rectangles in one bin by keeping the list of all maximal free rectangles.
 *
 * Each item goes into the free rectangle that the rule likes best; every free rectangle that it cuts is replaced by the up
 * to four maximal ones around it, and those inside another are dropped. After J. Jylänki, "A Thousand Ways to Pack the Bin",
 * 2010, section 2.4 (maximal rectangles); the rules are its bottom-left and best-short-side-fit.
 * Units: whole pixels, y down. Holds: placed items lie in the bin and do not overlap; equal input, equal placement.
 * Cost: O(n · f) time for n items and f free rectangles, f² at worst where items cut very many free ones.
 */
import type { Size } from "../model";

/** `lowest` keeps the used height small, as in a strip; `snug` leaves the narrowest gap beside each item. */
export type PlacingRule = "lowest" | "snug";

export interface BinPlace {
  readonly x: number;
  readonly y: number;
  /** Stored turned by 90° clockwise. */
  readonly turned: boolean;
}

export interface BinLayout {
  /** One per item of the order, null where it did not fit. */
  readonly places: readonly (BinPlace | null)[];
  /** How many were placed, and the sum of their areas. */
  readonly placed: number;
  readonly area: number;
  /** Right and bottom edge of what was placed. */
  readonly usedW: number;
  readonly usedH: number;
}

/**
 * Places `items[k]` for each k of `order` in turn; items that do not fit any more are left out. With `allOrNothing` it gives
 * up at the first that does not fit, since then the layout is of no use.
 */
export function fillBin(
  bin: Size,
  items: readonly Size[],
  order: readonly number[],
  rule: PlacingRule,
  mayTurn: boolean,
  allOrNothing = false,
): BinLayout {
  const free = new FreeRects(bin);
  const least = leastSides(items, order, mayTurn);
  const places: (BinPlace | null)[] = new Array(items.length).fill(null);
  const total = { placed: 0, area: 0, usedW: 0, usedH: 0 };
  for (let k = 0; k < order.length; k++) {
    const index = order[k] as number;
    const { w, h } = items[index] as Size;
    const place = free.best(w, h, rule, mayTurn);
    if (!place) {
      if (allOrNothing) break;
      continue;
    }
    const right = place.x + (place.turned ? h : w);
    const bottom = place.y + (place.turned ? w : h);
    free.take(place.x, place.y, right, bottom, least.w[k + 1] as number, least.h[k + 1] as number);
    places[index] = place;
    total.placed++;
    total.area += w * h;
    total.usedW = Math.max(total.usedW, right);
    total.usedH = Math.max(total.usedH, bottom);
  }
  return { places, ...total };
}

/** The narrowest and the lowest of the items from each place of the order on: no free rectangle below that is of use. */
function leastSides(items: readonly Size[], order: readonly number[], mayTurn: boolean): { w: Int32Array; h: Int32Array } {
  const w = new Int32Array(order.length + 1).fill(0x7fffffff);
  const h = new Int32Array(order.length + 1).fill(0x7fffffff);
  for (let k = order.length - 1; k >= 0; k--) {
    const item = items[order[k] as number] as Size;
    const shorter = Math.min(item.w, item.h);
    w[k] = Math.min(w[k + 1] as number, mayTurn ? shorter : item.w);
    h[k] = Math.min(h[k + 1] as number, mayTurn ? shorter : item.h);
  }
  return { w, h };
}

/** The maximal free rectangles as columns of numbers: four times as fast to walk as a list of objects. */
class FreeRects {
  private x = new Int32Array(256);
  private y = new Int32Array(256);
  private right = new Int32Array(256);
  private bottom = new Int32Array(256);
  private count = 1;

  constructor({ w, h }: Size) {
    this.right[0] = w;
    this.bottom[0] = h;
  }

  /** The place with the lowest first, then second cost; the earliest free rectangle among equals, upright before turned. */
  best(w: number, h: number, rule: PlacingRule, mayTurn: boolean): BinPlace | null {
    const { x, y, right, bottom, count } = this;
    let found = -1;
    let turned = false;
    let bestFirst = Number.POSITIVE_INFINITY;
    let bestSecond = Number.POSITIVE_INFINITY;
    const ways = mayTurn && w !== h ? 2 : 1;
    for (let k = 0; k < count; k++)
      for (let way = 0; way < ways; way++) {
        const across = way === 0 ? w : h;
        const down = way === 0 ? h : w;
        const gapX = (right[k] as number) - (x[k] as number) - across;
        const gapY = (bottom[k] as number) - (y[k] as number) - down;
        if (gapX < 0 || gapY < 0) continue;
        const first = rule === "lowest" ? (y[k] as number) + down : Math.min(gapX, gapY);
        if (first > bestFirst) continue;
        const second = rule === "lowest" ? gapX : Math.max(gapX, gapY);
        if (first === bestFirst && second >= bestSecond) continue;
        found = k;
        turned = way === 1;
        bestFirst = first;
        bestSecond = second;
      }
    return found < 0 ? null : { x: x[found] as number, y: y[found] as number, turned };
  }

  /** Takes the rectangle out of what is free. What is narrower or lower than the sides given is forgotten as well. */
  take(left: number, top: number, right: number, bottom: number, leastW: number, leastH: number): void {
    const parts: number[] = [];
    const add = (x: number, y: number, r: number, b: number) => {
      if (r - x >= leastW && b - y >= leastH) parts.push(x, y, r, b);
    };
    let kept = 0;
    for (let k = 0; k < this.count; k++) {
      const x = this.x[k] as number;
      const y = this.y[k] as number;
      const r = this.right[k] as number;
      const b = this.bottom[k] as number;
      if (x >= right || r <= left || y >= bottom || b <= top) {
        if (r - x >= leastW && b - y >= leastH) this.set(kept++, x, y, r, b);
        continue;
      }
      if (left > x) add(x, y, left, b);
      if (right < r) add(right, y, r, b);
      if (top > y) add(x, y, r, top);
      if (bottom < b) add(x, bottom, r, b);
    }
    // A whole one was maximal before and stays so; only the new parts can lie inside something.
    this.count = kept;
    for (let k = 0; k < parts.length; k += 4) {
      const [x, y, r, b] = [parts[k], parts[k + 1], parts[k + 2], parts[k + 3]] as [number, number, number, number];
      if (!this.holds(x, y, r, b, kept) && !isInsideAnother(parts, k)) this.set(this.count++, x, y, r, b);
    }
  }

  private set(k: number, x: number, y: number, right: number, bottom: number): void {
    if (k >= this.x.length) this.grow();
    this.x[k] = x;
    this.y[k] = y;
    this.right[k] = right;
    this.bottom[k] = bottom;
  }

  private grow(): void {
    const longer = (column: Int32Array<ArrayBuffer>) => {
      const next = new Int32Array(column.length * 2);
      next.set(column);
      return next;
    };
    this.x = longer(this.x);
    this.y = longer(this.y);
    this.right = longer(this.right);
    this.bottom = longer(this.bottom);
  }

  /** Whether one of the first `among` rectangles holds this one. */
  private holds(x: number, y: number, right: number, bottom: number, among: number): boolean {
    for (let k = 0; k < among; k++)
      if (
        (this.x[k] as number) <= x &&
        (this.y[k] as number) <= y &&
        (this.right[k] as number) >= right &&
        (this.bottom[k] as number) >= bottom
      )
        return true;
    return false;
  }
}

/** Whether the part at k lies in another part; of two equal ones the later does. */
function isInsideAnother(parts: readonly number[], k: number): boolean {
  const [x, y, right, bottom] = [parts[k], parts[k + 1], parts[k + 2], parts[k + 3]] as [number, number, number, number];
  for (let j = 0; j < parts.length; j += 4) {
    if (j === k) continue;
    const [ox, oy, oright, obottom] = [parts[j], parts[j + 1], parts[j + 2], parts[j + 3]] as [number, number, number, number];
    if (ox > x || oy > y || oright < right || obottom < bottom) continue;
    const equal = ox === x && oy === y && oright === right && obottom === bottom;
    if (!equal || j < k) return true;
  }
  return false;
}
