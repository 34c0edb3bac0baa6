import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rect } from "../model";
import { type Coverage, clearPixels, coverageOf } from "../raster";
import { findIslands } from "./islands";
import { levelRow, rowsOf } from "./rows";

/** What is drawn, as `#` in rows of text. */
function drawing(...rows: string[]): Coverage {
  const pixels = clearPixels(Math.max(...rows.map((row) => row.length)), rows.length);
  rows.forEach((row, y) => {
    for (let x = 0; x < row.length; x++) if (row[x] === "#") pixels.bytes[(y * pixels.width + x) * 4 + 3] = 255;
  });
  return coverageOf(pixels);
}

const rects = (coverage: Coverage, joinPx = 0, leastPx = 1) =>
  findIslands(coverage, { joinPx, leastPx })
    .islands.map(({ rect }) => rect)
    .sort((a, b) => a.y - b.y || a.x - b.x);

/** The same by definition, slowly: flood filling from every pixel over neighbours at most `reach` away. */
function slowly({ width, height, bits }: Coverage, reach: number): Rect[] {
  const stride = Math.ceil(width / 32);
  const drawn = (x: number, y: number) => (((bits[y * stride + (x >> 5)] as number) >>> (x & 31)) & 1) === 1;
  const seen = new Set<number>();
  const found: Rect[] = [];
  for (let start = 0; start < width * height; start++) {
    if (seen.has(start) || !drawn(start % width, Math.floor(start / width))) continue;
    let [left, top, right, bottom] = [width, height, 0, 0];
    const stack = [start];
    seen.add(start);
    for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
      const x = at % width;
      const y = Math.floor(at / width);
      [left, top, right, bottom] = [Math.min(left, x), Math.min(top, y), Math.max(right, x + 1), Math.max(bottom, y + 1)];
      for (let ny = Math.max(0, y - reach); ny <= Math.min(height - 1, y + reach); ny++)
        for (let nx = Math.max(0, x - reach); nx <= Math.min(width - 1, x + reach); nx++)
          if (drawn(nx, ny) && !seen.has(ny * width + nx)) {
            seen.add(ny * width + nx);
            stack.push(ny * width + nx);
          }
    }
    found.push({ x: left, y: top, w: right - left, h: bottom - top });
  }
  return found.sort((a, b) => a.y - b.y || a.x - b.x);
}

describe("findIslands", () => {
  it("hangs pixels together that touch at a side or a corner", () =>
    expect(rects(drawing("##...", "..#..", "....#"))).toEqual([
      { x: 0, y: 0, w: 3, h: 2 },
      { x: 4, y: 2, w: 1, h: 1 },
    ]));

  it("finds what a slow flood fill finds, across word borders too", () =>
    fc.assert(
      fc.property(
        fc
          .integer({ min: 1, max: 70 })
          .chain((width) =>
            fc.array(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: width, maxLength: width }), { minLength: 1, maxLength: 12 }),
          ),
        (rows) => {
          const coverage = drawing(...rows.map((row) => row.map((each) => (each === 0 ? "#" : ".")).join("")));
          expect(rects(coverage)).toEqual(slowly(coverage, 1));
        },
      ),
      { numRuns: 200 },
    ));

  it("counts every drawn pixel once, joined or not", () =>
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }), { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 0, max: 6 }),
        (rows, joinPx) => {
          const coverage = drawing(...rows.map((row) => row.map((each) => (each ? "#" : ".")).join("")));
          const area = findIslands(coverage, { joinPx, leastPx: 1 }).islands.reduce((sum, island) => sum + island.area, 0);
          expect(area).toBe(rows.flat().filter(Boolean).length);
        },
      ),
    ));

  it("joins figures up to the given number of transparent pixels apart, and no further", () => {
    const two = drawing("####...####", "####...####", "####...####");
    expect(rects(two, 2)).toHaveLength(2);
    expect(rects(two, 3)).toEqual([{ x: 0, y: 0, w: 11, h: 3 }]);
  });

  it("gives a loose spark to the figure it is nearest to, and ties no two figures together by it", () => {
    const coverage = drawing("######......######", "######......######", "######..#...######", "######......######", "######......######");
    expect(rects(coverage, 3)).toEqual([
      { x: 0, y: 0, w: 9, h: 5 },
      { x: 12, y: 0, w: 6, h: 5 },
    ]);
  });

  it("hands sparks on from spark to spark", () =>
    expect(rects(drawing("#####....#....#", "#####..........", "#####.........."), 4)).toEqual([{ x: 0, y: 0, w: 15, h: 3 }]));

  it("keeps a row of figures separate if the distance suits sparks, not figures", () => {
    const row = "####..####..####..####";
    const found = rects(
      drawing("..#...................", "......................", "......................", "......................", row, row, row),
      4,
    );
    expect(found.map(({ x, y }) => [x, y])).toEqual([
      [0, 0],
      [6, 4],
      [12, 4],
      [18, 4],
    ]);
    // Bodies in two halves are joined all the same: each row keeps several.
    const halves = "###.###....###.###....###.###";
    expect(rects(drawing(halves, halves), 1)).toHaveLength(3);
  });

  it("ignores and counts anything smaller than the least size", () => {
    const found = findIslands(drawing("####..#", "####...", "#......"), { joinPx: 0, leastPx: 2 });
    expect(found).toEqual({ islands: [{ rect: { x: 0, y: 0, w: 4, h: 3 }, area: 9 }], small: 1 });
  });
});

describe("rowsOf", () => {
  const piece = (x: number, y: number, w: number, h: number) => ({ rect: { x, y, w, h } });
  const places = (rows: { rect: Rect }[][]) => rows.map((row) => row.map(({ rect }) => rect.x));

  it("reads rows of uneven heights from left to right, from top to bottom", () =>
    expect(
      places(rowsOf([piece(50, 4, 10, 16), piece(0, 0, 10, 30), piece(30, 18, 10, 10), piece(12, 40, 10, 8), piece(0, 38, 8, 20)])),
    ).toEqual([
      [0, 30, 50],
      [0, 12],
    ]));

  it("keeps a figure that jumps in its row", () =>
    expect(places(rowsOf([piece(0, 40, 20, 40), piece(25, 14, 20, 40), piece(50, 40, 20, 40)]))).toEqual([[0, 25, 50]]));

  it("puts every piece in one row", () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: fc.nat(200), y: fc.nat(200), w: fc.integer({ min: 1, max: 40 }), h: fc.integer({ min: 1, max: 40 }) }), {
          maxLength: 30,
        }),
        (list) => {
          const pieces = list.map((rect) => ({ rect }));
          expect(new Set(rowsOf(pieces).flat())).toEqual(new Set(pieces));
        },
      ),
    ));
});

describe("levelRow", () => {
  it("makes the pieces of a row equal in size, feet on the bottom line", () =>
    expect(levelRow([{ rect: { x: 0, y: 0, w: 10, h: 20 } }, { rect: { x: 20, y: 3, w: 14, h: 12 } }])).toEqual([
      { size: { w: 14, h: 20 }, inset: { x: 2, y: 0 } },
      { size: { w: 14, h: 20 }, inset: { x: 0, y: 8 } },
    ]));
});
