/**
 * Measures how well rectangles describe a picture: whether they lie inside it, contain drawings, together cover the drawing, run through
 * clear pixels, and overlap only if they are equal.
 *
 * Cost: O(n²) for overlaps and O(rows) per rectangle for coverage, with n sampled records.
 */
import { commonArea, type Rect } from "../model";
import { type Coverage, countDrawn, isDrawn } from "../raster";
import { isSeen } from "./described";
import { isInside } from "./rectangle-of";

export interface Evidence {
  /** The number of given rectangles inside the picture. */
  readonly placed: number;
  /** Share of the distinct ones that hold something drawn. */
  readonly filled: number;
  /** The fraction of the drawing inside them, 0 for an unseen picture. */
  readonly explained: number;
  /** Share of their edges along which drawn pixels are cut apart. */
  readonly cut: number;
  /** Area that unlike rectangles share, by their own area. */
  readonly shared: number;
  /** Share of unlike ones. */
  readonly unlike: number;
  /** Drawn pixels by area. */
  readonly dense: number;
}

/** Null if fewer than a third of `rects` lie inside the picture; a null among them is a record without one. */
export function evidenceOf(rects: readonly (Rect | null)[], coverage: Coverage): Evidence | null {
  const inside: Rect[] = [];
  for (const [k, rect] of rects.entries()) {
    if (k === 12 && inside.length < 4) return null;
    if (rect && isInside(rect, coverage)) inside.push(rect);
  }
  if (inside.length === 0 || inside.length < rects.length * 0.34) return null;
  const distinct = [...new Map(inside.map((rect) => [`${rect.x} ${rect.y} ${rect.w} ${rect.h}`, rect])).values()];
  let area = 0;
  let shared = 0;
  let drawn = 0;
  let filled = 0;
  let cut = 0;
  let edge = 0;
  const seen = isSeen(coverage);
  for (let k = 0; k < distinct.length; k++) {
    const rect = distinct[k] as Rect;
    area += rect.w * rect.h;
    for (let other = 0; other < k; other++) shared += commonArea(rect, distinct[other] as Rect);
    if (!seen) continue;
    const here = drawnIn(coverage, rect);
    drawn += here;
    if (here > 0) filled++;
    cut += cutBy(coverage, rect);
    edge += 2 * (rect.w + rect.h);
  }
  const total = seen ? totalOf(coverage) : 0;
  // A sample holds its part of the whole only.
  return {
    placed: inside.length,
    filled: seen ? filled / distinct.length : 1,
    explained: total === 0 ? 0 : Math.max(0, Math.min(1, drawn / total) - shared / Math.max(1, area)),
    cut: edge === 0 ? 0 : cut / edge,
    shared: shared / Math.max(1, area),
    unlike: distinct.length / inside.length,
    dense: area === 0 ? 0 : drawn / area,
  };
}

/** One number for comparison, 0 to about 7. `given` is the number of records with a rectangle, `share` the sampled fraction. */
export function fitOf(evidence: Evidence, records: number, given: number, share: number): number {
  const { placed, filled, explained, cut, shared, unlike, dense } = evidence;
  return (
    (2 * placed) / records +
    (0.5 * given) / records -
    Math.min(2, 3 * shared) +
    filled +
    1.5 * Math.min(1, explained / Math.max(share, 0.02)) -
    Math.min(1.5, 3 * cut) +
    0.4 * dense +
    0.4 * unlike -
    // One rectangle for all records says nothing.
    (placed > 1 && unlike * placed < 1.5 ? 1.5 : 0)
  );
}

/** Of longer sides only this many pixels are examined, evenly spread. */
const LOOKED_AT = 48;

/** Edge pixels across which a drawing continues, extrapolated from a sample on long edges. */
function cutBy(coverage: Coverage, { x, y, w, h }: Rect): number {
  const along = Math.max(1, Math.floor(w / LOOKED_AT));
  const down = Math.max(1, Math.floor(h / LOOKED_AT));
  let cutAlong = 0;
  let cutDown = 0;
  for (let k = 0; k < w; k += along) {
    if (isDrawn(coverage, x + k, y) && isDrawn(coverage, x + k, y - 1)) cutAlong++;
    if (isDrawn(coverage, x + k, y + h - 1) && isDrawn(coverage, x + k, y + h)) cutAlong++;
  }
  for (let k = 0; k < h; k += down) {
    if (isDrawn(coverage, x, y + k) && isDrawn(coverage, x - 1, y + k)) cutDown++;
    if (isDrawn(coverage, x + w - 1, y + k) && isDrawn(coverage, x + w, y + k)) cutDown++;
  }
  return cutAlong * along + cutDown * down;
}

/** Drawn pixels of a rectangle, for large ones reckoned from evenly spread rows of it; nothing only if nothing at all is drawn there. */
function drawnIn(coverage: Coverage, rect: Rect): number {
  const { x, y, w, h } = rect;
  const step = Math.floor((h * (w + 32)) / LARGE);
  if (step < 2) return countDrawn(coverage, rect);
  let count = 0;
  let rows = 0;
  for (let row = y; row < y + h; row += step) {
    count += countDrawn(coverage, { x, y: row, w, h: 1 });
    rows++;
  }
  return count === 0 ? countDrawn(coverage, rect) : Math.round((count * h) / rows);
}

/** Pixels up to which a rectangle is counted whole. */
const LARGE = 65_536;

const totals = new WeakMap<Coverage, number>();

function totalOf(coverage: Coverage): number {
  const known = totals.get(coverage) ?? countDrawn(coverage, { x: 0, y: 0, w: coverage.width, h: coverage.height });
  totals.set(coverage, known);
  return known;
}
