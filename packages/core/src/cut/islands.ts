/**
 * Finds islands: connected pixels become one frame, and loose bits go to the figure they belong to.
 *
 * Runs of drawn pixels are joined row by row with a union-find over runs (two-pass labelling by runs after He, Chao & Suzuki, "A Run-Based
 * Two-Scan Labeling Algorithm", IEEE Transactions on Image Processing 17(5), 2008). Pixels that touch at a side or a corner are connected.
 * The *gap* of two islands is the number of transparent pixels between their nearest pixels, along the longer direction; islands with a gap
 * of at most `joinPx` are joined.
 *
 * A loose bit (a spark, dust, a thrown blade: much smaller than the figures of its sheet) never joins two figures: it goes to the figure
 * with the shortest path, from bit to bit, each gap at most `joinPx`. A distance that would join all figures of a row applies to bits only.
 *
 * Holds: every drawn pixel lies in exactly one island before `leastPx` removes small ones; each rectangle is the smallest around its
 * pixels. Cost: O(pixels / 32 + runs × joinPx).
 */
import type { Px, Rect } from "../model";
import type { Coverage } from "../raster";
import { rowsOf } from "./rows";

export interface Island {
  readonly rect: Rect;
  /** Drawn pixels. */
  readonly area: number;
}

export interface IslandRecipe {
  /** Islands with at most this many clear pixels between them are one. */
  readonly joinPx: Px;
  /** Islands of fewer drawn pixels are left out. */
  readonly leastPx: number;
}

export interface FoundIslands {
  /** In no particular order; `inReadingOrder` gives them one. */
  readonly islands: Island[];
  /** How many were left out for being smaller than `leastPx`. */
  readonly small: number;
}

export function findIslands(coverage: Coverage, { joinPx, leastPx }: IslandRecipe): FoundIslands {
  const runs = runsOf(coverage);
  const parts = labelled(runs, coverage.height, true);
  const joined = joinPx > 0 ? joinedParts(runs, parts, coverage.height, joinPx) : parts.islands;
  const islands = joined.filter(({ area }) => area >= leastPx);
  return { islands, small: joined.length - islands.length };
}

/** Regions of clear pixels that touch at their sides, in no particular order. Cost: O(pixels / 32 + runs). */
export function clearRegions({ width, height, bits }: Coverage): Island[] {
  const stride = Math.ceil(width / 32);
  const beyond = width % 32 === 0 ? 0 : -1 << (width % 32);
  const clear = bits.map((word, k) => (k % stride === stride - 1 ? ~word & ~beyond : ~word));
  return labelled(runsOf({ width, height, bits: clear }), height, false).islands;
}

/** Runs of drawn pixels, row by row: run k covers `from[k]` ≤ x < `to[k]`; those of row y are `first[y]` ≤ k < `first[y + 1]`. */
interface Runs {
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly first: Int32Array;
}

function runsOf({ width, height, bits }: Coverage): Runs {
  const stride = Math.ceil(width / 32);
  let room = 1024;
  let from = new Int32Array(room);
  let to = new Int32Array(room);
  const first = new Int32Array(height + 1);
  let count = 0;
  for (let y = 0; y < height; y++) {
    first[y] = count;
    let open = false;
    for (let word = 0; word < stride; word++) {
      let rest = bits[y * stride + word] as number;
      // A word that only continues the previous one adds nothing.
      if (open ? rest === 0xffffffff : rest === 0) continue;
      if (count + 18 > room) {
        room *= 2;
        from = grown(from, room);
        to = grown(to, room);
      }
      let at = 0;
      while (at < 32) {
        // Looked for is the next bit unlike the state: a set one while closed, a clear one while open.
        const wanted = (open ? ~rest : rest) & (-1 << at);
        if (wanted === 0) break;
        at = 31 - Math.clz32(wanted & -wanted);
        if (open) to[count++] = word * 32 + at;
        else from[count] = word * 32 + at;
        open = !open;
        rest = bits[y * stride + word] as number;
      }
    }
    if (open) to[count++] = width;
  }
  first[height] = count;
  return { from: from.subarray(0, count), to: to.subarray(0, count), first };
}

function grown(list: Int32Array, room: number): Int32Array<ArrayBuffer> {
  const next = new Int32Array(room);
  next.set(list);
  return next;
}

