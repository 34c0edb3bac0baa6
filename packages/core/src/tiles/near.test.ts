import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, type Pixels } from "../raster";
import { nearTiles } from "./near";
import { COLOURS, smallPicture, turned } from "./tiles.fixture";

const FLIPS = [undefined, "across", "down", "both"];

/** Pixels that look different, one at a time. */
function unlike(one: Pixels, other: Pixels): number {
  let count = 0;
  for (let k = 0; k < one.bytes.length; k += 4) {
    const [a, b] = [one, other].map(({ bytes }) => (bytes[k + 3] === 0 ? "clear" : bytes.subarray(k, k + 4).join()));
    if (a !== b) count++;
  }
  return count;
}

describe("tiles that nearly agree", () => {
  it("are all pairs of one size within the limit in the best of their flips, the most similar first", () =>
    fc.assert(
      fc.property(fc.array(smallPicture, { maxLength: 6 }), fc.nat(12), (tiles, most) => {
        const found = nearTiles(tiles, most);
        const wanted = tiles.flatMap((a, one) =>
          tiles.slice(one + 1).flatMap((b, k) => {
            if (a.width !== b.width || a.height !== b.height) return [];
            const differ = Math.min(...FLIPS.map((flip) => unlike(a, turned(b, flip))));
            return differ <= most ? [{ one, other: one + 1 + k, differ }] : [];
          }),
        );
        expect(found.map(({ one, other, differ }) => ({ one, other, differ }))).toEqual(
          wanted.sort((a, b) => a.differ - b.differ || a.one - b.one || a.other - b.other),
        );
        for (const { one, other, flip, differ } of found)
          expect(unlike(tiles[one] as Pixels, turned(tiles[other] as Pixels, flip))).toBe(differ);
      }),
    ));

  it("are found whatever transparent pixels contain", () => {
    const [one, other] = [clearPixels(4, 4), clearPixels(4, 4)];
    for (let k = 0; k < 16; k++) other.bytes.set(COLOURS[1], k * 4);
    other.bytes.set(COLOURS[2], 0);
    expect(nearTiles([one, other], 1)).toEqual([{ one: 0, other: 1, differ: 1 }]);
    expect(nearTiles([one, other], 0)).toEqual([]);
  });
});
