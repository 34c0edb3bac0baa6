import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BLENDS, type Blend } from "../model";
import { clearPixels, type Pixels } from "../raster";
import { layered } from "./layered";

type Rgba = [number, number, number, number];

const pixel = (...rgba: Rgba): Pixels => ({ ...clearPixels(1, 1), bytes: Uint8Array.of(...rgba) });
const one = (under: Rgba, over: Rgba, blend: Blend) => [
  ...layered([
    { pixels: pixel(...under), blend: "normal" },
    { pixels: pixel(...over), blend },
  ]).bytes,
];
const byte = fc.oneof(fc.constantFrom(0, 1, 128, 254, 255), fc.nat(255));
const rgba = fc.tuple(byte, byte, byte, byte);

/** The formulas as they stand in the recommendation, on colours from 0 to 1. */
function asWritten(under: Rgba, over: Rgba, blend: Blend): { alpha: number; colours: number[] } {
  const [ab, as] = [under[3] / 255, over[3] / 255];
  const alpha = blend === "add" ? Math.min(1, as + ab) : as + ab * (1 - as);
  const colours = [0, 1, 2].map((k) => {
    const [cb, cs] = [(under[k] as number) / 255, (over[k] as number) / 255];
    if (blend === "add") return Math.min(1, as * cs + ab * cb) / alpha;
    const mixed = (1 - ab) * cs + ab * (blend === "multiply" ? cb * cs : cs);
    return (as * mixed + (1 - as) * ab * cb) / alpha;
  });
  return { alpha: alpha * 255, colours: colours.map((each) => Math.min(255, each * 255)) };
}

describe("layered", () => {
  it("equals the formulas, to the nearest byte", () =>
    fc.assert(
      fc.property(rgba, rgba, fc.constantFrom(...BLENDS), (under, over, blend) => {
        const made = one(under, over, blend);
        if (over[3] === 0 && under[3] === 0) expect(made[3]).toBe(0);
        else if (over[3] === 0) expect(made).toEqual(under);
        else if (under[3] === 0) expect(made).toEqual(over);
        else {
          const { alpha, colours } = asWritten(under, over, blend);
          expect(Math.abs((made[3] as number) - alpha)).toBeLessThanOrEqual(0.5001);
          for (const [k, colour] of colours.entries()) expect(Math.abs((made[k] as number) - colour)).toBeLessThanOrEqual(0.5001);
        }
      }),
      { numRuns: 2000 },
    ));

  it("adds light, multiplies shade, and paints over", () => {
    expect(one([100, 100, 100, 255], [200, 40, 0, 255], "add")).toEqual([255, 140, 100, 255]);
    expect(one([100, 100, 100, 255], [200, 40, 0, 128], "add")).toEqual([200, 120, 100, 255]);
    expect(one([100, 100, 100, 255], [51, 255, 0, 255], "multiply")).toEqual([20, 100, 0, 255]);
    expect(one([100, 100, 100, 255], [200, 40, 0, 255], "normal")).toEqual([200, 40, 0, 255]);
  });

  it("does not change the given pictures", () => {
    const below = pixel(1, 2, 3, 255);
    layered([
      { pixels: below, blend: "normal" },
      { pixels: pixel(9, 9, 9, 200), blend: "add" },
    ]);
    expect([...below.bytes]).toEqual([1, 2, 3, 255]);
  });
});
