/**
 * Suggests the grids that a sheet may have been drawn on, best first.
 *
 * Each side is divided separately (`divisions.ts`), then the best divisions of both are paired. Pairs with matching margins and gaps and
 * with typical cell sizes come first, because clear space alone cannot distinguish a gap from a cell's own border. Fully drawn sheets are left
 * to `suggest-full.ts`, lines and boxes drawn around cells to `suggest-framed.ts`, grids that begin anywhere to `suggest-anywhere.ts`.
 * Holds: every suggestion is a grid that `gridOf` accepts. Cost: O(drawn pixels + length² / 4) per side.
 */
import type { GridCut } from "../model";
import { type Coverage, isClear } from "../raster";
import { costOfSlackAlong, costOfSlackDown, type Way, waysToDivide } from "./divisions";
import { cellRect, gridOf } from "./grid";
import { profilesOf } from "./profile";
import { type Free, gridsAnywhere } from "./suggest-anywhere";
import { suggestFramed } from "./suggest-framed";
import { suggestFull } from "./suggest-full";
import type { GridSuggestion } from "./suggestion";

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
  const columns = waysToDivide(along, costOfSlackAlong, free.x);
  const rows = waysToDivide(down, costOfSlackDown, free.y);
  const pairs = columns.flatMap((x) => rows.map((y) => ({ x, y, cost: x.cost + y.cost + costOfPair(x, y) })));
  pairs.sort((a, b) => a.cost - b.cost);
  const best = pairs.slice(0, 40).map((pair) => ({ ...pair, cost: pair.cost + costOfEmpties(coverage, pair.x, pair.y) }));
  best.sort((a, b) => a.cost - b.cost);
  return best.slice(0, most).map(
    ({ x, y, cost }): GridSuggestion => ({
      cell: { w: x.cell, h: y.cell },
      margin: { x: x.margin, y: y.margin },
      gap: { x: x.gap, y: y.gap },
      columns: x.count,
      rows: y.count,
      score: Math.round(1000 / (1 + Math.exp(cost - x.strictness - y.strictness + 1.5))) / 1000,
    }),
  );
}

/** The cut that a suggestion stands for. */
export function cutOfSuggestion({ cell, margin, gap }: GridSuggestion): GridCut {
  return { by: "cell", cell, margin, gap, keepEmpty: false };
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
  const cut = cutOfSuggestion({
    cell: { w: x.cell, h: y.cell },
    margin: { x: x.margin, y: y.margin },
    gap: { x: x.gap, y: y.gap },
    columns: x.count,
    rows: y.count,
    score: 0,
  });
  const grid = gridOf({ w: coverage.width, h: coverage.height }, cut, "suggestion");
  let holes = 0;
  for (let row = 0; row < grid.rows; row++) {
    let trailing = true;
    for (let column = grid.columns - 1; column >= 0; column--)
      if (!isClear(coverage, cellRect(grid, column, row))) trailing = false;
      else if (!trailing) holes++;
  }
  return (1.2 * holes) / (grid.columns * grid.rows);
}
