import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenShares, paceOf, stretched } from "./durations";

const sum = (numbers: readonly number[]) => numbers.reduce((total, each) => total + each, 0);

describe("evenShares", () => {
  it("gives each of 20 steps 37.5 ms of 750 ms", () => expect(evenShares(750_000, 20)).toEqual(Array(20).fill(37_500)));
  it("shares a second over 12 steps without losing a microsecond", () => expect(sum(evenShares(1_000_000, 12))).toBe(1_000_000));

  it("loses no microsecond and differs by at most one, whatever the total and the number of steps", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 }), fc.integer({ min: 64, max: 3_600_000_000 }), (count, total) => {
        const shares = evenShares(total, count);
        expect(sum(shares)).toBe(total);
        expect(Math.max(...shares) - Math.min(...shares)).toBeLessThanOrEqual(1);
      }),
    ));
});

describe("stretched", () => {
  it("keeps proportions: twice as long is twice as long", () => expect(stretched([100, 50, 200], 700)).toEqual([200, 100, 400]));

  it("sums exactly, leaves no step without time, and is off from its proportion by less than 2 µs where there is room", () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 3_600_000_000 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 40, max: 3_600_000_000 }),
        (durations, total) => {
          const shares = stretched(durations, total);
          expect(sum(shares)).toBe(total);
          expect(Math.min(...shares)).toBeGreaterThanOrEqual(1);
          const all = sum(durations);
          if (durations.every((each) => (each / all) * total >= 2))
            for (const [k, share] of shares.entries()) expect(Math.abs(share - ((durations[k] as number) / all) * total)).toBeLessThan(2);
        },
      ),
    ));
});

describe("paceOf", () => {
  it("says the same speed in three ways", () => {
    expect(paceOf(Array(6).fill(100_000))).toEqual({ total: 600_000, perStep: 100_000, fps: 10, even: true });
    expect(paceOf([100, 200])?.even).toBe(false);
    expect(paceOf([])).toBeNull();
  });
});
