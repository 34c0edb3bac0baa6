import { describe, expect, it } from "vitest";
import type { Clearing } from "../model";
import { clearGround } from "./clear-ground";
import { findGround } from "./ground";
import { clearPixels, type Pixels } from "./pixels";

type Paint = (x: number, y: number) => readonly [number, number, number];

/** A 60 × 40 px sheet on a painted ground: a red ring with ground showing through its middle, and a white eye in a red block. */
function sheetOn(ground: Paint): { pixels: Pixels; isSubject: (x: number, y: number) => boolean } {
  const pixels = clearPixels(60, 40);
  const inRing = (x: number, y: number) => Math.abs(Math.hypot(x - 18, y - 20) - 9) < 3;
  const inBlock = (x: number, y: number) => x >= 36 && x < 52 && y >= 10 && y < 34;
  const isEye = (x: number, y: number) => x >= 40 && x < 43 && y >= 14 && y < 17;
  for (let y = 0; y < 40; y++)
    for (let x = 0; x < 60; x++) {
      const colour = isEye(x, y) ? [255, 255, 255] : inRing(x, y) || inBlock(x, y) ? [170, 40, 30] : ground(x, y);
      pixels.bytes.set([...colour, 255], (y * 60 + x) * 4);
    }
  return { pixels, isSubject: (x, y) => inRing(x, y) || inBlock(x, y) };
}

const alphaAt = ({ bytes, width }: Pixels, x: number, y: number) => bytes[(y * width + x) * 4 + 3];
const noise = (x: number, y: number) => ((x * 7 + y * 13) % 5) - 2;
const checker: Paint = (x, y) => (((x >> 3) + (y >> 3)) % 2 === 0 ? [204, 204, 204] : [255, 255, 255]);

describe("findGround", () => {
  it("notices plain white", () =>
    expect(findGround(sheetOn(() => [255, 255, 255]).pixels)).toEqual({
      kind: "plain",
      clearing: { colours: ["#ffffff"], tolerance: 0, from: "edges", fringe: false },
    }));

  it("notices a white that a lossy file made uneven, with tolerance for it", () => {
    const found = findGround(sheetOn((x, y) => [251 + noise(x, y), 252 + noise(y, x), 250 + noise(x + y, y)]).pixels);
    expect(found?.kind).toBe("plain");
    expect(found?.clearing.tolerance).toBeGreaterThanOrEqual(2);
    expect(found?.clearing.tolerance).toBeLessThan(20);
  });

  it("recognises a bright key colour", () => expect(findGround(sheetOn(() => [255, 0, 255]).pixels)?.kind).toBe("key"));

  it("notices a picture of a checkerboard, with both its colours", () => {
    const found = findGround(sheetOn(checker).pixels);
    expect(found?.kind).toBe("checker");
    expect(new Set(found?.clearing.colours)).toEqual(new Set(["#cccccc", "#ffffff"]));
  });

  it("finds none if the edges are transparent, or painted in many colours", () => {
    expect(findGround(clearPixels(20, 20))).toBeNull();
    expect(findGround(sheetOn((x, y) => [(x * 37) % 256, (y * 59) % 256, (x * y) % 256]).pixels)).toBeNull();
  });
});

describe("clearGround", () => {
  it.each([
    ["white", (() => [255, 255, 255]) as Paint],
    ["a checkerboard", checker],
  ])("from the edges clears %s, and leaves the eye and what the ring encloses", (_name, ground) => {
    const { pixels, isSubject } = sheetOn(ground);
    const found = findGround(pixels);
    const cleared = clearGround(pixels, found?.clearing as Clearing);
    for (let y = 0; y < 40; y++)
      for (let x = 0; x < 60; x++) {
        const enclosed = Math.hypot(x - 18, y - 20) < 7;
        expect(alphaAt(cleared, x, y)).toBe(isSubject(x, y) || enclosed ? 255 : 0);
      }
    expect(alphaAt(cleared, 41, 15)).toBe(255);
  });

  it("everywhere also clears enclosed areas", () => {
    const { pixels } = sheetOn(() => [255, 255, 255]);
    const cleared = clearGround(pixels, { colours: ["#ffffff"], tolerance: 0, from: "everywhere", fringe: false });
    expect(alphaAt(cleared, 18, 20)).toBe(0);
    expect(alphaAt(cleared, 41, 15)).toBe(0);
  });

  it("keeps every drawn colour, and does not change the given picture", () => {
    const { pixels } = sheetOn(() => [0, 255, 0]);
    const before = pixels.bytes.slice();
    const cleared = clearGround(pixels, { colours: ["#00ff00"], tolerance: 10, from: "edges", fringe: false });
    expect(pixels.bytes).toEqual(before);
    for (let k = 0; k < before.length; k += 4)
      if (cleared.bytes[k + 3] !== 0) expect([...cleared.bytes.subarray(k, k + 4)]).toEqual([...before.subarray(k, k + 4)]);
  });

  it("removes the background from smooth edges: full colour, with its share as alpha", () => {
    // A disc drawn smoothly on white: at its rim, half of the pixel is disc.
    const pixels = clearPixels(40, 40);
    const share = (x: number, y: number) => Math.max(0, Math.min(1, 14.5 - Math.hypot(x - 20, y - 20)));
    for (let y = 0; y < 40; y++)
      for (let x = 0; x < 40; x++) {
        const t = share(x, y);
        pixels.bytes.set(
          [Math.round(255 + t * (30 - 255)), Math.round(255 + t * (60 - 255)), Math.round(255 + t * (120 - 255)), 255],
          (y * 40 + x) * 4,
        );
      }
    const found = findGround(pixels);
    expect(found?.clearing.fringe).toBe(true);
    const cleared = clearGround(pixels, found?.clearing as Clearing);
    for (let y = 0; y < 40; y++)
      for (let x = 0; x < 40; x++) {
        const k = (y * 40 + x) * 4;
        const t = share(x, y);
        if (t < 0.2) continue;
        expect(Math.abs((cleared.bytes[k + 3] as number) / 255 - t)).toBeLessThan(0.12);
        expect([...cleared.bytes.subarray(k, k + 3)]).toEqual([30, 60, 120]);
      }
  });
});