interface Parts {
  /** The island of each run. */
  readonly of: Int32Array;
  readonly islands: Island[];
}

/** Islands of pixels that touch; whether at a corner counts, too. */
function labelled({ from, to, first }: Runs, height: number, atCorners: boolean): Parts {
  const reach = atCorners ? 0 : 1;
  const parent = new Int32Array(from.length).map((_, k) => k);
  for (let y = 1; y < height; y++) {
    let above = first[y - 1] as number;
    const aboveEnd = first[y] as number;
    for (let run = aboveEnd; run < (first[y + 1] as number); run++) {
      // A run above that ends where this one begins touches it at a corner.
      while (above < aboveEnd && (to[above] as number) < (from[run] as number) + reach) above++;
      for (let other = above; other < aboveEnd && (from[other] as number) <= (to[run] as number) - reach; other++)
        unite(parent, run, other);
    }
  }
  const of = new Int32Array(from.length);
  const boxes: number[][] = [];
  const byRoot = new Int32Array(from.length).fill(-1);
  for (let y = 0; y < height; y++)
    for (let run = first[y] as number; run < (first[y + 1] as number); run++) {
      const root = rootOf(parent, run);
      const left = from[run] as number;
      const right = to[run] as number;
      let island = byRoot[root] as number;
      if (island < 0) {
        island = boxes.length;
        byRoot[root] = island;
        boxes.push([left, y, right, y + 1, 0]);
      }
      of[run] = island;
      const box = boxes[island] as [number, number, number, number, number];
      if (left < box[0]) box[0] = left;
      if (right > box[2]) box[2] = right;
      box[3] = y + 1;
      box[4] += right - left;
    }
  return { of, islands: boxes.map(([x, y, right, bottom, area]) => islandOf(x ?? 0, y ?? 0, right ?? 0, bottom ?? 0, area ?? 0)) };
}

function islandOf(x: number, y: number, right: number, bottom: number, area: number): Island {
  return { rect: { x, y, w: right - x, h: bottom - y }, area };
}

function rootOf(parent: Int32Array, k: number): number {
  let root = k;
  while (parent[root] !== root) {
    parent[root] = parent[parent[root] as number] as number;
    root = parent[root] as number;
  }
  return root;
}

/** The smaller index becomes the root, so that numbering does not depend on the order of unions. */
function unite(parent: Int32Array, a: number, b: number): void {
  const rootA = rootOf(parent, a);
  const rootB = rootOf(parent, b);
  if (rootA < rootB) parent[rootB] = rootA;
  else parent[rootA] = rootB;
}

interface Gap {
  readonly a: number;
  readonly b: number;
  readonly px: Px;
}

function joinedParts(runs: Runs, parts: Parts, height: number, joinPx: Px): Island[] {
  const { islands } = parts;
  const gaps = gapsWithin(runs, parts, height, joinPx);
  const parent = new Int32Array(islands.length).map((_, k) => k);
  const loose = looseBits(islands);
  const between = gaps.filter(({ a, b }) => !loose[a] && !loose[b]);
  if (!swallowsRows(islands, loose, between)) for (const { a, b } of between) unite(parent, a, b);
  // Bits that no figure is near to are joined among themselves.
  const owned = new Uint8Array(islands.length);
  for (const [bit, owner] of ownersOf(gaps, loose)) {
    unite(parent, bit, owner);
    owned[bit] = 1;
  }
  for (const { a, b } of gaps) if (loose[a] && loose[b] && !owned[a] && !owned[b]) unite(parent, a, b);
  const byRoot = new Map<number, Island>();
  islands.forEach((island, k) => {
    const root = rootOf(parent, k);
    const before = byRoot.get(root);
    byRoot.set(root, before ? around(before, island) : island);
  });
  return [...byRoot.values()];
}

/**
 * Whether joining figures with each other would leave no more than one of each row: then the distance is one that bits have from their
 * figure, larger than the space between figures, and figures stay apart.
 */
function swallowsRows(islands: readonly Island[], loose: readonly boolean[], between: readonly Gap[]): boolean {
  const figures = islands.flatMap((_, k) => (loose[k] ? [] : [k]));
  if (between.length === 0 || figures.length < 3) return false;
  const parent = new Int32Array(islands.length).map((_, k) => k);
  for (const { a, b } of between) unite(parent, a, b);
  const clusters = new Set(figures.map((k) => rootOf(parent, k))).size;
  const rows = rowsOf(figures.map((k) => islands[k] as Island)).length;
  return clusters <= rows && figures.length >= rows * 3;
}

