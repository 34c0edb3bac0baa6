import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Flip } from "../model";
import { clearPixels, mirrored, type Pixels, samePixels } from "../raster";
import { assembled, hatched, type LaidPiece } from "./assemble";

const pixel = fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255), fc.constantFrom(0, 255, 255, 128));
const pixels = fc
  .record({ width: fc.integer({ min: 1, max: 6 }), height: fc.integer({ min: 1, max: 6 }) })
  .chain(({ width, height }) =>
    fc
      .array(pixel, { minLength: width * height, maxLength: width * height })
      .map((all): Pixels => ({ width, height, bytes: Uint8Array.from(all.flat()) })),
  );
const piece: fc.Arbitrary<LaidPiece> = fc.record({
  pixels,
  x: fc.integer({ min: -7, max: 9 }),
  y: fc.integer({ min: -7, max: 9 }),
  flip: fc.constantFrom<Flip | undefined>(undefined, "across", "down", "both"),
});

/** One pixel of the canvas at a time, from the lowest piece up, as the page says it. */
function told(w: number, h: number, pieces: readonly LaidPiece[]): number[][] {
  return Array.from({ length: w * h }, (_, at) => {
    let under = [0, 0, 0, 0];
    for (const {
      pixels: { width, height, bytes },
      x,
      y,
      flip,
    } of pieces) {
      let [column, row] = [(at % w) - x, Math.floor(at / w) - y];
      if (column < 0 || row < 0 || column >= width || row >= height) continue;
      if (flip === "across" || flip === "both") column = width - 1 - column;
      if (flip === "down" || flip === "both") row = height - 1 - row;
      const over = [...bytes.subarray((row * width + column) * 4, (row * width + column) * 4 + 4)];
      const [a, b] = [(over[3] as number) / 255, (under[3] as number) / 255];
      if (a === 0) continue;
      const alpha = a + b * (1 - a);
      under = [0, 1, 2].map((k) => ((over[k] as number) * a + (under[k] as number) * b * (1 - a)) / alpha).concat(alpha * 255);
    }
    return under;
  });
}

describe("assembled frames", () => {
  it("show each piece flipped at its place over those below, cut off at the canvas, opaque and clear pixels exact", () => {
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 5 }), (pieces) => {
        const made = assembled({ w: 8, h: 7 }, pieces);
        const wanted = told(8, 7, pieces);
        const soft = pieces.some(({ pixels: { bytes } }) => bytes.some((byte, k) => k % 4 === 3 && byte === 128));
        // Each of several half-transparent layers may round once.
        for (const [k, each] of wanted.entries())
          for (const [channel, value] of each.entries())
            if (each[3] !== 0) expect(Math.abs((made.bytes[k * 4 + channel] as number) - value)).toBeLessThanOrEqual(soft ? 3 : 0);
      }),
    );
  });

  it("mirrored as a whole equal their pieces mirrored and placed from the other side", () => {
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 4 }), (pieces) => {
        const other = pieces.map((each) => ({ ...each, pixels: mirrored(each.pixels), x: 8 - each.x - each.pixels.width }));
        expect(samePixels(mirrored(assembled({ w: 8, h: 7 }, pieces)), assembled({ w: 8, h: 7 }, other))).toBe(true);
      }),
    );
  });

  it("without pieces are transparent, and missing pieces are drawn visibly", () => {
    expect(samePixels(assembled({ w: 3, h: 2 }, []), clearPixels(3, 2))).toBe(true);
    const box = hatched({ w: 8, h: 5 });
    expect(box.bytes.filter((byte, k) => k % 4 === 3 && byte === 255).length).toBeGreaterThan(20);
  });
});
