import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawingsIn } from "./drawing";
import { clearPixels } from "./pixels";

/** A blot of 3 × 2 px in its own colours at a place of a 20 × 20 px picture. */
function blot(x: number, y: number, colour: number) {
  const pixels = clearPixels(20, 20);
  for (const [dx, dy] of [
    [0, 0],
    [2, 0],
    [1, 1],
  ] as const)
    pixels.bytes.set([colour, dx * 40, dy * 90, 255], ((y + dy) * 20 + x + dx) * 4);
  return pixels;
}

const whole = [{ x: 0, y: 0, w: 20, h: 20 }];

describe("drawingsIn", () => {
  it("gives equal prints to equal drawings at any position, with the position", () =>
    fc.assert(
      fc.property(fc.nat(17), fc.nat(18), fc.nat(255), (x, y, colour) => {
        const [there] = drawingsIn(blot(x, y, colour), whole);
        const [first] = drawingsIn(blot(0, 0, colour), whole);
        expect(there).toEqual({ print: first?.print, x, y });
      }),
    ));

  it("distinguishes other colours and other shapes", () => {
    const prints = [blot(1, 1, 9), blot(1, 1, 10)].map((pixels) => drawingsIn(pixels, whole)[0]?.print);
    const narrow = drawingsIn(blot(1, 1, 9), [{ x: 0, y: 0, w: 3, h: 20 }])[0]?.print;
    expect(new Set([...prints, narrow]).size).toBe(3);
  });

  it("does not look at colours under alpha 0, and sees nothing in a clear part", () => {
    const pixels = blot(4, 4, 9);
    pixels.bytes.set([200, 100, 50, 0], (4 * 20 + 5) * 4);
    expect(drawingsIn(pixels, whole)).toEqual(drawingsIn(blot(4, 4, 9), whole));
    expect(drawingsIn(pixels, [{ x: 10, y: 10, w: 5, h: 5 }])).toEqual([null]);
  });
});
