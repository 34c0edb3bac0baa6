/**
 * Searches for the smallest page for all items: first many widths, orders and preferences, then improvements of the best by swapping ranks,
 * as in the randomised local search of S. Yang, S. Han and W. Ye, "A simple randomized algorithm for two-dimensional strip packing", 2013.
 * The random sequence is fixed and the budget counts placed items, so that equal input gives equal output on every machine. Units: whole
 * pixels. Sizes are those of items with their padding, like the page's.
 */
import type { Size } from "../model";
import { chance, exchange, type Layout, layoutOf, ordersOf, TASTES } from "./search-parts";
import { Skyline, type Taste } from "./skyline";

export interface SearchOptions {
  /** Greatest sides of the page. */
  readonly mostW: number;
  readonly mostH: number;
  readonly mayTurn: boolean;
  /** Whether the page is square: then its longer side counts. */
  readonly square: boolean;
  /** Items placed in all, before the search ends: see `workFor`. */
  readonly work: number;
}

/** Widths that are tried, in square roots of the area: pages up to four times as wide as high, or the other way round. */
const LEAST_SHARE = 0.5;
const MOST_SHARE = 2;

/** The number of runs improved side by side at first, and the budget's fraction for the first tries. */
const RUNS = 16;
const FIRST_SHARE = 0.35;

interface Run {
  readonly taste: Taste;
  readonly order: Int32Array;
  width: number;
  height: number;
  cost: number;
}

/** The smallest page found, null if none holds everything. `onProgress` receives the fraction done, 0 to 1. */
export function smallestPage(items: readonly Size[], options: SearchOptions, onProgress: (done: number) => void = () => {}): Layout | null {
  const search = new Search(items, options, onProgress);
  search.tryWidths();
  search.improve();
  onProgress(1);
  return search.best;
}

class Search {
  best: Layout | null = null;
  private bestCost = Number.POSITIVE_INFINITY;
  private readonly skyline: Skyline;
  private readonly area: number;
  private readonly random = chance(0x5a17);
  private readonly runs: Run[] = [];
  private worked = 0;
  private told = 0;

  constructor(
    private readonly items: readonly Size[],
    private readonly options: SearchOptions,
    private readonly onProgress: (done: number) => void,
  ) {
    this.skyline = new Skyline(items, options.mayTurn);
    this.area = items.reduce((sum, { w, h }) => sum + w * h, 0);
  }

  /** Every preference and order at widths around the square root of the area, with any resulting height. */
  tryWidths(): void {
    const { mostW, mostH, mayTurn, square } = this.options;
    const { ways } = this.skyline;
    const orders = ordersOf(ways.w, ways.h);
    const widest = this.items.reduce((most, { w, h }) => Math.max(most, mayTurn ? Math.min(w, h) : w), 1);
    const root = Math.sqrt(this.area);
    const least = Math.max(widest, Math.ceil(this.area / mostH), Math.ceil(root * (square ? 0.98 : LEAST_SHARE)));
    const most = Math.max(least, Math.min(mostW, Math.ceil(root * (square ? 1.12 : MOST_SHARE))));
    if (least > mostW) return;
    const each = TASTES.length * orders.length * ways.count;
    const steps = Math.max(2, Math.min(most - least + 1, Math.floor((this.options.work * FIRST_SHARE) / each)));
    // The square page first: if it is perfect, nothing else is tried.
    const nearSquare = Math.max(least, Math.min(most, Math.ceil(root)));
    for (const width of [nearSquare, ...spread(steps).map((step) => least + Math.round((most - least) * step))]) {
      for (const taste of TASTES)
        for (const order of orders) {
          if (this.isPerfect()) return;
          this.worked += ways.count;
          if (!this.skyline.fill(width, mostH, order, taste, true)) continue;
          this.keepRun({ taste, order, width, height: this.skyline.usedH, cost: this.note() });
        }
      this.tell();
    }
  }

  /** Exchanges ranks in the best runs for as long as there is work; every so often the worse half of them is given up. */
  improve(): void {
    const { ways } = this.skyline;
    let runs = this.runs.map((run): Run => ({ ...run, order: run.order.slice() }));
    const from = this.worked;
    const round = Math.max(1, Math.floor((this.options.work - from) / 100 / Math.max(1, ways.count * RUNS)));
    while (this.worked < this.options.work && runs.length > 0 && !this.isPerfect()) {
      for (const run of runs) for (let k = 0; k < round; k++) this.exchange(run);
      const done = (this.worked - from) / (this.options.work - from);
      const alive = done > 0.6 ? 1 : done > 0.35 ? 2 : done > 0.15 ? 5 : RUNS;
      if (runs.length > alive) runs = runs.toSorted((a, b) => a.cost - b.cost).slice(0, alive);
      this.tell();
    }
  }

  /** One exchange of two ranks, at times with another width; kept if the page grows no larger. */
  private exchange(run: Run): void {
    const { skyline, random } = this;
    const { order } = run;
    const count = order.length;
    const a = random(count);
    const b = random(count);
    const width = random(16) === 0 ? this.otherWidth(run.width) : run.width;
    const height = width === run.width ? run.height : Math.min(this.options.mostH, Math.floor(run.cost / width));
    exchange(order, a, b);
    this.worked += count;
    if (skyline.fill(width, height, order, run.taste, true)) {
      const cost = this.note();
      if (cost <= run.cost) {
        run.cost = cost;
        run.width = width;
        run.height = skyline.usedH;
        return;
      }
    }
    exchange(order, a, b);
  }

  private otherWidth(width: number): number {
    const other = width + this.random(9) - 4;
    return Math.max(1, Math.min(this.options.mostW, other));
  }

  /** What the skyline's page costs; keeps it if it is the best so far: the smaller, among equals the one nearer to a square. */
  private note(): number {
    const { usedW, usedH } = this.skyline;
    const long = Math.max(usedW, usedH);
    const cost = this.options.square ? long * long : usedW * usedH;
    const { best } = this;
    if (cost < this.bestCost || (best && cost === this.bestCost && long < Math.max(best.usedW, best.usedH))) {
      this.bestCost = cost;
      this.best = layoutOf(this.skyline);
    }
    return cost;
  }

  /** Some of the best so far, at most one of each width, so that they differ. */
  private keepRun(run: Run): void {
    const { runs } = this;
    const same = runs.findIndex(({ width }) => width === run.width);
    if (same >= 0) {
      if (run.cost < (runs[same] as Run).cost) runs[same] = run;
    } else runs.push(run);
    runs.sort((a, b) => a.cost - b.cost);
    if (runs.length > RUNS) runs.length = RUNS;
  }

  private isPerfect(): boolean {
    return this.bestCost <= this.area;
  }

  private tell(): void {
    const done = Math.min(0.99, this.worked / this.options.work);
    if (done - this.told < 0.01) return;
    this.told = done;
    this.onProgress(done);
  }
}

/** `count` fractions from 0 to 1, coarse ones first, so that stopping early covers the whole range. */
function spread(count: number): number[] {
  const taken = new Set<number>();
  const shares: number[] = [];
  for (let stride = 1; shares.length < count; stride *= 2)
    for (let k = 0; k <= stride && shares.length < count; k++) {
      const at = Math.round((k / stride) * (count - 1));
      if (taken.has(at)) continue;
      taken.add(at);
      shares.push(count === 1 ? 0.5 : at / (count - 1));
    }
  return shares;
}
