import { encloses } from "@caravan/core/model";
import { clearPixels, coverageOf } from "@caravan/core/raster";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Box, gestureAt, rectDuring, snapped } from "./box-gesture";

const sheet = { x: 0, y: 0, w: 100, h: 80 };
const box = (id: string, x: number, y: number, w: number, h: number): Box => ({ id, rect: { x, y, w, h } });
const boxes = [box("a", 10, 10, 30, 30), box("b", 30, 20, 40, 40)];

describe("gestureAt", () => {
  it("draws on bare sheet, moves inside a box, resizes at its edges and corners", () => {
    expect(gestureAt(boxes, { x: 90, y: 70 }, 3)).toMatchObject({ kind: "draw" });
    expect(gestureAt(boxes, { x: 20, y: 20 }, 3)).toMatchObject({ kind: "move", id: "a" });
    expect(gestureAt(boxes, { x: 11, y: 25 }, 3)).toMatchObject({ kind: "resize", id: "a", edges: { left: true, top: false } });
    expect(gestureAt(boxes, { x: 71, y: 61 }, 3)).toMatchObject({
      kind: "resize",
      id: "b",
      edges: { right: true, bottom: true, left: false },
    });
  });

  it("takes the topmost of overlapping boxes", () =>
    expect(gestureAt(boxes, { x: 35, y: 30 }, 2)).toMatchObject({ kind: "move", id: "b" }));

  it("takes the nearer edge of a box narrower than its reach", () => {
    const [left, right] = [20.5, 22.5].map((x) => gestureAt([box("n", 20, 20, 3, 30)], { x, y: 35 }, 4));
    expect(left).toMatchObject({ edges: { left: true, right: false } });
    expect(right).toMatchObject({ edges: { left: false, right: true } });
  });

  it("draws inside a box that can only be taken by its edges", () => {
    expect(gestureAt(boxes, { x: 20, y: 20 }, 3, true)).toMatchObject({ kind: "draw" });
    expect(gestureAt(boxes, { x: 11, y: 25 }, 3, true)).toMatchObject({ kind: "resize", id: "a" });
  });
});

describe("rectDuring", () => {
  const spot = fc.record({ x: fc.double({ min: -50, max: 150, noNaN: true }), y: fc.double({ min: -50, max: 150, noNaN: true }) });

  it("is always whole pixels inside the sheet, at least one each way", () =>
    fc.assert(
      fc.property(spot, spot, fc.integer({ min: 1, max: 9 }), (from, to, reach) => {
        const rect = rectDuring(gestureAt(boxes, from, reach), to, sheet);
        expect(Object.values(rect).every(Number.isInteger)).toBe(true);
        expect(rect.w).toBeGreaterThanOrEqual(1);
        expect(rect.h).toBeGreaterThanOrEqual(1);
        expect(encloses(sheet, rect)).toBe(true);
      }),
    ));

  it("keeps the size of a moved box, and the other edges of a resized one", () => {
    const move = gestureAt(boxes, { x: 20, y: 20 }, 3);
    expect(rectDuring(move, { x: 25.4, y: 18.6 }, sheet)).toEqual({ x: 15, y: 9, w: 30, h: 30 });
    const resize = gestureAt(boxes, { x: 10, y: 25 }, 3);
    expect(rectDuring(resize, { x: 4, y: 70 }, sheet)).toEqual({ x: 4, y: 10, w: 36, h: 30 });
    expect(rectDuring(resize, { x: 99, y: 25 }, sheet)).toEqual({ x: 39, y: 10, w: 1, h: 30 });
  });
});

describe("snapped", () => {
  it("brings a moved box to the line of another, with whichever edge is nearer", () => {
    const move = gestureAt(boxes, { x: 20, y: 20 }, 2);
    expect(snapped(move, { x: 28, y: 41, w: 30, h: 30 }, boxes, null, 3)).toEqual({ x: 30, y: 41, w: 30, h: 30 });
    expect(snapped(move, { x: 38, y: 31, w: 30, h: 30 }, boxes, null, 3)).toEqual({ x: 40, y: 30, w: 30, h: 30 });
  });

  it("brings a drawn box to the drawn pixels before any line, and only within reach", () => {
    const pixels = clearPixels(sheet.w, sheet.h);
    for (let y = 50; y < 60; y++) for (let x = 75; x < 90; x++) pixels.bytes[(y * sheet.w + x) * 4 + 3] = 255;
    const coverage = coverageOf(pixels);
    const draw = gestureAt([], { x: 73, y: 48 }, 2);
    expect(snapped(draw, { x: 73, y: 48, w: 19, h: 14 }, boxes, coverage, 2)).toEqual({ x: 75, y: 50, w: 15, h: 10 });
    expect(snapped(draw, { x: 71, y: 40, w: 21, h: 22 }, [], coverage, 2)).toEqual({ x: 71, y: 40, w: 19, h: 20 });
  });
});
