import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearGround } from "./clear-ground";
import { coverageOf, isDrawn } from "./coverage";
import { clearPixels, type Pixels } from "./pixels";
import { findSpecks } from "./specks";

/** A picture from rows of text: # is drawn. */
function drawn(...rows: string[]): Pixels {
  const pixels = clearPixels(rows[0]?.length ?? 0, rows.length);
  rows.forEach((row, y) => {
    for (const [x, mark] of [...row].entries()) if (mark === "#") pixels.bytes.set([9, 9, 9, 255], (y * pixels.width + x) * 4);
  });
  return pixels;
}

const specksIn = (pixels: Pixels, most = 1) => findSpecks(coverageOf(pixels), most).map(({ x, y }) => `${x},${y}`);

describe("findSpecks", () => {
  it("finds an isolated pixel, also at the picture's corner", () => {
    expect(specksIn(drawn("#.....", "......", "......", "......", "......", "....#."))).toEqual(["0,0", "4,5"]);
  });

  it("keeps anything within three pixels of something else, and pixels that touch at a corner", () => {
    expect(specksIn(drawn("#...#"))).toEqual(["0,0", "4,0"]);
    expect(specksIn(drawn("#..#."))).toEqual([]);
    expect(specksIn(drawn("#....", ".#..."))).toEqual([]);
  });

  it("counts connected pixels as one speck, up to the requested size", () => {
    const pair = drawn("##........", "..........", "..........", "..........", "....###...");
    expect(specksIn(pair, 1)).toEqual([]);
    expect(specksIn(pair, 2)).toEqual(["0,0", "1,0"]);
    expect(specksIn(pair, 3)).toEqual(["0,0", "1,0", "4,4", "5,4", "6,4"]);
  });

  it("agrees with looking at every pixel, on any picture", () => {
    const bits = fc.array(fc.integer({ min: 0, max: 29 }), { minLength: 40 * 12, maxLength: 40 * 12 });
    fc.assert(
      fc.property(bits, fc.integer({ min: 1, max: 4 }), (marks, most) => {
        const pixels = clearPixels(40, 12);
        for (const [k, mark] of marks.entries()) if (mark === 0) pixels.bytes[k * 4 + 3] = 255;
        const coverage = coverageOf(pixels);
        const left = coverageOf(clearGround(pixels, { colours: [], tolerance: 0, from: "edges", fringe: false, specks: most }));
        const found = new Set(specksIn(pixels, most));
        for (let y = 0; y < 12; y++)
          for (let x = 0; x < 40; x++) {
            const island = islandAt(coverage, x, y);
            const alone =
              island.length > 0 && island.length <= most && island.every((at) => nearby(coverage, at).every((p) => island.includes(p)));
            expect(found.has(`${x},${y}`)).toBe(alone);
            expect(isDrawn(left, x, y)).toBe(isDrawn(coverage, x, y) && !alone);
          }
      }),
      { numRuns: 60 },
    );
  });
});

function islandAt(coverage: Parameters<typeof isDrawn>[0], x: number, y: number): string[] {
  if (!isDrawn(coverage, x, y)) return [];
  const island = [`${x},${y}`];
  for (const at of island)
    for (const next of around(at, 1)) if (!island.includes(next) && isDrawn(coverage, ...pair(next))) island.push(next);
  return island;
}
const nearby = (coverage: Parameters<typeof isDrawn>[0], at: string) => around(at, 3).filter((each) => isDrawn(coverage, ...pair(each)));
const pair = (at: string) => at.split(",").map(Number) as [number, number];
function around(at: string, far: number): string[] {
  const [x, y] = pair(at);
  const side = Array.from({ length: far * 2 + 1 }, (_, k) => k - far);
  return side.flatMap((dy) => side.map((dx) => `${x + dx},${y + dy}`));
}
