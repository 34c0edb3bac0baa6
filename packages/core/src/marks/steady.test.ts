import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Coverage, clearPixels, coverageOf, isDrawn, overlapOf } from "../raster";
import { steadyOrigins } from "./steady";

/** What is drawn where `drawn` says so. */
function coverage(width: number, height: number, drawn: (x: number, y: number) => boolean): Coverage {
  const pixels = clearPixels(width, height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (drawn(x, y)) pixels.bytes.set([9, 9, 9, 255], (y * width + x) * 4);
  return coverageOf(pixels);
}

/** A body with a head, whose middle stands at x, 20 wide at most, feet at y. */
const figure = (x: number, y: number) => (u: number, v: number) =>
  (v < y && v >= y - 20 && Math.abs(u - x) <= 5) || (v < y - 20 && v >= y - 28 && Math.abs(u - x - 2) <= 3);
const whole = { x: 0, y: 0, w: 80, h: 60 };
const SHIFTS = fc.array(fc.record({ x: fc.integer({ min: -9, max: 9 }), y: fc.integer({ min: -9, max: 9 }) }), {
  minLength: 1,
  maxLength: 5,
});

describe("steadying", () => {
  it("moves an unevenly cut drawing to its place in the first frame", () =>
    fc.assert(
      fc.property(SHIFTS, fc.integer({ min: 0, max: 80 }), (shifts, half) => {
        const origin = { x: half / 2, y: 50 };
        const frames = shifts.map(({ x, y }) => ({
          drawn: { coverage: coverage(80, 60, figure(40 + x, 45 + y)), frame: { rect: whole } },
          origin,
        }));
        const origins = steadyOrigins(frames);
        const [first] = shifts as [{ x: number; y: number }];
        for (const [k, at] of origins.entries()) {
          const { x, y } = shifts[k] as { x: number; y: number };
          const apart = { x: x - first.x, y: y - first.y };
          // From one frame to the next nothing is sought farther away than it can be.
          const steps = shifts
            .slice(0, k + 1)
            .every(
              (each, n) =>
                n === 0 || Math.max(Math.abs(each.x - (shifts[n - 1]?.x ?? 0)), Math.abs(each.y - (shifts[n - 1]?.y ?? 0))) <= 20,
            );
          if (steps) expect(at).toEqual({ x: origin.x + apart.x, y: origin.y + apart.y });
        }
      }),
      { numRuns: 40 },
    ));

  it("moves along one axis only if asked", () => {
    const frames = [figure(40, 45), figure(43, 41)].map((drawn) => ({
      drawn: { coverage: coverage(80, 60, drawn), frame: { rect: whole } },
      origin: { x: 40, y: 50 },
    }));
    expect(steadyOrigins(frames)[1]).toEqual({ x: 43, y: 46 });
    expect(steadyOrigins(frames, "y")[1]).toEqual({ x: 40, y: 46 });
    expect(steadyOrigins(frames, "x")[1]).toEqual({ x: 43, y: 50 });
  });

  it("does not move a steady frame, and skips empty ones", () => {
    const legs = (at: number) => (u: number, v: number) => figure(40, 45)(u, v) || (v >= 45 && v < 50 && Math.abs(u - 40 - at) <= 2);
    const shapes = [legs(-4), () => false, legs(4), legs(0)];
    const frames = shapes.map((drawn) => ({
      drawn: { coverage: coverage(80, 60, drawn), frame: { rect: whole } },
      origin: { x: 40, y: 50 },
    }));
    expect(steadyOrigins(frames)).toEqual(frames.map(({ origin }) => origin));
  });

  it("reads trimmed and turned frames as they are seen", () => {
    const upright = coverage(80, 60, figure(40, 45));
    // Stored turned clockwise: what is at (x, y) upright lies at (59 - y, x).
    const turned = coverage(60, 80, (x, y) => isDrawn(upright, y, 59 - x));
    const frames = [
      { drawn: { coverage: upright, frame: { rect: whole } }, origin: { x: 40, y: 45 } },
      { drawn: { coverage: turned, frame: { rect: { x: 0, y: 0, w: 60, h: 80 }, turned: true as const } }, origin: { x: 38, y: 47 } },
      {
        drawn: { coverage: upright, frame: { rect: { x: 30, y: 10, w: 20, h: 40 }, size: { w: 30, h: 50 }, inset: { x: 3, y: 4 } } },
        origin: { x: 14, y: 40 },
      },
    ];
    expect(steadyOrigins(frames)).toEqual([
      { x: 40, y: 45 },
      { x: 40, y: 45 },
      { x: 13, y: 39 },
    ]);
  });
});

describe("overlap", () => {
  it("counts the same as pixel by pixel, at any distance", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 70 }),
        fc.integer({ min: 1, max: 70 }),
        fc.integer(),
        fc.integer({ min: -80, max: 80 }),
        fc.integer({ min: -6, max: 6 }),
        (w, v, seed, dx, dy) => {
          const bit = (x: number, y: number, salt: number) =>
            (Math.imul(x * 73_856_093 + y * 19_349_663 + salt, seed | 1) >>> 13) % 2 === 0;
          const [a, b] = [coverage(w, 5, (x, y) => bit(x, y, 1)), coverage(v, 6, (x, y) => bit(x, y, 2))];
          let count = 0;
          for (let y = 0; y < 5; y++) for (let x = 0; x < w; x++) if (isDrawn(a, x, y) && isDrawn(b, x + dx, y + dy)) count++;
          expect(overlapOf(a, b, dx, dy)).toBe(count);
        },
      ),
    ));
});
