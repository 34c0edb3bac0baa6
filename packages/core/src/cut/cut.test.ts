import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sheetOfCells } from "../edit/project.fixture";
import { type GridCut, overlaps } from "../model";
import { clearPixels, coverageOf, crop, paste, samePixels } from "../raster";
import { cutByGrid } from "./cells";
import { cellAt, cellRect, gridOf, spreadBefore } from "./grid";

const NONE = { x: 0, y: 0 };
const byCell = (w: number, h: number, margin = NONE, gap = NONE): GridCut => ({
  by: "cell",
  cell: { w, h },
  margin,
  gap,
  keepEmpty: false,
});
const byCount = (columns: number, rows: number, margin = NONE, gap = NONE): Extract<GridCut, { by: "count" }> => ({
  by: "count",
  columns,
  rows,
  margin,
  gap,
  keepEmpty: false,
});

const spacing = fc.record({ x: fc.nat({ max: 5 }), y: fc.nat({ max: 5 }) });
const sizes = fc.record({ w: fc.integer({ min: 6, max: 90 }), h: fc.integer({ min: 6, max: 60 }) });
const cuts = fc.oneof(
  fc
    .record({ w: fc.integer({ min: 1, max: 40 }), h: fc.integer({ min: 1, max: 40 }), margin: spacing, gap: spacing })
    .map(({ w, h, margin, gap }) => byCell(w, h, margin, gap)),
  fc
    .record({ c: fc.integer({ min: 1, max: 20 }), r: fc.integer({ min: 1, max: 20 }), margin: spacing, gap: spacing, spread: fc.boolean() })
    .map(({ c, r, margin, gap, spread }) => ({ ...byCount(c, r, margin, gap), ...(spread ? { spread: true as const } : {}) })),
);

