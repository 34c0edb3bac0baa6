import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boundaryOf } from "./boundary";
import { convexParts, hullOf } from "./convex";
import { greedyCorners } from "./greedy.fixture";
import { islandsOf, type Mask } from "./mask";
import { areaOf, crossings, distanceTo, isConvex, isInside, isSimple, type Polygon } from "./polygon";
import { traced } from "./trace";

/** Rows of a picture, `#` for what is drawn. */
function drawn(...rows: string[]): Mask {
  const width = Math.max(...rows.map((row) => row.length));
  const bytes = Uint8Array.from(rows.flatMap((row) => [...row.padEnd(width)].map((each) => (each === "#" ? 1 : 0))));
  return { width, height: rows.length, bytes };
}

/** Blots: rectangles and dots, of every kind of touching. */
const masks = fc
  .record({
    width: fc.integer({ min: 1, max: 22 }),
    height: fc.integer({ min: 1, max: 22 }),
    blots: fc.array(fc.tuple(fc.nat(21), fc.nat(21), fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), fc.boolean()), {
      maxLength: 14,
    }),
    noise: fc.array(fc.tuple(fc.nat(21), fc.nat(21)), { maxLength: 60 }),
  })
  .map(({ width, height, blots, noise }): Mask => {
    const bytes = new Uint8Array(width * height);
    for (const [x, y, w, h, draws] of blots)
      for (let v = y; v < Math.min(height, y + h); v++)
        for (let u = x; u < Math.min(width, x + w); u++) bytes[v * width + u] = draws ? 1 : 0;
    for (const [x, y] of noise) if (x < width && y < height) bytes[y * width + x] = 1;
    return { width, height, bytes };
  });

const pixelsOf = ({ width, bytes }: Mask) =>
  [...bytes.keys()].filter((k) => bytes[k] === 1).map((k) => [k % width, Math.floor(k / width)] as const);

/** How far a point is from the nearest pixel, as a square. */
function awayFrom(pixels: readonly (readonly [number, number])[], x: number, y: number): number {
  return Math.min(...pixels.map(([u, v]) => Math.hypot(Math.max(u - x, 0, x - u - 1), Math.max(v - y, 0, y - v - 1))));
}

describe("the line around an island", () => {
  it("runs clockwise around one pixel by its four corners", () => {
    const [island] = islandsOf(drawn("", " #"), 1);
    expect(boundaryOf(island as never)).toEqual([
      { x: 1, y: 1 },
      { x: 2, y: 1 },
      { x: 2, y: 2 },
      { x: 1, y: 2 },
    ]);
  });

  it("is simple, has all pixels inside, and at most halves of clear ones where pixels touch at corners", () => {
    fc.assert(
      fc.property(masks, (mask) => {
        for (const island of islandsOf(mask, 1)) {
          const line = boundaryOf(island);
          expect(
            crossings([line.filter((each, k) => areaOf([line.at(k - 1) as never, each, line[(k + 1) % line.length] as never]) !== 0)]),
          ).toEqual([]);
          const own = pixelsOf(island.mask).map(([x, y]) => [x + island.x, y + island.y] as const);
          for (const [x, y] of own) expect(isInside(line, x + 0.5, y + 0.5)).toBe(true);
          expect(areaOf(line)).toBeGreaterThanOrEqual(own.length);
          for (const { x, y } of line) expect(awayFrom(own, x, y)).toBe(0);
        }
      }),
    );
  });

  it("is one per island, small ones ignored, holes filled", () => {
    const mask = drawn("####  #", "#  #   ", "#  # ##", "####   ");
    expect(islandsOf(mask, 1).map(({ mask: own }) => pixelsOf(own).length)).toEqual([16, 1, 2]);
    expect(islandsOf(mask, 2)).toHaveLength(2);
    expect(islandsOf({ width: 4, height: 4, bytes: new Uint8Array(16) }, 1)).toEqual([]);
  });
});

