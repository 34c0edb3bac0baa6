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

interface Free {
  x: number;
  y: number;
  right: number;
  bottom: number;
}

/** Places `items[k]` for each k of `order` in turn; items that do not fit any more are left out. */
export function fillBin(bin: Size, items: readonly Size[], order: readonly number[], rule: PlacingRule, mayTurn: boolean): BinLayout {
  let free: Free[] = [{ x: 0, y: 0, right: bin.w, bottom: bin.h }];
  const places: (BinPlace | null)[] = new Array(items.length).fill(null);
  const total = { placed: 0, area: 0, usedW: 0, usedH: 0 };
  for (const index of order) {
    const { w, h } = items[index] as Size;
    const place = bestPlace(free, w, h, rule, mayTurn);
    if (!place) continue;
    const taken = { x: place.x, y: place.y, right: place.x + (place.turned ? h : w), bottom: place.y + (place.turned ? w : h) };
    free = without(free, taken);
    places[index] = place;
    total.placed++;
    total.area += w * h;
    total.usedW = Math.max(total.usedW, taken.right);
    total.usedH = Math.max(total.usedH, taken.bottom);
  }
  return { places, ...total };
}

/** The place with the lowest first, then second cost; the earliest free rectangle among equals, upright before turned. */
function bestPlace(free: readonly Free[], w: number, h: number, rule: PlacingRule, mayTurn: boolean): BinPlace | null {
  let best: BinPlace | null = null;
  let bestFirst = Number.POSITIVE_INFINITY;
  let bestSecond = Number.POSITIVE_INFINITY;
  const ways = mayTurn && w !== h ? 2 : 1;
  for (const { x, y, right, bottom } of free)
    for (let way = 0; way < ways; way++) {
      const across = way === 0 ? w : h;
      const down = way === 0 ? h : w;
      const gapX = right - x - across;
      const gapY = bottom - y - down;
      if (gapX < 0 || gapY < 0) continue;
      const first = rule === "lowest" ? y + down : Math.min(gapX, gapY);
      const second = rule === "lowest" ? gapX : Math.max(gapX, gapY);
      if (first < bestFirst || (first === bestFirst && second < bestSecond)) {
        best = { x, y, turned: way === 1 };
        bestFirst = first;
        bestSecond = second;
      }
    }
  return best;
}

/** The maximal free rectangles once `taken` is no longer free. */
function without(free: readonly Free[], taken: Free): Free[] {
  const whole: Free[] = [];
  const parts: Free[] = [];
  for (const each of free) {
    if (each.x >= taken.right || each.right <= taken.x || each.y >= taken.bottom || each.bottom <= taken.y) {
      whole.push(each);
      continue;
    }
    if (taken.x > each.x) parts.push({ ...each, right: taken.x });
    if (taken.right < each.right) parts.push({ ...each, x: taken.right });
    if (taken.y > each.y) parts.push({ ...each, bottom: taken.y });
    if (taken.bottom < each.bottom) parts.push({ ...each, y: taken.bottom });
  }
  // A whole one was maximal before and stays so; only the new parts can lie inside something.
  const kept = parts.filter(
    (part, k) =>
      !whole.some((other) => holds(other, part)) &&
      !parts.some((other, j) => j !== k && holds(other, part) && (j < k || !holds(part, other))),
  );
  return whole.concat(kept);
}

function holds(outer: Free, inner: Free): boolean {
  return outer.x <= inner.x && outer.y <= inner.y && outer.right >= inner.right && outer.bottom >= inner.bottom;
}
