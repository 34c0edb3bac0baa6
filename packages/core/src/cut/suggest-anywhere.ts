/**
 * Looks for grids that begin anywhere: in the middle of a larger picture, below a heading and beside labels, because people write what a sheet
 * is at its top, and what its rows are at their left.
 *
 * Only where no usual grid of the whole sheet fits well. What stands apart at the top or at the left, by clear space from side to side, is left
 * out, and the grids of the rest are compared with the former. Their margin then contains the heading. Cost: at most six times that of
 * suggesting.
 */
import type { Rect } from "../model";
import { type Coverage, countDrawn, cropCoverage, isClear } from "../raster";
import type { GridSuggestion } from "./suggestion";

/** With this score a grid fits the whole sheet. */
const FITS = 0.7;
/** How much better a grid of a part must be: it has less to explain. */
const BETTER = 0.12;
const LEAST_SCORE = 0.5;
/** The largest fraction of a side that a heading may take. */
const MOST_HEADING = 0.35;
/** The largest fraction of a cell that a heading may be high, or a label wide: otherwise it is a row of figures. */
const MOST_OF_A_CELL = 0.75;
/** The fraction of a heading's band that is drawn at least. */
const LEAST_DENSITY = 0.02;
/** The fraction of the drawing that must be left. */
const LEAST_LEFT = 0.6;
const MOST_TRIED = 2;
/** px: suggestions of larger sheets take too long to be made several times. */
const LARGEST = 2048 * 2048;

/** Along which sides a grid may begin anywhere. */
export interface Free {
  readonly x: boolean;
  readonly y: boolean;
}

/** Grids that begin anywhere, as far as they fit better than `grids`, those of the whole sheet, and then these; best first. */
export function gridsAnywhere(
  coverage: Coverage,
  grids: GridSuggestion[],
  suggest: (part: Coverage, free: Free) => GridSuggestion[],
): GridSuggestion[] {
  const { width, height } = coverage;
  const usual = grids[0]?.score ?? 0;
  if (usual >= FITS || coverage.colours || width * height > LARGEST) return grids;
  const tops = headingsIn(coverage, height, (from, to) => ({ x: 0, y: from, w: width, h: to - from }));
  const lefts = headingsIn(coverage, width, (from, to) => ({ x: from, y: 0, w: to - from, h: height }));
  const corners = [NOWHERE, ...tops.map((y) => ({ x: NONE, y })), ...lefts.map((x) => ({ x, y: NONE }))];
  if (tops[0] && lefts[0]) corners.push({ x: lefts[0], y: tops[0] });
  const all = countDrawn(coverage, { x: 0, y: 0, w: width, h: height });
  const better = corners.flatMap(({ x, y }) => {
    const part = { x: x.end, y: y.end, w: width - x.end, h: height - y.end };
    if (countDrawn(coverage, part) < all * LEAST_LEFT) return [];
    const isWhole = x.end === 0 && y.end === 0;
    return suggest(isWhole ? coverage : cropCoverage(coverage, part), { x: isWhole || x.end > 0, y: isWhole || y.end > 0 })
      .map((each) => ({ ...each, margin: { x: each.margin.x + x.end, y: each.margin.y + y.end } }))
      .filter(({ score, columns, rows, cell, gap, margin }) => {
        const isHeading = x.length <= cell.w * MOST_OF_A_CELL && y.length <= cell.h * MOST_OF_A_CELL;
        // With room for a cell before the first one, it is a figure.
        const isCell = (x.end > 0 && margin.x >= cell.w + gap.x) || (y.end > 0 && margin.y >= cell.h + gap.y);
        return isHeading && !isCell && score >= Math.max(usual + BETTER, LEAST_SCORE) && columns * rows > 3;
      });
  });
  return [...better.sort((a, b) => b.score - a.score), ...grids];
}

/** What stands apart at the beginning of a side. */
interface Heading {
  readonly length: number;
  /** The first clear place behind it. */
  readonly end: number;
}

const NONE: Heading = { length: 0, end: 0 };
/** No heading: a grid in the middle of a larger picture. */
const NOWHERE = { x: NONE, y: NONE };

/** `band` gives the rectangle of a part of the side. */
function headingsIn(coverage: Coverage, length: number, band: (from: number, to: number) => Rect): Heading[] {
  const found: Heading[] = [];
  let first: number | null = null;
  let drawn = false;
  for (let at = 0; at < length * MOST_HEADING && found.length < MOST_TRIED; at++) {
    const clear = isClear(coverage, band(at, at + 1));
    if (!clear) first ??= at;
    if (clear && drawn && first !== null) {
      const { w, h } = band(first, at);
      // A few sparks above figures are no text.
      if (countDrawn(coverage, band(first, at)) >= w * h * LEAST_DENSITY) found.push({ length: at - first, end: at });
    }
    drawn = !clear;
  }
  return found;
}
