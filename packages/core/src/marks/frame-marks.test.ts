import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnIn } from "../art";
import type { FrameMarks, MarkName } from "../model";
import { areaOf, isSimple } from "../outline";
import { clearPixels, coverageOf } from "../raster";
import { drawnBox, marksWith, marksWithout, mirroredMarks, scaledMarks, shiftedMarks } from ".";

const BODY = "body" as MarkName;
const HAND = "hand" as MarkName;
const SOLID = "solid" as MarkName;
const marks: FrameMarks = { boxes: { [BODY]: [{ x: -2, y: 1, w: 5, h: 9 }] }, points: { [HAND]: { x: 3.5, y: 4 } } };
const outlined: FrameMarks = { ...marks, outlines: { [SOLID]: [[{ x: 1, y: 0 }, { x: 6, y: 2 }, { x: 1, y: 5 }]] } }; // biome-ignore format: corners

describe("the marks of a frame", () => {
  it("are restored when moved there and back, or mirrored twice", () =>
    fc.assert(
      fc.property(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 }), fc.integer({ min: 1, max: 99 }), (x, y, width) => {
        expect(shiftedMarks(shiftedMarks(marks, { x, y }), { x: -x, y: -y })).toEqual(marks);
        expect(mirroredMarks(mirroredMarks(marks, width), width)).toEqual(marks);
        expect(shiftedMarks(shiftedMarks(outlined, { x, y }), { x: -x, y: -y })).toEqual(outlined);
        expect(mirroredMarks(mirroredMarks(outlined, width), width)).toEqual(outlined);
      }),
    ));

  it("grow with whole factors exactly, and never shrink to nothing", () => {
    expect(scaledMarks(marks, 3)).toEqual({ boxes: { body: [{ x: -6, y: 3, w: 15, h: 27 }] }, points: { hand: { x: 10.5, y: 12 } } });
    expect(scaledMarks(marks, 0.1).boxes?.[BODY]?.[0]).toMatchObject({ w: 1, h: 1 });
    expect(scaledMarks(marks, 1)).toBe(marks);
  });

  it("have outlines that go clockwise in the mirror, and are simple at any size", () => {
    expect(mirroredMarks(outlined, 8).outlines?.[SOLID]).toEqual([[{ x: 7, y: 5 }, { x: 2, y: 2 }, { x: 7, y: 0 }]]); // biome-ignore format: corners
    for (const scale of [0.1, 0.3, 0.5, 2])
      for (const polygon of scaledMarks(outlined, scale).outlines?.[SOLID] ?? [])
        expect(isSimple(polygon) && areaOf(polygon) > 0).toBe(true);
    expect(marksWith(outlined, SOLID, { outlines: null })).toEqual(marks);
    expect(marksWith(marks, SOLID, { outlines: [] })?.outlines).toEqual({ solid: [] });
  });

  it("leave no empty lists behind", () => {
    expect(marksWithout(marksWithout(marks, BODY), HAND)).toBeUndefined();
    expect(marksWithout(marks, HAND)).toEqual({ boxes: marks.boxes });
    expect(marksWith(undefined, HAND, { point: { x: 1, y: 2 } })).toEqual({ points: { hand: { x: 1, y: 2 } } });
  });
});

describe("the box around the drawing", () => {
  it("is in untrimmed pixels, upright also of a frame that is stored turned", () => {
    const page = clearPixels(30, 30);
    // Stored turned: a pixel at (x, y) of the upright 6 × 9 frame lies at (8 - y, x) of the stored one.
    for (const [x, y] of [
      [1, 2],
      [4, 7],
    ] as const)
      page.bytes[((10 + x) * 30 + 5 + 8 - y) * 4 + 3] = 255;
    const frame = { rect: { x: 5, y: 10, w: 9, h: 6 }, turned: true as const, size: { w: 12, h: 15 }, inset: { x: 3, y: 4 } };
    expect(drawnBox(drawnIn(coverageOf(page), {}, frame))).toEqual({ x: 4, y: 6, w: 4, h: 6 });
    expect(drawnBox(drawnIn(coverageOf(clearPixels(30, 30)), {}, frame))).toBeNull();
  });
});
