/**
 * Suggests the grids that a sheet may have been drawn on, best first.
 *
 * Each side is divided separately (`divisions.ts`), into whole cells or into equal parts, then the best divisions of both are paired. Pairs with matching margins and gaps and
 * with typical cell sizes come first, because clear space alone cannot distinguish a gap from a cell's own border. Fully drawn sheets are left
 * to `suggest-full.ts`, lines and boxes drawn around cells to `suggest-framed.ts`, grids that begin anywhere to `suggest-anywhere.ts`.
 * Holds: every suggestion is a grid that `gridOf` accepts. Cost: O(drawn pixels + length² / 4) per side.
 */
import { type Coverage, isClear } from "../raster";
import { costOfSlackAlong, costOfSlackDown, type Way, waysToDivide } from "./divisions";
import { cellRect, gridOf } from "./grid";
import { profilesOf } from "./profile";
import { type Free, gridsAnywhere } from "./suggest-anywhere";
import { suggestFramed } from "./suggest-framed";
import { suggestFull } from "./suggest-full";
import { cutOfSuggestion, type GridSuggestion, suggestionOf } from "./suggestion";

/**
 * At most `most` grids, best first; none if nothing is drawn. `whole` is the picture with its opaque ground, where `coverage` is without it:
 * lines between cells may have gone with the ground.
 */
export function suggestGrids(coverage: Coverage, most = 6, whole: Coverage = coverage): GridSuggestion[] {
  const plain = gridsAnywhere(coverage, plainGrids(coverage, most), (part, free) => plainGrids(part, most, free)).slice(0, most);
  const framed = suggestFramed(coverage, whole);
  return framed ? [framed, ...plain].slice(0, most) : plain;
}

/** Grids of cells between which there is nothing, or no space. Along a free side the first cell may begin anywhere. */
function plainGrids(coverage: Coverage, most: number, free: Free = { x: false, y: false }): GridSuggestion[] {
  const full = suggestFull(coverage, most);
  if (full) return full;
  const { along, down } = profilesOf(coverage);
  if (along.total === 0) return [];
  const isWhole = !free.x && !free.y;
  const columns = waysToDivide(along, costOfSlackAlong, free.x, isWhole);
  const rows = waysToDivide(down, costOfSlackDown, free.y, isWhole);
  const pairs = columns.flatMap((x) => rows.flatMap((y) => (areOneCut(x, y) ? [{ x, y, cost: x.cost + y.cost + costOfPair(x, y) }] : [])));
  const byCost = (a: Pair, b: Pair) => a.cost - b.cost;
  const bestOf = (some: Pair[]) =>
    some
      .sort(byCost)
      .slice(0, CLOSELY)
      .map((pair) => ({ ...pair, cost: pair.cost + costOfEmpties(coverage, pair.x, pair.y) }))
      .sort(byCost);
  return inOrder(bestOf(pairs.filter((pair) => !isSpread(pair))), bestOf(pairs.filter(isSpread)))
    .slice(0, most)
    .map(({ x, y, cost }) => offered(x, y, Math.round(1000 / (1 + Math.exp(cost - x.strictness - y.strictness + 1.5))) / 1000));
}

interface Pair {
  readonly x: Way;
  readonly y: Way;
  readonly cost: number;
}

/** Pairs whose cells are looked into. */
const CLOSELY = 40;
/** Places before the first grid of equal parts, unless that is the best: one of whole cells with small margins fits where it does. */
const WHOLE_FIRST = 3;

function inOrder(whole: readonly Pair[], spread: readonly Pair[]): readonly Pair[] {
  const [first] = spread;
  if (!first) return whole;
  const at = !whole[0] || first.cost < whole[0].cost ? 0 : WHOLE_FIRST;
  return [...whole.slice(0, at), first, ...whole.slice(at)];
}

function isSpread({ x, y }: Pair): boolean {
  return x.spread + y.spread > 0;
}

function offered(x: Way, y: Way, score: number): GridSuggestion {
  return { ...suggestionOf(x, y, score), ...(x.spread + y.spread > 0 ? { spread: true } : {}) };
}

/** Whether one cut has both: where pixels are spread along one side, none are left over at the end of the other. */
function areOneCut(x: Way, y: Way): boolean {
  return (x.spread === 0 || y.spread > 0 || y.end === 0) && (y.spread === 0 || x.spread > 0 || x.end === 0);
}

/** Spaces are mostly the same along and down, cells mostly of like proportions. */
function costOfPair(x: Way, y: Way): number {
  const margins = x.margin === y.margin ? 0 : x.margin === 0 || y.margin === 0 ? 0.3 : 0.4;
  const gaps = x.gap === y.gap ? 0 : x.count === 1 || y.count === 1 ? 0.1 : 0.4;
  const shape = Math.abs(Math.log2(x.cell / y.cell));
  return margins + gaps + Math.max(0, shape - 1) * 0.25 + (x.cell === y.cell ? -0.08 : 0);
}

/** A grid that is mostly empty is too fine, unless whole row ends are missing. */
function costOfEmpties(coverage: Coverage, x: Way, y: Way): number {
  const grid = gridOf({ w: coverage.width, h: coverage.height }, cutOfSuggestion(offered(x, y, 0)), "suggestion");
  let holes = 0;
  for (let row = 0; row < grid.rows; row++) {
    let trailing = true;
    for (let column = grid.columns - 1; column >= 0; column--)
      if (!isClear(coverage, cellRect(grid, column, row))) trailing = false;
      else if (!trailing) holes++;
  }
  return (1.2 * holes) / (grid.columns * grid.rows);
}