describe("gridOf", () => {
  it("divides 960 px by 12 into 80", () => expect(gridOf({ w: 960, h: 80 }, byCount(12, 1), "x").cell).toEqual({ w: 80, h: 80 }));

  it("reports leftover pixels and never stretches", () => {
    expect(gridOf({ w: 100, h: 50 }, byCount(3, 2), "x")).toMatchObject({ cell: { w: 33, h: 25 }, leftOver: { right: 1, bottom: 0 } });
    expect(gridOf({ w: 100, h: 50 }, byCell(32, 16, { x: 1, y: 1 }, { x: 2, y: 2 }), "x")).toMatchObject({
      columns: 2,
      rows: 2,
      leftOver: { right: 33, bottom: 15 },
    });
  });

  it("spreads what is left over if asked, so that no cell is more than half a pixel from its share of the sheet", () => {
    const grid = gridOf({ w: 1024, h: 512 }, { ...byCount(6, 3), spread: true }, "x");
    expect(grid).toMatchObject({ cell: { w: 170, h: 170 }, spread: { x: 4, y: 2 }, leftOver: { right: 0, bottom: 0 } });
    const places = Array.from({ length: 6 }, (_, column) => cellRect(grid, column, 0).x);
    expect(places).toEqual([0, 171, 341, 512, 683, 853]);
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 5000 }), fc.integer({ min: 1, max: 40 }), (length, columns) => {
        const own = gridOf({ w: length, h: 40 }, { ...byCount(columns, 1), spread: true }, "x");
        for (let column = 0; column < columns; column++) {
          const { x, w } = cellRect(own, column, 0);
          expect(w).toBe(Math.floor(length / columns));
          expect(Math.abs(x - (column * length) / columns)).toBeLessThanOrEqual(0.5);
        }
        const { x, w } = cellRect(own, columns - 1, 0);
        expect(length - x - w).toBeLessThanOrEqual(1);
      }),
    );
  });

  it("keeps every cell in the picture, apart from the others, and accounts for every pixel", () =>
    fc.assert(
      fc.property(sizes, cuts, (size, cut) => {
        let grid: ReturnType<typeof gridOf>;
        try {
          grid = gridOf(size, cut, "x");
        } catch (error) {
          expect((error as Error).name).toBe("CaravanError");
          return;
        }
        const rects = Array.from({ length: grid.rows }, (_, row) =>
          Array.from({ length: grid.columns }, (_, column) => cellRect(grid, column, row)),
        ).flat();
        const last = rects.at(-1) as (typeof rects)[number];
        const end = (spread: number, count: number) => spread - spreadBefore(count - 1, count, spread);
        expect(last.x + last.w + grid.leftOver.right + end(grid.spread.x, grid.columns)).toBe(size.w);
        expect(last.y + last.h + grid.leftOver.bottom + end(grid.spread.y, grid.rows)).toBe(size.h);
        expect(grid.leftOver.right).toBeGreaterThanOrEqual(0);
        expect(grid.leftOver.bottom).toBeGreaterThanOrEqual(0);
        if (cut.by === "cell") {
          expect(grid.leftOver.right).toBeLessThan(grid.cell.w + cut.gap.x);
          expect(grid.leftOver.bottom).toBeLessThan(grid.cell.h + cut.gap.y);
        }
        for (const [k, a] of rects.slice(0, 12).entries()) for (const b of rects.slice(k + 1, k + 30)) expect(overlaps(a, b)).toBe(false);
      }),
    ));

  it("reports what would fit if something does not", () => {
    expect(() => gridOf({ w: 32, h: 64 }, byCell(48, 48), "art/knight.png")).toThrow(
      "art/knight.png: A 48 × 48 px cell exceeds the 32 × 64 px of this sheet. Use 32 × 48 or less.",
    );
    expect(() => gridOf({ w: 10, h: 10 }, byCount(11, 1), "x")).toThrow(/At most 10 × 10 cells fit/);
    expect(() => gridOf({ w: 10, h: 10 }, byCell(4, 4, { x: 10, y: 0 }), "x")).toThrow(/margin of 10, 0 px leaves nothing/);
    expect(() => gridOf({ w: 4096, h: 4096 }, byCell(1, 1), "x")).toThrow(/limit is 65536/);
  });

  it("finds the cell under a pixel, and none in gaps and margins", () =>
    fc.assert(
      fc.property(spacing, spacing, fc.nat({ max: 60 }), fc.nat({ max: 60 }), fc.boolean(), (margin, gap, x, y, spread) => {
        const cut = spread ? { ...byCount(7, 4, margin, gap), spread: true as const } : byCell(7, 9, margin, gap);
        const grid = gridOf({ w: 60, h: 60 }, cut, "x");
        const found = cellAt(grid, x, y);
        const inside = (column: number, row: number) => {
          const rect = cellRect(grid, column, row);
          return x >= rect.x && x < rect.x + rect.w && y >= rect.y && y < rect.y + rect.h;
        };
        const expected = Array.from({ length: grid.rows * grid.columns }, (_, k) => ({
          column: k % grid.columns,
          row: Math.floor(k / grid.columns),
        })).find(({ column, row }) => inside(column, row));
        expect(found).toEqual(expected ?? null);
      }),
    ));
});

describe("cutByGrid", () => {
  const sheet = sheetOfCells(4, 3, [5, 11]);
  const coverage = coverageOf(sheet);
  const grid = gridOf({ w: sheet.width, h: sheet.height }, byCount(4, 3), "x");

  it("leaves empty cells out, counts them, and keeps the others' numbers", () => {
    const { cells, skippedEmpty } = cutByGrid(coverage, grid, false);
    expect(skippedEmpty).toBe(2);
    expect(cells.map((cell) => cell.number)).toEqual([0, 1, 2, 3, 4, 6, 7, 8, 9, 10]);
  });

  it("keeps empty cells when asked, and marks them", () => {
    const { cells, skippedEmpty } = cutByGrid(coverage, grid, true);
    expect(skippedEmpty).toBe(0);
    expect(cells.filter((cell) => cell.empty).map((cell) => cell.number)).toEqual([5, 11]);
  });

  it("loses nothing: cells pasted back give the sheet again", () => {
    const back = clearPixels(sheet.width, sheet.height);
    for (const { rect } of cutByGrid(coverage, grid, false).cells)
      paste(back, crop(sheet, rect), { x: 0, y: 0, w: rect.w, h: rect.h }, rect.x, rect.y);
    expect(samePixels(back, sheet)).toBe(true);
  });
});
