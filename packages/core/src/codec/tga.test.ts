import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, type Pixels } from "../raster";
import { looksLikeTga, readTga } from "./tga";

interface Written {
  readonly packed?: boolean;
  readonly fromTop?: boolean;
  readonly fromRight?: boolean;
}

/** Written by these tests' own few lines: 32 bits a pixel, in runs if asked. */
function tgaOf({ width, height, bytes }: Pixels, { packed = false, fromTop = false, fromRight = false }: Written = {}): Uint8Array {
  const cells: number[][] = [];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const [x, y] = [fromRight ? width - 1 - column : column, fromTop ? row : height - 1 - row];
      const [r, g, b, a] = bytes.subarray((y * width + x) * 4, (y * width + x) * 4 + 4);
      cells.push([b as number, g as number, r as number, a as number]);
    }
  const head = [3, 0, packed ? 10 : 2, 0, 0, 0, 0, 0, 0, 0, 0, 0, width & 255, width >> 8, height & 255, height >> 8, 32];
  const descriptor = 8 | (fromTop ? 32 : 0) | (fromRight ? 16 : 0);
  const body: number[] = [];
  for (let k = 0; k < cells.length; ) {
    if (!packed) {
      body.push(...(cells[k++] as number[]));
      continue;
    }
    let run = 1;
    while (run < 128 && k + run < cells.length && String(cells[k + run]) === String(cells[k])) run++;
    body.push(run > 1 ? 127 + run : 0, ...(cells[k] as number[]));
    k += run;
  }
  return Uint8Array.from([...head, descriptor, 1, 2, 3, ...body]);
}

const picture = fc
  .tuple(
    fc.integer({ min: 1, max: 9 }),
    fc.integer({ min: 1, max: 9 }),
    fc.infiniteStream(fc.constantFrom([1, 2, 3, 255], [9, 8, 7, 128], [200, 0, 50, 255])),
  )
  .map(([width, height, colours]) => {
    const pixels = clearPixels(width, height);
    let k = 0;
    for (const colour of colours) {
      if (k === width * height) break;
      pixels.bytes.set(colour, k++ * 4);
    }
    return pixels;
  });

describe("a TGA picture", () => {
  it("gives its pixels back, however it is stored", () =>
    fc.assert(
      fc.property(picture, fc.boolean(), fc.boolean(), fc.boolean(), (pixels, packed, fromTop, fromRight) => {
        const bytes = tgaOf(pixels, { packed, fromTop, fromRight });
        expect(looksLikeTga(bytes)).toBe(true);
        expect(readTga(bytes, "a.tga")).toEqual(pixels);
      }),
    ));

  it("truncated anywhere is refused with its position", () =>
    fc.assert(
      fc.property(picture, fc.boolean(), fc.nat(), (pixels, packed, seed) => {
        const bytes = tgaOf(pixels, { packed });
        expect(() => readTga(bytes.subarray(0, seed % bytes.length), "a.tga")).toThrow(/a\.tga: (The file ends early|Its header is not)/);
      }),
    ));

  it("is read with a palette, in grey, and with 16 bits", () => {
    const palette = Uint8Array.from([0, 1, 1, 0, 0, 2, 0, 24, 0, 0, 0, 0, 2, 0, 1, 0, 8, 32, 10, 20, 30, 40, 50, 60, 1, 0]);
    expect([...readTga(palette, "p").bytes]).toEqual([60, 50, 40, 255, 30, 20, 10, 255]);
    const grey = Uint8Array.from([0, 0, 3, 0, 0, 0, 0, 0, 0, 0, 0, 0, 2, 0, 1, 0, 8, 32, 7, 250]);
    expect([...readTga(grey, "g").bytes]).toEqual([7, 7, 7, 255, 250, 250, 250, 255]);
    const packed = Uint8Array.from([0, 0, 2, 0, 0, 0, 0, 0, 0, 0, 0, 0, 2, 0, 1, 0, 16, 33, 0x1f, 0x80, 0xe0, 0x03]);
    expect([...readTga(packed, "s").bytes]).toEqual([0, 0, 255, 255, 0, 255, 0, 0]);
  });

  it("whose alpha was left at nothing is seen whole", () => {
    const pixels = clearPixels(2, 2);
    pixels.bytes.set([9, 9, 9, 0], 0);
    expect(readTga(tgaOf(pixels), "a").bytes[3]).toBe(255);
  });

  it("is not recognised in other files, nor is memory allocated for a false header", () => {
    expect(looksLikeTga(new TextEncoder().encode("a,b,c\n1,2,3\n4,5,6\n7,8,9\n"))).toBe(false);
    const lying = tgaOf(clearPixels(1, 1), { packed: true });
    lying.set([255, 127, 255, 127], 12);
    expect(() => readTga(lying, "a")).toThrow(/says that it is|ends early/);
  });
});
