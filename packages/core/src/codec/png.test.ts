import { deflateSync } from "node:zlib";
import CRC32 from "crc-32";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, type Pixels, samePixels } from "../raster";
import { png } from "./png.fixture";
import { encodeIndexed } from "./png-indexed";

/** A small PNG writer of the tests' own, for every kind of file that ours never writes. */
function chunk(type: string, content: Uint8Array | number[], crc?: number): number[] {
  const bytes = [...new TextEncoder().encode(type), ...content];
  const sum = crc ?? CRC32.buf(bytes);
  const word = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];
  return [...word(content.length), ...bytes, ...word(sum >>> 0)];
}
const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const header = (width: number, height: number, depth: number, type: number, interlace = 0) => {
  const word = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255];
  return chunk("IHDR", [...word(width), ...word(height), depth, type, 0, 0, interlace]);
};
const data = (rows: number[]) => chunk("IDAT", deflateSync(Uint8Array.from(rows)));
const file = (...parts: number[][]) => Uint8Array.from([...SIGNATURE, ...parts.flat()]);
const END = chunk("IEND", []);
const decode = (bytes: Uint8Array) => png.decode(bytes, "art/x.png");
const pixelsOf = (bytes: Uint8Array) => [...decode(bytes).bytes];

const pictures = (palette: number) =>
  fc
    .record({ width: fc.integer({ min: 1, max: 40 }), height: fc.integer({ min: 1, max: 20 }), seed: fc.integer({ min: 1 }) })
    .map(({ width, height, seed }): Pixels => {
      const pixels = clearPixels(width, height);
      let state = seed;
      const next = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0);
      const colours = Array.from({ length: palette }, () => [
        next() >>> 24,
        next() >>> 24,
        next() >>> 24,
        [0, 1, 128, 255][next() >>> 30] as number,
      ]);
      for (let k = 0; k < width * height; k++) pixels.bytes.set(colours[(next() >>> 8) % palette] as number[], k * 4);
      return pixels;
    });

describe("PNG out and in again", () => {
  for (const palette of [1, 2, 3, 16, 17, 256, 700])
    it(`gives every byte back with ${palette} colours, half-transparent ones and those under alpha 0 too`, () =>
      fc.assert(
        fc.property(pictures(palette), (pixels) => {
          const written = png.encode(pixels);
          expect(samePixels(decode(written), pixels)).toBe(true);
          expect(png.encode(pixels)).toEqual(written);
        }),
        { numRuns: 40 },
      ));

  it("writes indexed files for up to 256 colours, and none beyond", () => {
    const pixels = clearPixels(257, 1);
    for (let k = 0; k < 257; k++) pixels.bytes.set([k & 255, k >> 8, 0, 255], k * 4);
    expect(encodeIndexed(pixels)).toBeNull();
    expect(encodeIndexed(clearPixels(257, 1))?.length).toBeLessThan(100);
  });
});

describe("PNG of every kind", () => {
  it("reads grey of 1, 2, 4, 8 and 16 bits, 16-bit samples by their high byte", () => {
    expect(pixelsOf(file(header(3, 1, 1, 0), data([0, 0b10100000]), END))).toEqual([255, 255, 255, 255, 0, 0, 0, 255, 255, 255, 255, 255]);
    expect(pixelsOf(file(header(2, 1, 4, 0), data([0, 0x3f]), END))).toEqual([51, 51, 51, 255, 255, 255, 255, 255]);
    expect(pixelsOf(file(header(1, 1, 8, 0), data([0, 77]), END))).toEqual([77, 77, 77, 255]);
    expect(pixelsOf(file(header(1, 1, 16, 0), data([0, 200, 255]), END))).toEqual([200, 200, 200, 255]);
    expect(pixelsOf(file(header(1, 1, 16, 6), data([0, 1, 250, 2, 250, 3, 250, 128, 255]), END))).toEqual([1, 2, 3, 128]);
  });

  it("reads palettes with and without alphas, and colours made clear by tRNS", () => {
    const palette = chunk("PLTE", [10, 20, 30, 40, 50, 60]);
    expect(pixelsOf(file(header(2, 1, 8, 3), palette, chunk("tRNS", [0]), data([0, 0, 1]), END))).toEqual([10, 20, 30, 0, 40, 50, 60, 255]);
    expect(pixelsOf(file(header(2, 1, 8, 2), chunk("tRNS", [0, 1, 0, 2, 0, 3]), data([0, 1, 2, 3, 1, 2, 4]), END))).toEqual([
      1, 2, 3, 0, 1, 2, 4, 255,
    ]);
  });

  it("reads interlaced files", () => {
    // A single pixel stands in the first of the seven passes.
    expect(pixelsOf(file(header(1, 1, 8, 2, 1), data([0, 9, 8, 7]), END))).toEqual([9, 8, 7, 255]);
  });

  it("does not apply gamma", () =>
    expect(pixelsOf(file(header(1, 1, 8, 2), chunk("gAMA", [0, 0, 0x27, 0x10]), data([0, 100, 100, 100]), END))).toEqual([
      100, 100, 100, 255,
    ]));
});

