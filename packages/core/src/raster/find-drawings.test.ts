import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rect } from "../model";
import { findDrawings } from "./find-drawings";
import { clearPixels, crop, looksSame, type Pixels, paste } from "./pixels";

/** A picture with so many random dots of few colours, some half transparent. */
function dotted(width: number, height: number, dots: readonly (readonly [number, number, number])[]): Pixels {
  const pixels = clearPixels(width, height);
  for (const [x, y, colour] of dots)
    pixels.bytes.set([colour * 70, 30, 60, colour === 0 ? 128 : 255], ((y % height) * width + (x % width)) * 4);
  return pixels;
}

/** Every place that holds what the rectangle holds, found by looking at each. */
function placesByLooking(before: Pixels, rect: Rect, after: Pixels): Rect[] {
  const wanted = crop(before, rect);
  if (looksSame(wanted, clearPixels(rect.w, rect.h))) return [];
  const places: Rect[] = [];
  for (let y = 0; y + rect.h <= after.height; y++)
    for (let x = 0; x + rect.w <= after.width; x++) if (looksSame(wanted, crop(after, { ...rect, x, y }))) places.push({ ...rect, x, y });
  return places;
}

const dot = fc.tuple(fc.nat(30), fc.nat(20), fc.nat(3));

describe("findDrawings", () => {
  it("finds exactly what checking each position finds", () =>
    fc.assert(
      fc.property(
        fc.array(dot, { maxLength: 60 }),
        fc.array(dot, { maxLength: 40 }),
        fc.integer({ min: 1, max: 14 }),
        fc.integer({ min: 1, max: 9 }),
        fc.nat(30),
        fc.nat(20),
        (dots, others, w, h, x, y) => {
          const before = dotted(31, 21, dots);
          const rect = { x: Math.min(x, 31 - w), y: Math.min(y, 21 - h), w, h };
          const after = dotted(37, 23, others);
          paste(after, before, rect, Math.min(y + 3, 37 - w), Math.min(x, 23 - h));
          const expected = placesByLooking(before, rect, after);
          const [found] = findDrawings(before, [rect], after);
          if (expected.length <= 16) expect(found?.toSorted((a, b) => a.y - b.y || a.x - b.x)).toEqual(expected);
          else expect(found).toHaveLength(16);
        },
      ),
      { numRuns: 300 },
    ));
});