function around(a: Island, b: Island): Island {
  const x = Math.min(a.rect.x, b.rect.x);
  const y = Math.min(a.rect.y, b.rect.y);
  const right = Math.max(a.rect.x + a.rect.w, b.rect.x + b.rect.w);
  const bottom = Math.max(a.rect.y + a.rect.h, b.rect.y + b.rect.h);
  return islandOf(x, y, right, bottom, a.area + b.area);
}

/** The gap of every two islands that have one of at most `most` clear pixels, nearest first. */
function gapsWithin({ from, to, first }: Runs, { of, islands }: Parts, height: number, most: Px): Gap[] {
  const nearest = new Map<number, number>();
  const count = islands.length;
  const note = (a: number, b: number, px: number) => {
    const key = a < b ? a * count + b : b * count + a;
    const before = nearest.get(key);
    if (before === undefined || px < before) nearest.set(key, px);
  };
  for (let y = 0; y < height; y++)
    for (let up = 0; up <= most + 1 && up <= y; up++) {
      let other = first[y - up] as number;
      const otherEnd = first[y - up + 1] as number;
      for (let run = first[y] as number; run < (first[y + 1] as number); run++) {
        const left = from[run] as number;
        const right = to[run] as number;
        while (other < otherEnd && (to[other] as number) + most < left) other++;
        for (let each = other; each < otherEnd && (from[each] as number) <= right + most; each++) {
          if (of[each] === of[run]) continue;
          const along = Math.max(left - (to[each] as number), (from[each] as number) - right, 0);
          note(of[each] as number, of[run] as number, Math.max(along, up - 1, 0));
        }
      }
    }
  return [...nearest]
    .map(([key, px]) => ({ a: Math.floor(key / count), b: key % count, px }))
    .sort((one, two) => one.px - two.px || one.a - two.a || one.b - two.b);
}

/** A bit is loose below this share of the size that figures have on its sheet. */
const LOOSE_SHARE = 0.25;

/** Those that are no loose bits. */
export function figuresAmong(islands: readonly Island[]): Island[] {
  const loose = looseBits(islands);
  return islands.filter((_, k) => !loose[k]);
}

/** Which islands are loose bits. Figures are measured by the median of areas in which each pixel counts once. */
function looseBits(islands: readonly Island[]): boolean[] {
  const areas = islands.map(({ area }) => area).sort((a, b) => b - a);
  const half = areas.reduce((sum, area) => sum + area, 0) / 2;
  let seen = 0;
  let figure = 0;
  for (let k = 0; k < areas.length && seen < half; k++) {
    figure = areas[k] as number;
    seen += figure;
  }
  return islands.map(({ area }) => area < figure * LOOSE_SHARE);
}

/** For every loose bit that reaches a figure, the figure that it reaches over the shortest way (Dijkstra's algorithm, 1959). */
function ownersOf(gaps: readonly Gap[], loose: readonly boolean[]): [bit: number, owner: number][] {
  const near = new Map<number, { to: number; px: Px }[]>();
  for (const { a, b, px } of gaps) {
    if (!loose[a] && !loose[b]) continue;
    for (const [from, to] of [[a, b] as const, [b, a] as const]) {
      const list = near.get(from) ?? [];
      near.set(from, list);
      list.push({ to, px });
    }
  }
  const settled = new Map<number, number>();
  // Ways are short and gaps small whole numbers, so ways wait in one list per length.
  const waiting: { bit: number; owner: number }[][] = [];
  const reach = (from: number, owner: number, way: number) => {
    // A step costs one even without a gap, so that fewer bits in between win.
    for (const { to, px } of near.get(from) ?? [])
      if (loose[to] && !settled.has(to)) {
        const length = way + px + 1;
        const list = waiting[length] ?? [];
        waiting[length] = list;
        list.push({ bit: to, owner });
      }
  };
  loose.forEach((isLoose, k) => {
    if (!isLoose) reach(k, k, 0);
  });
  for (let way = 0; way < waiting.length; way++)
    for (const { bit, owner } of waiting[way] ?? []) {
      if (settled.has(bit)) continue;
      settled.set(bit, owner);
      reach(bit, owner, way);
    }
  return [...settled];
}
