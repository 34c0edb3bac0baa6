import { gridOf } from "@caravan/core/cut";
import type { GridCut } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cutAfterDrag, partOfGrid } from "./grid-part-dragged";

const NONE = { x: 0, y: 0 };
const COUNT: GridCut = { by: "count", columns: 5, rows: 4, margin: NONE, gap: NONE, keepEmpty: false };
const SHEET = { w: 160, h: 160 };
const grid = gridOf(SHEET, COUNT, "sheet");
const whole = partOfGrid(grid, COUNT);
const dragged = (change: Partial<typeof whole>, cut: GridCut = COUNT) => {
  const own = gridOf(SHEET, cut, "sheet");
  const before = partOfGrid(own, cut);
  return cutAfterDrag(cut, own, before, { ...before, ...change });
};

describe("a part of a grid", () => {
  it("is all of it until something is left out", () => expect(whole).toEqual({ x: 0, y: 0, w: 160, h: 160 }));

  it("leaves out rows and columns whose lines an edge is dragged to, near enough", () => {
    expect(dragged({ h: 83 })).toEqual({ ...COUNT, only: { rows: { first: 0, last: 1 } } });
    expect(dragged({ y: 37, h: 123 })).toEqual({ ...COUNT, only: { rows: { first: 1, last: 3 } } });
    expect(dragged({ w: 66 }, { ...COUNT, only: { columns: { first: 1, last: 4 } } })).toEqual({
      ...COUNT,
      only: { columns: { first: 1, last: 2 } },
    });
  });

  it("includes them again, and then no longer mentions parts", () =>
    expect(dragged({ h: 160 }, { ...COUNT, only: { rows: { first: 0, last: 1 } } })).toEqual(COUNT));

  it("begins where its first edge is dropped between lines, with cells of the same size", () => {
    expect(dragged({ y: 17, h: 143 })).toEqual({
      by: "cell",
      cell: { w: 32, h: 40 },
      margin: NONE,
      gap: NONE,
      keepEmpty: false,
      offset: { x: 0, y: 17 },
    });
    const cells: GridCut = { by: "cell", cell: { w: 32, h: 40 }, margin: NONE, gap: NONE, keepEmpty: true, offset: { x: 3, y: 0 } };
    expect(dragged({ x: 13, w: 138 }, cells)).toEqual({ ...cells, offset: { x: 13, y: 0 } });
  });

  it("always keeps at least one cell, and cells of one size", () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 159 }), fc.integer({ min: 1, max: 160 }), fc.boolean(), (at, size, down) => {
        const cut = dragged(down ? { y: at, h: Math.min(size, 160 - at) } : { x: at, w: Math.min(size, 160 - at) });
        try {
          const next = gridOf(SHEET, cut, "sheet");
          expect(next.cell).toEqual(grid.cell);
          const part = partOfGrid(next, cut);
          expect(part.w > 0 && part.h > 0).toBe(true);
        } catch (error) {
          // A part that begins too far down for a single cell is refused, like any such grid.
          expect(String(error)).toMatch(/exceeds/);
        }
      }),
    ));
});
