import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rect } from "../model";
import { coverageOf, cropCoverage, drawnPart, isClear, middleOfDrawn } from "./coverage";
import { factsOf } from "./facts";
import { firstAlike } from "./likeness";
import { clearPixels, crop, extrude, looksSame, type Pixels, paste, samePixels, turnClockwise, turnCounterClockwise } from "./pixels";

const pictures = fc
  .record({
    width: fc.integer({ min: 1, max: 70 }),
    height: fc.integer({ min: 1, max: 12 }),
    density: fc.constantFrom(0, 0.02, 0.5, 1),
    seed: fc.nat(),
  })
  .map(({ width, height, density, seed }): Pixels => {
    const pixels = clearPixels(width, height);
    let state = seed;
    const next = () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      return state / 4_294_967_296;
    };
    for (let k = 0; k < width * height; k++)
      if (next() < density) pixels.bytes.set([next() * 255, next() * 255, 7, 1 + next() * 254], k * 4);
    return pixels;
  });

const withPart = pictures.chain((pixels) =>
  fc
    .record({
      x: fc.nat({ max: pixels.width - 1 }),
      y: fc.nat({ max: pixels.height - 1 }),
      a: fc.nat({ max: 1000 }),
      b: fc.nat({ max: 1000 }),
    })
    .map(({ x, y, a, b }) => ({ pixels, rect: { x, y, w: 1 + (a % (pixels.width - x)), h: 1 + (b % (pixels.height - y)) } as Rect })),
);

/** The plain way: look at every pixel. */
function middleByLooking(pixels: Pixels, rect: Rect): { x: number; y: number } | null {
  const drawn: [number, number][] = [];
  for (let y = rect.y; y < rect.y + rect.h; y++)
    for (let x = rect.x; x < rect.x + rect.w; x++) if (pixels.bytes[(y * pixels.width + x) * 4 + 3] !== 0) drawn.push([x, y]);
  const sum = (at: 0 | 1) => drawn.reduce((total, each) => total + each[at], 0);
  return drawn.length === 0 ? null : { x: sum(0) / drawn.length, y: sum(1) / drawn.length };
}

/** The plain way, too. */
function drawnByLooking({ width, bytes }: Pixels, rect: Rect): Rect | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let y = rect.y; y < rect.y + rect.h; y++)
    for (let x = rect.x; x < rect.x + rect.w; x++)
      if (bytes[(y * width + x) * 4 + 3] !== 0) {
        left = Math.min(left, x);
        right = Math.max(right, x + 1);
        top = Math.min(top, y);
        bottom = Math.max(bottom, y + 1);
      }
  return right < left ? null : { x: left, y: top, w: right - left, h: bottom - top };
}

describe("coverage", () => {
  it("finds the drawn part of any rectangle exactly", () =>
    fc.assert(
      fc.property(withPart, ({ pixels, rect }) => {
        const coverage = coverageOf(pixels);
        expect(drawnPart(coverage, rect)).toEqual(drawnByLooking(pixels, rect));
        expect(middleOfDrawn(coverage, rect)).toEqual(middleByLooking(pixels, rect));
        expect(isClear(coverage, rect)).toBe(drawnByLooking(pixels, rect) === null);
      }),
      { numRuns: 500 },
    ));

  it("cropped is the coverage of the cropped picture", () =>
    fc.assert(
      fc.property(withPart, ({ pixels, rect }) => {
        const { soft: _soft, ...bits } = coverageOf(crop(pixels, rect));
        expect(cropCoverage(coverageOf(pixels), rect)).toMatchObject(bits);
      }),
      { numRuns: 300 },
    ));

  it("sees a pixel of alpha 1", () => {
    const pixels = clearPixels(33, 1);
    pixels.bytes[32 * 4 + 3] = 1;
    expect(isClear(coverageOf(pixels), { x: 32, y: 0, w: 1, h: 1 })).toBe(false);
    expect(isClear(coverageOf(pixels), { x: 0, y: 0, w: 32, h: 1 })).toBe(true);
  });
});

