import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Frame, frameSize } from "../model";
import { clearPixels, coverageOf, crop, drawnPart, looksSame, type Pixels, scaled } from "../raster";
import { artFrom, drawnIn, framePixels, isNearest, lookOf, proposedScales, scaleInWords } from ".";

/** A picture of single pixels; `soft` gives some of them half of their alpha. */
function dotted(soft: boolean): fc.Arbitrary<Pixels> {
  return fc.array(fc.tuple(fc.nat(23), fc.nat(19), fc.nat(3)), { minLength: 5, maxLength: 90 }).map((dots) => {
    const pixels = clearPixels(24, 20);
    for (const [x, y, colour] of dots)
      pixels.bytes.set([colour * 60, 200 - colour * 40, 9, soft && colour === 1 ? 120 : 255], (y * 24 + x) * 4);
    return pixels;
  });
}

const place = fc
  .record({
    x: fc.nat(12),
    y: fc.nat(10),
    w: fc.integer({ min: 1, max: 12 }),
    h: fc.integer({ min: 1, max: 10 }),
    padded: fc.boolean(),
    turned: fc.boolean(),
  })
  .map(({ x, y, w, h, padded, turned }): Pick<Frame, "rect" | "size" | "inset" | "turned"> => {
    const [across, down] = turned ? [h, w] : [w, h];
    return {
      rect: { x, y, w, h },
      ...(turned ? { turned: true } : {}),
      ...(padded ? { size: { w: across + 5, h: down + 3 }, inset: { x: 2, y: 1 } } : {}),
    };
  });

const scale = fc.constantFrom(1, 2, 3, 5, 0.5, 1 / 3, 0.25, 0.75, 1.5, 0.1);

describe("a frame at its source's scale", () => {
  it("has the size given by the model, and is drawn where its coverage says", () =>
    fc.assert(
      fc.property(dotted(false), place, scale, (picture, frame, times) => {
        const source = { scale: times };
        const pixels = framePixels(picture, source, frame);
        expect({ w: pixels.width, h: pixels.height }).toEqual(frameSize(source, frame));
        const { coverage, frame: within } = drawnIn(coverageOf(picture), source, frame);
        const seen = coverageOf(pixels);
        if (times !== 1) expect(coverage.bits).toEqual(seen.bits);
        else if (!frame.turned && !frame.size) expect(drawnPart(coverage, within.rect) !== null).toBe(seen.bits.some((word) => word !== 0));
      }),
      { numRuns: 300 },
    ));

  it("at a whole scale repeats each pixel, and is restored by the inverse", () =>
    fc.assert(
      fc.property(dotted(false), place, fc.integer({ min: 2, max: 6 }), (picture, frame, times) => {
        const plain = framePixels(picture, {}, frame);
        const large = framePixels(picture, { scale: times }, frame);
        const back = framePixels(large, { scale: 1 / times }, { rect: { x: 0, y: 0, w: large.width, h: large.height } });
        expect(looksSame(back, plain)).toBe(true);
      }),
    ));

  it("picks single pixels of crisp art at ½, and averages soft art or fractional scales", () =>
    fc.assert(
      fc.property(dotted(false), dotted(true), (crisp, soft) => {
        const rect = { x: 2, y: 2, w: 12, h: 12 };
        const colours = new Set(Array.from(crop(crisp, rect).bytes.filter((_, k) => k % 4 === 0)));
        for (const value of framePixels(crisp, { scale: 0.5 }, { rect }).bytes.filter((_, k) => k % 4 === 0))
          expect(colours).toContain(value);
        const isSoft = coverageOf(soft).soft === true;
        expect(looksSame(framePixels(soft, { scale: 0.5 }, { rect }), scaled(crop(soft, rect), 0.5, !isSoft))).toBe(true);
        expect(looksSame(framePixels(crisp, { scale: 0.75 }, { rect }), scaled(crop(crisp, rect), 0.75))).toBe(true);
      }),
    ));

  it("reads an inverse written with few decimals correctly", () => {
    expect([0.5, 0.333, 0.3333, 0.25, 0.2, 0.125, 0.0625].map((each) => isNearest(each, false))).toEqual(Array(7).fill(true));
    expect([0.4, 0.75, 0.9, 1.5, 0.55].map((each) => isNearest(each, false))).toEqual(Array(5).fill(false));
  });
});

describe("proposedScales", () => {
  it("makes figures equally tall, by a whole factor if one is near", () => {
    const [first] = proposedScales({ heights: [15, 16, 16], pixel: 1, scale: 1 }, { heights: [44, 46, 47], pixel: 1, scale: 1 });
    expect(first).toEqual({ scale: 3, because: "heights", own: 48, other: 46 });
    expect(proposedScales({ heights: [30], pixel: 1, scale: 1 }, { heights: [43], pixel: 1, scale: 1 })[0]?.scale).toBe(1.43);
    expect(proposedScales({ heights: [64], pixel: 1, scale: 1 }, { heights: [17], pixel: 1, scale: 1 })[0]?.scale).toBe(0.25);
  });

  it("makes the art's own pixels equally large, and counts how large the other is in the project", () => {
    const own = { heights: [64], pixel: 4, scale: 1 };
    expect(proposedScales(own, { heights: [], pixel: 1, scale: 1 })).toEqual([{ scale: 0.25, because: "pixels", own: 1, other: 1 }]);
    expect(proposedScales(own, { heights: [40], pixel: 1, scale: 2 }).map((each) => [each.because, each.scale])).toEqual([
      ["heights", 1.25],
      ["pixels", 0.5],
    ]);
  });

  it("says scales as people write them", () => {
    expect([2, 0.5, 0.25, 1 / 3, 0.333, 0.75, 1].map(scaleInWords)).toEqual(["×2", "×½", "×¼", "×⅓", "×⅓", "×0.75", "×1"]);
  });
});

describe("a look", () => {
  const clearing = { colours: ["#ff00ff"], tolerance: 0, from: "everywhere", fringe: false } as const;
  const picture = { sha256: "a".repeat(64), file: "a.png", width: 2, height: 1 };
  const decoded = { width: 2, height: 1, bytes: Uint8Array.of(255, 0, 255, 255, 9, 9, 9, 255) };

  it("is one object per recipe", () => {
    const told = structuredClone({ clearing: { ...clearing, colours: [...clearing.colours] } });
    expect(lookOf(told, picture)).toBe(lookOf(structuredClone(told), { sha256: picture.sha256 }));
    expect(lookOf(told, picture)).not.toBe(lookOf({}, picture));
    const keys = [lookOf(told, picture), lookOf({}, picture), lookOf({}, { sha256: "b".repeat(64) })].map(({ key }) => key);
    expect(new Set(keys).size).toBe(3);
  });

  it("is the same in all its frames, and a missing picture is reported by its file", () => {
    const source = { pictures: [picture], clearing: { ...clearing, colours: [...clearing.colours] } };
    const art = artFrom(new Map([[picture.sha256, decoded]]), { sources: [] });
    const { pixels, rect } = art.frame(source, { rect: { x: 0, y: 0, w: 1, h: 1 } });
    expect([...crop(pixels, rect).bytes]).toEqual([0, 0, 0, 0]);
    expect(art.picture(lookOf({}, picture))).toBe(decoded);
    expect(() => artFrom(new Map(), { sources: [] }).frame(source, { rect: { x: 0, y: 0, w: 1, h: 1 } })).toThrow(/a\.png.*missing/);
  });
});
