import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { naturalOrder } from "./natural-order";

const names = fc.string({ unit: fc.constantFrom("a", "b", "_", "0", "1", "2", "10"), maxLength: 8 });

describe("naturalOrder", () => {
  it("puts 2 before 10, padded or not, in any place of the name", () => {
    const sorted = ["f10", "f2", "f1", "f02", "a9b1", "a10b1", "a9b2"].sort(naturalOrder);
    expect(sorted).toEqual(["a9b1", "a9b2", "a10b1", "f1", "f2", "f02", "f10"]);
  });

  it("compares numbers of any length by value", () =>
    expect(naturalOrder("x99999999999999999999", "x100000000000000000000")).toBeLessThan(0));

  it("calls only identical names equal", () =>
    fc.assert(
      fc.property(names, names, (a, b) => {
        expect(naturalOrder(a, b) === 0).toBe(a === b);
      }),
    ));

  it("is a total order", () =>
    fc.assert(
      fc.property(names, names, names, (a, b, c) => {
        expect(Math.sign(naturalOrder(a, b))).toBe(-Math.sign(naturalOrder(b, a)) + 0);
        if (naturalOrder(a, b) <= 0 && naturalOrder(b, c) <= 0) expect(naturalOrder(a, c)).toBeLessThanOrEqual(0);
      }),
    ));
});