describe("a traced outline", () => {
  it("of a block is its four corners at any tolerance", () => {
    const mask = drawn("", " ######", " ######", " ######", " ######");
    for (const withinPx of [0, 1])
      expect(traced(mask, { withinPx, corners: 24, leastPx: 4 })).toEqual({
        polygons: [
          [
            { x: 1, y: 1 },
            { x: 7, y: 1 },
            { x: 7, y: 5 },
            { x: 1, y: 5 },
          ],
        ],
        over: 0,
      });
  });

  it("is simple and clockwise, has every pixel inside or near, strays nowhere, and no two cross", () => {
    fc.assert(
      fc.property(masks, fc.constantFrom(0, 0.5, 1, 2, 4), (mask, withinPx) => {
        const islands = islandsOf(mask, 4);
        const { polygons } = traced(mask, { withinPx, corners: 24, leastPx: 4 });
        expect(polygons).toHaveLength(islands.length);
        polygons.forEach((polygon, k) => {
          expect(isSimple(polygon)).toBe(true);
          expect(areaOf(polygon)).toBeGreaterThan(0);
          const island = islands[k] as (typeof islands)[number];
          const own = pixelsOf(island.mask).map(([x, y]) => [x + island.x, y + island.y] as const);
          for (const [x, y] of own) expect(distanceTo(polygon, x + 0.5, y + 0.5)).toBeLessThanOrEqual(withinPx + 1e-6);
          polygon.forEach((a, place) => {
            const b = polygon[(place + 1) % polygon.length] as typeof a;
            for (const t of [0, 0.25, 0.5, 0.75])
              expect(awayFrom(own, a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t)).toBeLessThanOrEqual(withinPx + 1);
          });
        });
      }),
      { numRuns: 300 },
    );
  });

  it("never has more corners than greedy simplification, and reports how many are too many", () => {
    fc.assert(
      fc.property(masks, (mask) => {
        const lines = islandsOf(mask, 4).map(boundaryOf);
        const { polygons, over } = traced(mask, { withinPx: 1, corners: 5, leastPx: 4 });
        expect(over).toBe(Math.max(0, ...polygons.map(({ length }) => length - 5)));
        for (const [k, polygon] of polygons.entries()) {
          const greedy = greedyCorners(lines[k] as Polygon, 1);
          if (isSimple(greedy)) expect(polygon.length).toBeLessThanOrEqual(greedy.length);
        }
      }),
    );
  });

  it("without dents is convex; parts without dents fill the outline and overlap nowhere", () => {
    fc.assert(
      fc.property(masks, (mask) => {
        const tracing = { withinPx: 1, corners: 24, leastPx: 4 };
        for (const polygon of traced(mask, { ...tracing, convex: "around" }).polygons)
          expect(isConvex(polygon) && isSimple(polygon)).toBe(true);
        for (const polygon of traced(mask, tracing).polygons) {
          const parts = convexParts(polygon);
          for (const part of parts) expect(isConvex(part)).toBe(true);
          expect(parts.reduce((sum, part) => sum + areaOf(part), 0)).toBeCloseTo(areaOf(polygon));
          for (let y = 0.5; y < 22; y++)
            for (let x = 0.37; x < 22; x++) {
              const times = parts.filter((part) => isInside(part, x, y)).length;
              expect(times).toBeLessThanOrEqual(1);
            }
        }
      }),
      { numRuns: 60 },
    );
  });

  it("of nothing is none, of one pixel and of a thin line something with an area", () => {
    const tracing = { withinPx: 3, corners: 24, leastPx: 1 };
    expect(traced(drawn("   "), tracing).polygons).toEqual([]);
    for (const mask of [drawn("#"), drawn("########"), drawn("#", " #", "  #", "   #")])
      for (const polygon of traced(mask, tracing).polygons) expect(isSimple(polygon) && areaOf(polygon) > 0).toBe(true);
  });

  it("hull of points on a line has no area", () => {
    expect(
      hullOf([
        { x: 0, y: 0 },
        { x: 2, y: 0 },
        { x: 1, y: 0 },
      ]),
    ).toHaveLength(2);
  });
});
