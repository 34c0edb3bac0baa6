import { FACINGS_OF } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { petalAt, roseLayout } from "./rose-layout";

const SMALLEST = { w: 464, h: 386 };
const rooms = fc.record({ w: fc.integer({ min: 200, max: 2400 }), h: fc.integer({ min: 120, max: 1600 }) });

describe("the layout of a wind rose", () => {
  it("keeps all cells inside it and apart from one another, in any room", () =>
    fc.assert(
      fc.property(rooms, (room) => {
        const layout = roseLayout(room);
        const { cell, size } = layout;
        const cells = FACINGS_OF[8].map((facing) => petalAt(layout, facing));
        for (const [k, { x, y }] of cells.entries()) {
          expect(x - cell.w / 2).toBeGreaterThanOrEqual(0);
          expect(y - cell.h / 2).toBeGreaterThanOrEqual(0);
          expect(x + cell.w / 2).toBeLessThanOrEqual(size.w);
          expect(y + cell.h / 2).toBeLessThanOrEqual(size.h);
          for (const other of cells.slice(k + 1)) expect(Math.abs(x - other.x) >= cell.w || Math.abs(y - other.y) >= cell.h).toBe(true);
        }
      }),
    ));

  it("fits into every room that holds the smallest rose, and uses a large one", () => {
    fc.assert(
      fc.property(rooms, ({ w, h }) => {
        const room = { w: Math.max(w, SMALLEST.w), h: Math.max(h, SMALLEST.h) };
        const { size } = roseLayout(room);
        expect(size.w <= room.w && size.h <= room.h).toBe(true);
      }),
    );
    expect(roseLayout({ w: 1300, h: 780 }).picture).toBeGreaterThan(roseLayout(SMALLEST).picture);
  });
});
