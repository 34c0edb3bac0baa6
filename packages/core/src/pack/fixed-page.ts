/**
 * Fills a page of a given size as far as a bounded search finds, up to everything.
 *
 * Starts with every preference and order; while something is left out, swaps ranks and keeps improvements. Units: whole pixels; sizes are
 * those of items with their padding, like the page's.
 */
import type { Size } from "../model";
import { chance, exchange, type Layout, layoutOf, ordersOf, TASTES } from "./search-parts";
import { Skyline, type Taste } from "./skyline";

/** The layout that takes everything, or the one with the most area. `work` counts placed items, as elsewhere. */
export function fullestPage(items: readonly Size[], page: Size, mayTurn: boolean, work: number): Layout {
  const skyline = new Skyline(items, mayTurn);
  const orders = ordersOf(skyline.ways.w, skyline.ways.h);
  const random = chance(0x7e11);
  let best: Layout | null = null;
  let bestTaste = TASTES[0] as Taste;
  let bestOrder = orders[0] as Int32Array;
  for (const taste of TASTES)
    for (const order of orders) {
      const whole = skyline.fill(page.w, page.h, order, taste, false);
      if (best && skyline.area <= best.area && !whole) continue;
      best = layoutOf(skyline);
      bestTaste = taste;
      bestOrder = order.slice();
      if (whole) return best;
    }
  const count = skyline.ways.count;
  for (let worked = TASTES.length * orders.length * count; worked < work; worked += count) {
    const a = random(count);
    const b = random(count);
    exchange(bestOrder, a, b);
    const whole = skyline.fill(page.w, page.h, bestOrder, bestTaste, false);
    if (whole) return layoutOf(skyline);
    if (best && skyline.area < best.area) exchange(bestOrder, a, b);
    else best = layoutOf(skyline);
  }
  return best as Layout;
}