describe("pixels", () => {
  it("are restored when a part is cut out and pasted back", () =>
    fc.assert(
      fc.property(withPart, ({ pixels, rect }) => {
        const copy = { ...pixels, bytes: pixels.bytes.slice() };
        const part = crop(pixels, rect);
        // Wiped out first, or pasting nothing at all would give the picture back too.
        for (let y = rect.y; y < rect.y + rect.h; y++)
          copy.bytes.fill(0, (y * copy.width + rect.x) * 4, (y * copy.width + rect.x + rect.w) * 4);
        paste(copy, part, { x: 0, y: 0, w: rect.w, h: rect.h }, rect.x, rect.y);
        expect(samePixels(copy, pixels)).toBe(true);
      }),
    ));

  it("are restored when turned there and back, and turning moves the left edge to the top", () =>
    fc.assert(
      fc.property(pictures, (pixels) => {
        const turned = turnClockwise(pixels);
        expect([turned.width, turned.height]).toEqual([pixels.height, pixels.width]);
        expect(samePixels(turnCounterClockwise(turned), pixels)).toBe(true);
        const bottomLeft = (pixels.height - 1) * pixels.width * 4;
        expect([...turned.bytes.subarray(0, 4)]).toEqual([...pixels.bytes.subarray(bottomLeft, bottomLeft + 4)]);
      }),
    ));

  it("look the same with any colour under alpha 0, but are not equal", () => {
    const a = clearPixels(1, 1);
    const b = { ...a, bytes: Uint8Array.of(9, 9, 9, 0) };
    expect(looksSame(a, b)).toBe(true);
    expect(samePixels(a, b)).toBe(false);
    expect(looksSame(a, { ...a, bytes: Uint8Array.of(0, 0, 0, 1) })).toBe(false);
  });

  it("repeat their edge outward, corners too, when extruded", () => {
    const onto = clearPixels(6, 6);
    const mark = (x: number, y: number, value: number) => onto.bytes.fill(value, (y * 6 + x) * 4, (y * 6 + x) * 4 + 4);
    mark(2, 2, 1);
    mark(3, 2, 2);
    mark(2, 3, 3);
    mark(3, 3, 4);
    extrude(onto, { x: 2, y: 2, w: 2, h: 2 }, 2);
    const rows = Array.from({ length: 6 }, (_, y) => Array.from({ length: 6 }, (_, x) => onto.bytes[(y * 6 + x) * 4]));
    expect(rows).toEqual([
      [1, 1, 1, 2, 2, 2],
      [1, 1, 1, 2, 2, 2],
      [1, 1, 1, 2, 2, 2],
      [3, 3, 3, 4, 4, 4],
      [3, 3, 3, 4, 4, 4],
      [3, 3, 3, 4, 4, 4],
    ]);
  });
});

describe("firstAlike", () => {
  it("points every part to the first that looks the same", () =>
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 3 }), { minLength: 1, maxLength: 12 }), (kinds) => {
        const parts = kinds.map((kind) => {
          const pixels = clearPixels(2, 1);
          pixels.bytes.set([kind * 40, 0, 0, 255]);
          return { pixels, rect: { x: 0, y: 0, w: 2, h: 1 } };
        });
        expect(firstAlike(parts)).toEqual(kinds.map((kind) => kinds.indexOf(kind)));
      }),
    ));

  it("distinguishes parts with equal bytes and different shapes", () => {
    const pixels = clearPixels(4, 4);
    expect(
      firstAlike([
        { pixels, rect: { x: 0, y: 0, w: 4, h: 1 } },
        { pixels, rect: { x: 0, y: 0, w: 1, h: 4 } },
      ]),
    ).toEqual([0, 1]);
  });
});

describe("factsOf", () => {
  it("counts colours, transparent ones as one, and detects the background", () => {
    const pixels = clearPixels(4, 1);
    pixels.bytes.set([1, 2, 3, 255, 1, 2, 3, 128, 9, 9, 9, 0, 0, 0, 0, 0]);
    expect(factsOf(pixels)).toEqual({ colours: 3, ground: "soft", pixel: 1 });
    expect(factsOf({ ...pixels, bytes: new Uint8Array(16).fill(255) })).toEqual({ colours: 1, ground: "opaque", pixel: 1 });
    expect(factsOf(clearPixels(4, 1))).toEqual({ colours: 1, ground: "clear", pixel: 1 });
  });
});
