import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { pixelSizeOf } from "./pixel-size";
import { clearPixels, paste } from "./pixels";
import { scaled } from "./scale";

describe("pixelSizeOf", () => {
  it("finds by how much pixel art was enlarged, wherever its squares begin", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), fc.nat(7), fc.nat(7), (times, left, top) => {
        // Two pixels of unlike colours in a corner, so that nothing larger fits.
        const art = clearPixels(6, 5);
        art.bytes.set([10, 0, 0, 255, 90, 0, 0, 255], 0);
        art.bytes.set([200, 0, 0, 255], 6 * 4);
        const large = scaled(art, times);
        const sheet = clearPixels(large.width + left, large.height + top);
        paste(sheet, large, { x: 0, y: 0, w: large.width, h: large.height }, left, top);
        expect(pixelSizeOf(sheet)).toBe(times);
      }),
    ));

  it("is 1 for a single colour", () => {
    expect(pixelSizeOf(clearPixels(9, 9))).toBe(1);
  });
});
