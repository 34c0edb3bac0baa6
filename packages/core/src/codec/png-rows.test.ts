import { deflateSync } from "node:zlib";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, type Pixels } from "../raster";
import { joined } from "./joined";
import { png } from "./png.fixture";
import { chunk } from "./png-chunks";
import { restoringRows } from "./png-rows";

/** Filters rows byte by byte, as the specification's section 9.2 has it. */
function filtered({ width, height, bytes }: Pixels, filters: readonly number[]): Uint8Array {
  const stride = width * 4;
  const rows = new Uint8Array((stride + 1) * height);
  const at = (x: number, y: number) => (x < 0 || y < 0 ? 0 : (bytes[y * stride + x] as number));
  for (let y = 0; y < height; y++) {
    const filter = filters[y % filters.length] as number;
    rows[y * (stride + 1)] = filter;
    for (let x = 0; x < stride; x++) {
      const [a, b, c] = [at(x - 4, y), at(x, y - 1), x < 4 ? 0 : at(x - 4, y - 1)];
      const byPaeth = [a, b, c].reduce((best, each) => (Math.abs(a + b - c - each) < Math.abs(a + b - c - best) ? each : best));
      const predicted = [0, a, b, Math.floor((a + b) / 2), byPaeth][filter] as number;
      rows[y * (stride + 1) + 1 + x] = at(x, y) - predicted;
    }
  }
  return rows;
}

function written({ width, height }: Pixels, rows: Uint8Array): Uint8Array {
  const header = new Uint8Array([0, 0, 0, 0, 0, 0, 0, 0, 8, 6, 0, 0, 0]);
  new DataView(header.buffer).setUint32(0, width);
  new DataView(header.buffer).setUint32(4, height);
  const signature = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a);
  return joined([signature, chunk("IHDR", header), chunk("IDAT", deflateSync(rows)), chunk("IEND", new Uint8Array(0))]);
}

/** Noise, and drawn art of few colours, in which neighbours are often equal. */
const pictures = fc
  .record({
    width: fc.integer({ min: 1, max: 24 }),
    height: fc.integer({ min: 1, max: 12 }),
    colours: fc.array(fc.uint8Array({ minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 60 }),
    seed: fc.integer({ min: 1 }),
  })
  .map(({ width, height, colours, seed }): Pixels => {
    const pixels = clearPixels(width, height);
    let state = seed;
    for (let k = 0; k < width * height; k++) {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      pixels.bytes.set(colours[(state >>> 12) % colours.length] as Uint8Array, k * 4);
    }
    return pixels;
  });
const filters = fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 1, maxLength: 12 });

describe("filtered rows", () => {
  it("give every byte back, whatever their filters and in whatever parts they come, as the coder reads them too", () =>
    fc.assert(
      fc.property(pictures, filters, fc.integer({ min: 1, max: 130 }), (pixels, chosen, part) => {
        const rows = filtered(pixels, chosen);
        const into = new Uint8Array(pixels.bytes.length);
        const restoring = restoringRows(pixels.width, pixels.height, into);
        for (let at = 0; at < rows.length; at += part) {
          expect(restoring.isWhole()).toBe(false);
          expect(restoring.add(rows.subarray(at, at + part))).toBe(true);
        }
        expect(restoring.isWhole()).toBe(true);
        expect(into).toEqual(pixels.bytes);
        expect(png.decode(written(pixels, rows), "x").bytes).toEqual(pixels.bytes);
      }),
      { numRuns: 300 },
    ));

  it("with a filter that does not exist, or more of them than the picture has, are refused", () => {
    const pixels = clearPixels(3, 2);
    const rows = filtered(pixels, [1]);
    const restoring = () => restoringRows(3, 2, new Uint8Array(24));
    expect(restoring().add(Uint8Array.from(rows, (byte, k) => (k === 13 ? 5 : byte)))).toBe(false);
    expect(restoring().add(joined([rows, Uint8Array.of(0)]))).toBe(false);
  });
});