describe("a damaged PNG", () => {
  const good = file(header(2, 2, 8, 2), data([0, 1, 2, 3, 4, 5, 6, 0, 7, 8, 9, 10, 11, 12]), END);

  it("is reported with the problem and the remedy", () => {
    const said = (bytes: Uint8Array) => {
      try {
        decode(bytes);
        return "nothing";
      } catch (error) {
        return (error as Error).message;
      }
    };
    expect(said(new Uint8Array(0))).toBe("art/x.png: The file is empty (0 bytes). Export the picture again.");
    expect(said(new TextEncoder().encode("hello, I am text"))).toMatch(/not a PNG picture/);
    expect(said(Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4, 5))).toMatch(/JPEG picture, not a PNG/);
    expect(said(good.subarray(0, 40))).toMatch(/cut off/);
    expect(said(good.subarray(0, good.length - 12))).toMatch(/its end is missing/);
    expect(said(file(header(2, 2, 8, 5), data([0]), END))).toMatch(/colour type 5 with 8 bits does not exist/);
    expect(said(file(header(2, 2, 3, 0), data([0]), END))).toMatch(/3 bits does not exist/);
    expect(said(file(header(0, 2, 8, 2), data([0]), END))).toMatch(/0 × 2 px/);
    expect(said(file(header(2, 2, 8, 2), END))).toMatch(/no picture data/);
    expect(said(file(header(2, 2, 8, 3), data([0, 0, 0, 0, 0, 0]), END))).toMatch(/needs a palette/);
    expect(said(file(header(2, 2, 8, 2), chunk("IDAT", [1, 2, 3], 5), END))).toMatch(/IDAT at byte 33 is damaged: its checksum/);
    expect(said(file(header(2, 2, 8, 2), chunk("IDAT", [1, 2, 3]), END))).toMatch(/damaged and cannot be unpacked/);
    expect(said(file(header(2, 2, 8, 2), data([0, 1, 2]), END))).toMatch(/damaged|does not fill/);
    expect(said(file(header(16_385, 1, 8, 0), data([0]), END))).toMatch(/16385 × 1 px; the limits are 16384 px a side/);
    expect(said(file(header(16_384, 16_384, 8, 0), data([0]), END))).toMatch(/128 million pixels/);
  });

  it("never breaks the coder for the next one", () => {
    for (let k = 0; k < 200; k++) {
      expect(() => decode(file(header(2, 2, 8, 2), chunk("IDAT", [1, 2, 3, k]), END))).toThrow();
      if (k % 20 === 0) expect(decode(good).bytes[0]).toBe(1);
    }
  });

  it("is refused with a clear error or read, whatever bytes are changed or truncated", () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat({ max: good.length - 1 }), fc.nat({ max: 255 })), { maxLength: 6 }),
        fc.nat({ max: good.length }),
        (changes, length) => {
          const bytes = good.slice(0, length);
          for (const [at, value] of changes) if (at < length) bytes[at] = value;
          try {
            decode(bytes);
          } catch (error) {
            expect((error as Error).name).toBe("CaravanError");
          }
        },
      ),
      { numRuns: 600 },
    ));
});
