import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnIn } from "../art";
import type { Frame } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { jumpsOf, type Standing, standingFrom, standingOf } from ".";

describe("the position of a drawing", () => {
  const pixels = clearPixels(20, 20);
  for (let y = 6; y < 14; y++) for (let x = 3; x < 9; x++) pixels.bytes[(y * 20 + x) * 4 + 3] = 255;
  const frame: Frame = { key: "c0r0", column: 0, row: 0, number: 0, rect: { x: 0, y: 0, w: 20, h: 20 } };

  it("is relative to the origin", () => {
    const standing = standingOf(drawnIn(coverageOf(pixels), {}, frame)) as Standing;
    expect(standing).toEqual({ feet: { x: 6, y: 14 }, middle: { x: 6, y: 10 } });
    expect(standingFrom(standing, { x: 6, y: 14 })).toEqual({ feet: { x: 0, y: 0 }, middle: { x: 0, y: -4 } });
    expect(standingFrom(standing, { x: 10, y: 12 }).feet).toEqual({ x: -4, y: 2 });
  });

  it("is nowhere in an empty frame", () => expect(standingOf(drawnIn(coverageOf(clearPixels(20, 20)), {}, frame))).toBeNull());
});

describe("jumps", () => {
  it("are the one step that is off, and by how much", () => {
    expect(jumpsOf([0, 0, 0, -3, 0, 0], true)).toEqual([{ step: 3, by: -3 }]);
    expect(jumpsOf([1, 0, 5, 1, 0], false)).toEqual([{ step: 2, by: 4.5 }]);
  });

  it("are not a stride: rising and falling gradually, or by an invisible amount", () => {
    expect(jumpsOf([0, -1, -2, -1, 0, -1, -2, -1], true)).toEqual([]);
    expect(jumpsOf([0, 2, 4, 6, 4, 2], true)).toEqual([]);
    expect(jumpsOf([0, 1, 0, 1], true)).toEqual([]);
    // There and back in steps of their own, as a hop is.
    expect(jumpsOf([0, -6, -9, -6, 0], false)).toEqual([]);
  });

  it("are searched across the end only if the clip loops", () => {
    expect(jumpsOf([4, 0, 0, 0], true)).toEqual([{ step: 0, by: 4 }]);
    expect(jumpsOf([4, 0, 0, 0], false)).toEqual([]);
    expect(jumpsOf([0, null, 4, 0], true)).toEqual([]);
  });

  it("are the same for any common offset, and reversed when upside down", () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 3, maxLength: 12 }), fc.integer(), (values, shift) => {
        const by = shift % 1000;
        expect(
          jumpsOf(
            values.map((value) => value + by),
            true,
          ),
        ).toEqual(jumpsOf(values, true));
        const down = jumpsOf(
          values.map((value) => -value),
          true,
        );
        expect(down.map(({ step }) => step)).toEqual(jumpsOf(values, true).map(({ step }) => step));
      }),
    ));

  it("disappear when the step is put between its neighbours", () =>
    fc.assert(
      fc.property(fc.integer({ min: -9, max: 9 }), fc.integer({ min: 2, max: 9 }), (level, off) => {
        const values = [level, level, level + off, level, level];
        const [jump] = jumpsOf(values, true);
        expect(
          jumpsOf(
            values.map((value, k) => (k === jump?.step ? value - jump.by : value)),
            true,
          ),
        ).toEqual([]);
      }),
    ));
});
