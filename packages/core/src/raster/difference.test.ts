import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, differenceOf, looksSame } from ".";

const SIDE = 6;
const pictures = fc
  .uint8Array({ minLength: SIDE * SIDE * 4, maxLength: SIDE * SIDE * 4 })
  .map((bytes) => ({ width: SIDE, height: SIDE, bytes }));

describe("differenceOf", () => {
  it("marks exactly the pixels that were changed", () =>
    fc.assert(
      fc.property(pictures, fc.uniqueArray(fc.nat(SIDE * SIDE - 1)), (picture, changed) => {
        const other = { ...picture, bytes: picture.bytes.slice() };
        for (const k of changed) {
          other.bytes[k * 4 + 3] = 255;
          other.bytes[k * 4] = (picture.bytes[k * 4] as number) ^ 0x55;
        }
        const { mask, count } = differenceOf(picture, other);
        expect(count).toBe(changed.length);
        for (let k = 0; k < mask.length; k++) expect(mask[k] === 1).toBe(changed.includes(k));
      }),
    ));

  it("finds none if pictures look the same, whatever their transparent pixels contain", () =>
    fc.assert(
      fc.property(pictures, pictures, (a, b) => {
        expect(differenceOf(a, b).count === 0).toBe(looksSame(a, b));
        for (let k = 3; k < a.bytes.length; k += 4) {
          a.bytes[k] = 0;
          b.bytes[k] = 0;
        }
        expect(differenceOf(a, b).count).toBe(0);
      }),
    ));

  it("refuses pictures of different sizes", () =>
    expect(() => differenceOf(clearPixels(2, 3), clearPixels(3, 2))).toThrow(/the same size/));
});
