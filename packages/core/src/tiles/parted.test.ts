import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { assembled } from "../assemble";
import { clearPixels, crop, looksSame, mirrored, type Pixels, paste } from "../raster";
import { partedIntoTiles } from "./parted";

const COLOURS = [
  [0, 0, 0, 0],
  [200, 30, 40, 255],
  [20, 130, 240, 255],
] as const;
const picture = fc
  .record({
    w: fc.integer({ min: 1, max: 14 }),
    h: fc.integer({ min: 1, max: 14 }),
    seed: fc.array(fc.nat(2), { minLength: 3, maxLength: 9 }),
  })
  .map(({ w, h, seed }): Pixels => {
    const made = clearPixels(w, h);
    for (let k = 0; k < w * h; k++) made.bytes.set(COLOURS[seed[(k % w) % seed.length] ?? 0] ?? [0, 0, 0, 0], k * 4);
    return made;
  });

describe("drawn frames split into tiles", () => {
  it("rebuilt from the distinct ones are the same to the pixel", () => {
    fc.assert(
      fc.property(
        fc.array(picture, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 6 }),
        (all, w, h) => {
          const { parts, frames } = partedIntoTiles(all, { w, h });
          for (const [k, laid] of frames.entries()) {
            const { width, height } = all[k] as Pixels;
            const pieces = laid.map(({ part, x, y, flip }) => {
              const from = parts[part] as (typeof parts)[number];
              return { pixels: crop(all[from.frame] as Pixels, { x: from.x, y: from.y, w: from.w, h: from.h }), x, y, flip };
            });
            expect(looksSame(assembled({ w: width, h: height }, pieces), all[k] as Pixels)).toBe(true);
          }
        },
      ),
    );
  });

  it("need each tile once, however often it is used and flipped", () => {
    const half = clearPixels(4, 4);
    half.bytes.set([9, 9, 9, 255], 0);
    half.bytes.set([8, 8, 8, 255], 4);
    const both = clearPixels(8, 4);
    paste(both, half, { x: 0, y: 0, w: 4, h: 4 }, 0, 0);
    paste(both, mirrored(half), { x: 0, y: 0, w: 4, h: 4 }, 4, 0);
    const { parts, frames } = partedIntoTiles([both, half], { w: 4, h: 4 });
    expect(parts).toEqual([{ frame: 0, x: 0, y: 0, w: 4, h: 4 }]);
    expect(frames).toEqual([
      [
        { part: 0, x: 0, y: 0 },
        { part: 0, x: 4, y: 0, flip: "across" },
      ],
      [{ part: 0, x: 0, y: 0 }],
    ]);
  });
});
