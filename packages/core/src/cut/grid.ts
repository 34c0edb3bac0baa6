/**
 * Lays a grid of equal cells over a sheet.
 *
 * By cell size, there are as many columns and rows as whole cells fit; by counts, the cell is the largest whole size of which that many
 * fit. Nothing is stretched: leftover pixels at right and bottom are reported. Where they are spread, as on a sheet of 1024 px with 6
 * columns, each cell is at the rounded place of its share of the sheet, so that drawings do not drift in their cells. Units: whole pixels,
 * y down. Holds: every cell lies entirely in the picture; no two overlap; all have the same size.
 */
import { CaravanError, type GridCut, type Rect, type Size, type Spacing } from "../model";
import { t } from "../words";

export interface Grid {
  readonly cell: Size;
  readonly columns: number;
  readonly rows: number;
  readonly margin: Spacing;
  readonly gap: Spacing;
  /** Pixels that are spread between the columns and the rows: fewer than there are of these, at most one after each, also the last. */
  readonly spread: Spacing;
  /** Pixels at the right and at the bottom that belong to no cell, and are not spread. */
  readonly leftOver: { readonly right: number; readonly bottom: number };
}

/** More cells than any sheet of drawn frames has; a cell of one pixel on a big sheet is a slip, and would choke every list. */
const MOST_CELLS = 65_536;

/**
 * The grid of `cut` on a sheet of `size`. `where` names the sheet in errors.
 * Throws `bad-margin`, `cell-too-large` or `bad-count`, each with what would fit.
 */
export function gridOf(size: Size, cut: GridCut, where: string): Grid {
  const { gap } = cut;
  const margin = startOf(cut);
  const room = { w: size.w - margin.x, h: size.h - margin.y };
  if (room.w < 1 || room.h < 1)
    throw new CaravanError(
      "bad-margin",
      where,
      t("A margin of {x}, {y} px leaves nothing of this {w} × {h} px sheet.", { x: margin.x, y: margin.y, w: size.w, h: size.h }),
      t("Use less than {w}, {h}.", { w: size.w, h: size.h }),
    );
  const cell = cut.by === "cell" ? cut.cell : cellFromCounts(room, cut, where);
  const { w, h } = cell;
  if (w > room.w || h > room.h)
    throw new CaravanError(
      "cell-too-large",
      where,
      margin.x + margin.y > 0
        ? t("A {w} × {h} px cell exceeds the {roomW} × {roomH} px that the margin leaves.", { w, h, roomW: room.w, roomH: room.h })
        : t("A {w} × {h} px cell exceeds the {roomW} × {roomH} px of this sheet.", { w, h, roomW: room.w, roomH: room.h }),
      t("Use {w} × {h} or less.", { w: Math.min(w, room.w), h: Math.min(h, room.h) }),
    );
  const columns = cut.by === "cell" ? Math.floor((room.w + gap.x) / (w + gap.x)) : cut.columns;
  const rows = cut.by === "cell" ? Math.floor((room.h + gap.y) / (h + gap.y)) : cut.rows;
  if (columns * rows > MOST_CELLS)
    throw new CaravanError(
      "bad-count",
      where,
      t("That makes {columns} × {rows} cells; the limit is {mostCells}.", { columns, rows, mostCells: MOST_CELLS }),
      t("Use larger cells, or fewer columns and rows."),
    );
  const rest = { x: room.w - columns * w - (columns - 1) * gap.x, y: room.h - rows * h - (rows - 1) * gap.y };
  const isSpread = cut.by === "count" && cut.spread === true;
  const spread = isSpread ? rest : { x: 0, y: 0 };
  const leftOver = isSpread ? { right: 0, bottom: 0 } : { right: rest.x, bottom: rest.y };
  return { cell, columns, rows, margin, gap, spread, leftOver };
}

/** Of `spread` pixels those before the cell `k` of `count`. */
export function spreadBefore(k: number, count: number, spread: number): number {
  return Math.round((k * spread) / count);
}

/** px: from one cell to the next, on average. */
export function pitchOf({ cell, gap, spread, columns, rows }: Grid): { x: number; y: number } {
  return { x: cell.w + gap.x + spread.x / columns, y: cell.h + gap.y + spread.y / rows };
}

/** Whether everything left over is a border as wide as the margin or the spacing: sheets often end with one, and no cell is missing. */
export function leavesBorderOnly({ leftOver: { right, bottom }, margin, gap }: Grid): boolean {
  return [0, margin.x, gap.x].includes(right) && [0, margin.y, gap.y].includes(bottom);
}

/** Where the first whole cell begins: margin and offset; a grid that begins outside the picture loses the cells that do. */
function startOf({ margin, gap, offset, ...cut }: GridCut): Spacing {
  if (!offset) return margin;
  const start = (at: number, cell: number) => (at >= 0 ? at : cell === 0 ? 0 : at + Math.ceil(-at / cell) * cell);
  const period = cut.by === "cell" ? { x: cut.cell.w + gap.x, y: cut.cell.h + gap.y } : { x: 0, y: 0 };
  return { x: start(margin.x + offset.x, period.x), y: start(margin.y + offset.y, period.y) };
}

function cellFromCounts(room: Size, cut: Extract<GridCut, { by: "count" }>, where: string): Size {
  const { columns, rows, gap } = cut;
  const w = Math.floor((room.w - (columns - 1) * gap.x) / columns);
  const h = Math.floor((room.h - (rows - 1) * gap.y) / rows);
  if (w < 1 || h < 1) {
    const most = `${Math.floor((room.w + gap.x) / (1 + gap.x))} × ${Math.floor((room.h + gap.y) / (1 + gap.y))}`;
    throw new CaravanError(
      "bad-count",
      where,
      t("{columns} × {rows} cells do not fit: a cell would have no pixels.", { columns, rows }),
      t("At most {most} cells fit here.", { most }),
    );
  }
  return { w, h };
}

/** The rectangle of the cell at a column and row that the grid has. */
export function cellRect(grid: Grid, column: number, row: number): Rect {
  const { cell, margin, gap, spread } = grid;
  return {
    x: margin.x + column * (cell.w + gap.x) + spreadBefore(column, grid.columns, spread.x),
    y: margin.y + row * (cell.h + gap.y) + spreadBefore(row, grid.rows, spread.y),
    ...cell,
  };
}

/** The column and row of the cell that holds the pixel (x, y), or null between and beyond the cells. */
export function cellAt(grid: Grid, x: number, y: number): { column: number; row: number } | null {
  const pitch = pitchOf(grid);
  // A cell begins up to half a pixel before its share of the sheet.
  const column = Math.floor((x - grid.margin.x + 0.5) / pitch.x);
  const row = Math.floor((y - grid.margin.y + 0.5) / pitch.y);
  if (column < 0 || row < 0 || column >= grid.columns || row >= grid.rows) return null;
  const rect = cellRect(grid, column, row);
  const isInside = x >= rect.x && y >= rect.y && x < rect.x + rect.w && y < rect.y + rect.h;
  return isInside ? { column, row } : null;
}
