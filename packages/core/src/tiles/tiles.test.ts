import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, crop, looksSame, type Pixels, paste } from "../raster";
import { tilesOf } from "./tiles";
import { COLOURS, smallPicture, turned } from "./tiles.fixture";

/** As the page says it, one tile at a time, compared with all before. */
function told(pictures: readonly Pixels[], w: number, h: number, flips: boolean) {
  const distinct: Pixels[] = [];
  let tiles = 0;
  for (const pixels of pictures)
    for (let y = 0; y < pixels.height; y += h)
      for (let x = 0; x < pixels.width; x += w) {
        const tile = clearPixels(w, h);
        paste(tile, pixels, { x, y, w: Math.min(w, pixels.width - x), h: Math.min(h, pixels.height - y) }, 0, 0);
        if (tile.bytes.every((byte, k) => k % 4 !== 3 || byte === 0)) continue;
        tiles++;
        const ways = flips ? [undefined, "across", "down", "both"] : [undefined];
        if (!distinct.some((each) => ways.some((way) => looksSame(turned(each, way), tile)))) distinct.push(tile);
      }
  return { tiles, distinct: distinct.length };
}

describe("tiles of pictures", () => {
  it("are counted as the page says, with flips and without, in pictures of any size", () => {
    fc.assert(
      fc.property(
        fc.array(smallPicture, { maxLength: 4 }),
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 1, max: 5 }),
        fc.boolean(),
        (all, w, h, flips) => {
          const found = tilesOf(
            all.map((pixels, k) => ({ name: `${k}`, pixels })),
            { w, h },
            flips,
          );
          expect({ tiles: found.placed.length, distinct: found.distinct }).toEqual(told(all, w, h, flips));
          expect(found.perFrame.map(({ tiles }) => tiles).reduce((sum, each) => sum + each, 0)).toBe(found.placed.length);
        },
      ),
    );
  });

  it("put back in place, flipped as listed, are the picture again", () => {
    fc.assert(
      fc.property(smallPicture, fc.boolean(), (pixels, flips) => {
        const tile = { w: 3, h: 2 };
        const { placed, pixelsOf } = tilesOf([{ name: "one", pixels }], tile, flips);
        const whole = clearPixels(Math.ceil(pixels.width / 3) * 3, Math.ceil(pixels.height / 2) * 2);
        for (const { x, y, tile: number, flip } of placed) paste(whole, turned(pixelsOf(number), flip), { x: 0, y: 0, ...tile }, x, y);
        expect(looksSame(crop(whole, { x: 0, y: 0, w: pixels.width, h: pixels.height }), pixels)).toBe(true);
      }),
    );
  });

  it("report each frame's own, and count colours with their alpha but no transparent ones", () => {
    const dot = (colour: readonly number[]) => {
      const made = clearPixels(2, 2);
      made.bytes.set(colour, 0);
      return made;
    };
    const frames = [COLOURS[2], COLOURS[2], COLOURS[3], COLOURS[4], COLOURS[1]].map((colour, k) => ({
      name: `f${k}`,
      pixels: dot(colour),
    }));
    const found = tilesOf(frames, { w: 2, h: 2 });
    expect(found.colours).toBe(3);
    expect(found.perFrame.map(({ tiles, own }) => [tiles, own])).toEqual([
      [1, 0],
      [1, 0],
      [1, 1],
      [1, 1],
      [0, 0],
    ]);
  });
});
