import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnIn } from "../art";
import { clearPixels, coverageOf, type Pixels, paste, turnClockwise } from "../raster";
import { commonOrigin, DRAWN_WAYS, drawnOrigin, originAtPlace, PLACES, pointAtShare, sameSizes, shareOf } from ".";

/** A figure drawn with `#` on blanks. */
function drawing(...rows: string[]): Pixels {
  const pixels = clearPixels(rows[0]?.length ?? 0, rows.length);
  for (const [y, row] of rows.entries())
    for (const [x, each] of [...row].entries()) if (each === "#") pixels.bytes[(y * pixels.width + x) * 4 + 3] = 255;
  return pixels;
}

const STRIDING = drawing("..........", "...##.....", "...##.....", "..####....", "..#.##....", ".##..##...", ".#....#...", "..........");
const whole = (pixels: Pixels) => ({ rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } });

describe("the nine places", () => {
  it("are the corners, the middles of the edges and the middle", () => {
    expect(PLACES.map((place) => originAtPlace({ w: 9, h: 20 }, place))).toEqual(
      [0, 10, 20].flatMap((y) => [0, 4.5, 9].map((x) => ({ x, y }))),
    );
  });

  it("a point in fractions of its size is the same point again", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: -200, max: 900 }),
        fc.integer({ min: -200, max: 900 }),
        (w, h, x, y) => {
          const point = { x: x / 2, y: y / 2 };
          expect(pointAtShare(shareOf(point, { w, h }), { w, h })).toEqual(point);
        },
      ),
    ));
});

describe("an origin from the drawing", () => {
  it("feet: the middle between the feet, on the ground under them", () =>
    expect(drawnOrigin(drawnIn(coverageOf(STRIDING), {}, whole(STRIDING)), "feet")).toEqual({ x: 4, y: 7 }));

  it("box: the middle of the bottom of the box around the figure", () =>
    expect(drawnOrigin(drawnIn(coverageOf(STRIDING), {}, whole(STRIDING)), "box")).toEqual({ x: 4, y: 7 }));

  it("mass: the middle of all its pixels, in halves", () => {
    const point = drawnOrigin(drawnIn(coverageOf(STRIDING), {}, whole(STRIDING)), "mass");
    expect(point).toEqual({ x: 4, y: 4 });
    expect(drawnOrigin(drawnIn(coverageOf(drawing("##", ".#")), {}, whole(drawing("##", ".#"))), "mass")).toEqual({ x: 1, y: 1 });
  });

  it("is none for an empty frame", () =>
    expect(drawnOrigin(drawnIn(coverageOf(clearPixels(4, 4)), {}, whole(clearPixels(4, 4))), "feet")).toBeNull());

  it("is the same however the frame is stored: elsewhere on its picture, trimmed, or turned", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 40 }),
        fc.array(fc.tuple(fc.nat(39), fc.nat(39)), { minLength: 1, maxLength: 30 }),
        fc.nat(50),
        fc.nat(50),
        fc.constantFrom(...DRAWN_WAYS),
        (w, h, dots, x, y, way) => {
          const figure = clearPixels(w, h);
          for (const [dx, dy] of dots) figure.bytes[((dy % h) * w + (dx % w)) * 4 + 3] = 255;
          const plain = drawnOrigin(drawnIn(coverageOf(figure), {}, whole(figure)), way);
          const stored = turnClockwise(figure);
          const page = clearPixels(120, 120);
          paste(page, stored, { x: 0, y: 0, w: stored.width, h: stored.height }, x, y);
          const frame = { rect: { x, y, w: stored.width, h: stored.height }, turned: true as const };
          expect(drawnOrigin(drawnIn(coverageOf(page), {}, frame), way)).toEqual(plain);
          const trimmed = { ...frame, size: { w: w + 7, h: h + 9 }, inset: { x: 3, y: 5 } };
          expect(drawnOrigin(drawnIn(coverageOf(page), {}, trimmed), way)).toEqual(plain && { x: plain.x + 3, y: plain.y + 5 });
        },
      ),
    ));
});

describe("one origin for several frames", () => {
  it("is their median in x, and the lowest in y, so that no foot is below the ground", () => {
    expect(
      commonOrigin([
        { x: 3, y: 7 },
        { x: 4.5, y: 8 },
        { x: 9, y: 6 },
      ]),
    ).toEqual({ x: 4.5, y: 8 });
    expect(
      commonOrigin([
        { x: 3, y: 7 },
        { x: 4, y: 7 },
      ]),
    ).toEqual({ x: 3.5, y: 7 });
    expect(commonOrigin([])).toBeNull();
  });

  it("means the same only in frames of one size", () => {
    const placed = (w: number, h: number, scale = 1, turned = false) => ({
      source: { scale },
      frame: { rect: { x: 0, y: 0, w, h }, ...(turned ? { turned: true as const } : {}) },
    });
    expect(sameSizes([placed(3, 4), placed(3, 4)])).toBe(true);
    expect(sameSizes([placed(3, 4), placed(4, 3, 1, true)])).toBe(true);
    expect(sameSizes([placed(3, 4), placed(4, 4)])).toBe(false);
    expect(sameSizes([placed(3, 4), placed(6, 8, 0.5), placed(1, 1, 3)])).toBe(false);
    expect(sameSizes([placed(3, 4), placed(6, 8, 0.5)])).toBe(true);
  });
});
