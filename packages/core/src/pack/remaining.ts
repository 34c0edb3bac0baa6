/**
 * Keeps the items still to place, searchable by width, by height or by rank.
 *
 * An item that may be turned is listed twice, once for each orientation; taking one takes both. All lists are sorted by rank, and nothing
 * is allocated after construction, because a search restarts it thousands of times. Units: whole pixels. Cost: restart O(n); taking and
 * finding O(log n), except for runs of items with equal width or height.
 */
import type { Size } from "../model";

const NEVER = 0x3fffffff;

export class Remaining {
  /** Of each way up: its width and height, the item that it is, and the same item's other way up, itself if there is none. */
  readonly w: Int32Array;
  readonly h: Int32Array;
  readonly item: Int32Array;
  readonly mate: Int32Array;
  readonly count: number;
  /** Ways up that are left, and the sum of their widths. */
  left = 0;
  sumW = 0;
  private readonly widths: Int32Array;
  /** The index in `widths` of the greatest width for a gap, by the gap's width. */
  private readonly floorOf: Int32Array;
  /** The place of a height among the distinct ones, -1 if no item has it. */
  private readonly placeOfHeight: Int32Array;
  private readonly byWidth: Chains;
  private readonly byHeight: Chains;
  /** For each width the next narrower one with items left. */
  private readonly narrower: Int32Array;
  /** The least width of each part of the ranks: the root at 1, the ranks from `ranks` on. */
  private readonly tree: Int32Array;
  private readonly ranks: number;
  private readonly rankOf: Int32Array;
  private readonly gone: Uint8Array;
  private order: Int32Array = new Int32Array(0);

  constructor(items: readonly Size[], mayTurn: boolean) {
    const turned = mayTurn ? items.flatMap(({ w, h }, k) => (w === h ? [] : [k])) : [];
    const ways = [...items.keys(), ...turned];
    this.count = ways.length;
    this.item = Int32Array.from(ways);
    this.w = Int32Array.from(ways, (k, way) => (way < items.length ? (items[k] as Size).w : (items[k] as Size).h));
    this.h = Int32Array.from(ways, (k, way) => (way < items.length ? (items[k] as Size).h : (items[k] as Size).w));
    this.mate = Int32Array.from(ways.keys());
    turned.forEach((k, index) => {
      this.mate[k] = items.length + index;
      this.mate[items.length + index] = k;
    });
    this.widths = distinct(this.w);
    const heights = distinct(this.h);
    const widest = this.widths.at(-1) ?? 0;
    this.floorOf = new Int32Array(widest + 1).fill(-1);
    for (let gap = 0, place = -1; gap <= widest; gap++) {
      while (place + 1 < this.widths.length && (this.widths[place + 1] as number) <= gap) place++;
      this.floorOf[gap] = place;
    }
    this.placeOfHeight = new Int32Array((heights.at(-1) ?? 0) + 1).fill(-1);
    heights.forEach((height, place) => {
      this.placeOfHeight[height] = place;
    });
    this.byWidth = new Chains(
      this.w.map((w) => this.floorOf[w] as number),
      this.widths.length,
    );
    this.byHeight = new Chains(
      this.h.map((h) => this.placeOfHeight[h] as number),
      heights.length,
    );
    this.narrower = new Int32Array(this.widths.length);
    let ranks = 1;
    while (ranks < this.count) ranks *= 2;
    this.ranks = ranks;
    this.tree = new Int32Array(ranks * 2);
    this.rankOf = new Int32Array(this.count);
    this.gone = new Uint8Array(this.count);
  }

  /** Restarts with all items; `order` lists every orientation by rank, preferred ones first. */
  begin(order: Int32Array): void {
    const { tree, ranks, w } = this;
    this.order = order;
    this.left = this.count;
    this.sumW = 0;
    this.byWidth.clear();
    this.byHeight.clear();
    this.gone.fill(0);
    for (let place = 0; place < this.narrower.length; place++) this.narrower[place] = place;
    tree.fill(NEVER, ranks);
    for (let rank = this.count - 1; rank >= 0; rank--) {
      const way = order[rank] as number;
      this.rankOf[way] = rank;
      this.byWidth.push(way);
      this.byHeight.push(way);
      tree[ranks + rank] = w[way] as number;
      this.sumW += w[way] as number;
    }
    for (let k = ranks - 1; k > 0; k--) tree[k] = Math.min(tree[2 * k] as number, tree[2 * k + 1] as number);
  }

