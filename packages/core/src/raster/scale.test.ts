import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { looksSame, type Pixels } from "./pixels";
import { scaled } from "./scale";

const picture = (width: number, height: number, colours: readonly (readonly number[])[]): Pixels => ({
  width,
  height,
  bytes: Uint8Array.from(colours.flat()),
});
const pictures = fc
  .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }))
  .chain(([width, height]) =>
    fc.uint8Array({ minLength: width * height * 4, maxLength: width * height * 4 }).map((bytes): Pixels => ({ width, height, bytes })),
  );

describe("scaled", () => {
  it("restores the picture if a whole factor is undone by its inverse", () =>
    fc.assert(
      fc.property(pictures, fc.constantFrom(2, 3, 4), (pixels, times) => {
        const large = scaled(pixels, times);
        expect([large.width, large.height]).toEqual([pixels.width * times, pixels.height * times]);
        expect(looksSame(scaled(large, 1 / times), pixels)).toBe(true);
      }),
    ));

  it("averages colours by how opaque they are: clear pixels lend none", () => {
    const half = scaled(
      picture(2, 1, [
        [200, 100, 0, 255],
        [9, 9, 9, 0],
      ]),
      0.5,
    );
    expect([...half.bytes]).toEqual([200, 100, 0, 128]);
  });

  it("gives a partial pixel at an edge a pixel of its own, as opaque as it is", () => {
    const third = scaled(
      picture(3, 1, [
        [10, 10, 10, 255],
        [10, 10, 10, 255],
        [90, 90, 90, 255],
      ]),
      0.5,
    );
    expect([...third.bytes]).toEqual([10, 10, 10, 255, 90, 90, 90, 255]);
  });

  it("keeps a picture of one colour at any scale", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.double({ min: 0.05, max: 5, noNaN: true }), (side, scale) => {
        const colours = Array.from({ length: side * side }, () => [7, 80, 200, 255]);
        const out = scaled(picture(side, side, colours), scale);
        const words = new Uint32Array(out.bytes.buffer);
        expect(words.every((word) => word === words[0])).toBe(true);
        expect([...out.bytes.subarray(0, 4)]).toEqual([7, 80, 200, 255]);
      }),
    ));
});

describe("crisp scaling", () => {
  it("brings in no colour that was not there, at any scale", () =>
    fc.assert(
      fc.property(pictures, fc.constantFrom(0.25, 0.5, 0.75, 1.5, 2.5), (pixels, scale) => {
        const colours = (each: Pixels) => new Set(new Uint32Array(each.bytes.slice().buffer));
        const small = scaled(pixels, scale, true);
        for (const colour of colours(small)) expect(colours(pixels).has(colour)).toBe(true);
        expect([small.width, small.height]).toEqual([scaled(pixels, scale).width, scaled(pixels, scale).height]);
      }),
    ));

  it("restores at half size what was doubled", () =>
    fc.assert(
      fc.property(pictures, (pixels) => {
        expect(scaled(scaled(pixels, 2), 0.5, true)).toEqual(pixels);
      }),
    ));
});
