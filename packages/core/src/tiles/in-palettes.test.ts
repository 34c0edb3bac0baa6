import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Palette } from "../model";
import { clearPixels, crop, looksSame, type Pixels, paste } from "../raster";
import { inPalettes, worn } from "./in-palettes";

const ROBE: Palette = { name: "robe", colours: ["#101010", "#202020", "#303030"] };
const GUARD: Palette = { name: "guard", of: "robe", colours: ["#400000", "#500000", "#600000"] };
const ELDER: Palette = { name: "elder", of: "robe", colours: ["#000040", "#000040", "#000060"] };
const ALL = [GUARD, ROBE, ELDER];
const TILE = { w: 2, h: 2 };

const rgb = fc.constantFrom(...ALL.flatMap(({ colours }) => colours), "#ff00ff");
const picture = fc
  .record({
    w: fc.integer({ min: 1, max: 6 }),
    h: fc.integer({ min: 1, max: 6 }),
    colours: fc.array(rgb, { minLength: 36, maxLength: 36 }),
  })
  .map(({ w, h, colours }): Pixels => {
    const made = clearPixels(w, h);
    for (let k = 0; k < w * h; k++) {
      const value = Number.parseInt((colours[k] as string).slice(1), 16);
      if (k % 5 !== 4) made.bytes.set([value >> 16, (value >> 8) & 255, value & 255, k % 7 === 3 ? 128 : 255], k * 4);
    }
    return made;
  });

/** A picture of one tile. */
const tileOf = (...colours: string[]): Pixels => {
  const made = clearPixels(2, 2);
  for (const [k, colour] of colours.entries()) {
    const value = Number.parseInt(colour.slice(1), 16);
    made.bytes.set([value >> 16, (value >> 8) & 255, value & 255, 255], k * 4);
  }
  return made;
};
const one = (pixels: Pixels) => {
  const { pictures, wornAt, use } = inPalettes([{ name: "one", pixels }], TILE, ALL);
  return { pixels: pictures[0]?.pixels as Pixels, wears: wornAt(0, 0, 0), use: use[0] };
};

describe("tiles in palettes", () => {
  it("recoloured back by their palettes are the picture again, every tile", () =>
    fc.assert(
      fc.property(picture, (pixels) => {
        const { pictures, wornAt } = inPalettes([{ name: "one", pixels }], TILE, ALL);
        const again = clearPixels(pixels.width, pixels.height);
        for (let y = 0; y < pixels.height; y += 2)
          for (let x = 0; x < pixels.width; x += 2) {
            const area = { x, y, w: Math.min(2, pixels.width - x), h: Math.min(2, pixels.height - y) };
            const tile = worn(crop(pictures[0]?.pixels as Pixels, area), ALL, wornAt(0, x, y));
            paste(again, tile, { x: 0, y: 0, w: area.w, h: area.h }, x, y);
          }
        expect(looksSame(again, pixels)).toBe(true);
      }),
    ));

  it("are in the colours that their palette replaces, palettes to draw in first", () => {
    expect(one(tileOf("#400000", "#600000"))).toMatchObject({ wears: "guard", use: { palettes: ["guard"], outside: 0, mostColours: 2 } });
    expect(looksSame(one(tileOf("#400000", "#600000")).pixels, tileOf("#101010", "#303030"))).toBe(true);
    expect(one(tileOf("#101010")).wears).toBe("robe");
    // Two colours of the robe are one in the elder's: the first is meant.
    expect(one(tileOf("#000040")).wears).toBe("elder");
  });

  it("of several palettes, or of a colour in none, wear none and stay", () => {
    for (const mixed of [tileOf("#101010", "#400000"), tileOf("#ff00ff")]) {
      expect(one(mixed)).toMatchObject({ wears: null, use: { palettes: [], outside: 1 } });
      expect(looksSame(one(mixed).pixels, mixed)).toBe(true);
    }
    expect(one(clearPixels(2, 2)).use).toEqual({ name: "one", palettes: [], outside: 0, mostColours: 0 });
  });
});