  /** The least width that is left; very large if nothing is. */
  get least(): number {
    return this.tree[1] as number;
  }

  /** Takes an orientation and its counterpart. */
  take(way: number): void {
    this.drop(way);
    const other = this.mate[way] as number;
    if (this.gone[other] === 0) this.drop(other);
  }

  /** Takes one orientation only: the item may still be placed the other way. */
  takeOnly(way: number): void {
    this.drop(way);
  }

  /** The first by rank that is exactly so wide, -1 if none; walk on with `nextOfWidth`. */
  firstOfWidth(gap: number): number {
    if (gap >= this.floorOf.length) return -1;
    const place = this.floorOf[gap] as number;
    return this.widths[place] === gap ? this.byWidth.first(place) : -1;
  }

  nextOfWidth(way: number): number {
    return this.byWidth.next(way);
  }

  firstOfHeight(height: number): number {
    if (height >= this.placeOfHeight.length) return -1;
    const place = this.placeOfHeight[height] as number;
    return place < 0 ? -1 : this.byHeight.first(place);
  }

  nextOfHeight(way: number): number {
    return this.byHeight.next(way);
  }

  /** The first by rank that fits the gap, or -1. */
  firstWithin(gap: number): number {
    const { tree, ranks } = this;
    if ((tree[1] as number) > gap) return -1;
    let k = 1;
    while (k < ranks) k = (tree[2 * k] as number) <= gap ? 2 * k : 2 * k + 1;
    return this.order[k - ranks] as number;
  }

  /** The first by rank among the widest that fit the gap, or -1. */
  widestWithin(gap: number): number {
    const { narrower } = this;
    const from = this.floorOf[Math.min(gap, this.floorOf.length - 1)] as number;
    let found = from;
    while (found >= 0 && narrower[found] !== found) found = narrower[found] as number;
    // What was walked over is empty for good: the next walk leaps it.
    for (let place = from; place > found; ) {
      const next = narrower[place] as number;
      narrower[place] = found;
      place = next;
    }
    return found < 0 ? -1 : this.byWidth.first(found);
  }

  private drop(way: number): void {
    this.gone[way] = 1;
    this.left--;
    this.sumW -= this.w[way] as number;
    const emptied = this.byWidth.drop(way);
    if (emptied >= 0) this.narrower[emptied] = emptied - 1;
    this.byHeight.drop(way);
    const { tree } = this;
    let k = this.ranks + (this.rankOf[way] as number);
    tree[k] = NEVER;
    for (k >>= 1; k > 0; k >>= 1) {
      const least = Math.min(tree[2 * k] as number, tree[2 * k + 1] as number);
      if (tree[k] === least) break;
      tree[k] = least;
    }
  }
}

/** Doubly linked lists, one for each kind. */
class Chains {
  private readonly heads: Int32Array;
  private readonly after: Int32Array;
  private readonly before: Int32Array;

  constructor(
    private readonly kindOf: Int32Array,
    kinds: number,
  ) {
    this.heads = new Int32Array(kinds);
    this.after = new Int32Array(kindOf.length);
    this.before = new Int32Array(kindOf.length);
  }

  clear(): void {
    this.heads.fill(-1);
  }

  /** Puts it in front of its kind's list. */
  push(way: number): void {
    const kind = this.kindOf[way] as number;
    const old = this.heads[kind] as number;
    this.after[way] = old;
    this.before[way] = -1;
    if (old >= 0) this.before[old] = way;
    this.heads[kind] = way;
  }

  first(kind: number): number {
    return this.heads[kind] as number;
  }

  next(way: number): number {
    return this.after[way] as number;
  }

  /** Removes it; returns its kind if that was the last one, otherwise -1. */
  drop(way: number): number {
    const before = this.before[way] as number;
    const after = this.after[way] as number;
    if (after >= 0) this.before[after] = before;
    if (before >= 0) {
      this.after[before] = after;
      return -1;
    }
    const kind = this.kindOf[way] as number;
    this.heads[kind] = after;
    return after < 0 ? kind : -1;
  }
}

function distinct(values: Int32Array): Int32Array {
  return Int32Array.from(new Set(values)).sort();
}
