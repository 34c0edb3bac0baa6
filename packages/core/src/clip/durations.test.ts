import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evenShares, paceOf, stretched } from "./durations";

const sum = (numbers: readonly number[]) => numbers.reduce((total, each) => total + each, 0);

describe("evenShares", () => {
  it("gives each of 20 steps 37.5 ms of 750 ms", () => expect(evenShares(750_000, 20)).toEqual(Array(20).fill(37_500)));
  it("shares a second over 12 steps without losing a microsecond", () => expect(sum(evenShares(1_000_000, 12))).toBe(1_000_000));

  it("loses no microsecond and differs by at most one, for any total and number of steps", () =>
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

  it("sums exactly, leaves no step without time, and is off its proportion by less than 2 µs if there is room", () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 3_600_000_000 }), { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 40, max: 3_600_000_000 }),
        (durations, total) => {
          const shares = stretched(durations, total);
          expect(sum(shares)).toBe(total);
          expect(Math.min(...shares)).toBeGreaterThanOrEqual(1);
          const all = sum(durations);
          const least = Math.min(...durations);
          // What rounding may have taken from the given ones is a part of a thousand at most.
          const room = least < 1000 ? 0 : 4 / least;
          if (durations.every((each) => (each / all) * total >= 2))
            for (const [k, share] of shares.entries()) {
              const exact = ((durations[k] as number) / all) * total;
              expect(Math.abs(share - exact)).toBeLessThan(2 + exact * room + total * room);
            }
        },
      ),
    ));

  it("keeps durations that already sum to the total", () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 1_000_000 }), { minLength: 1, maxLength: 40 }), (durations) => {
        expect(stretched(durations, sum(durations))).toEqual(durations);
      }),
    ));

  it("from 10 to 9 to 8 fps gives 125 ms each", () => {
    const at = (fps: number) => Math.round(4_000_000 / fps);
    expect(stretched(stretched(Array(4).fill(100_000), at(9)), at(8))).toEqual(Array(4).fill(125_000));
  });

  it("keeps equal steps equal and 1 : 2 as it is, over 400 changes", () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 3, max: 60 }), { minLength: 400, maxLength: 400 }), (speeds) => {
        let durations = [100_000, 100_000, 200_000, 100_000, 150_000];
        for (const fps of speeds) durations = stretched(durations, Math.round(5_000_000 / fps));
        const back = stretched(durations, 650_000);
        expect(back.map((each) => Math.round(each / 10) * 10)).toEqual([100_000, 100_000, 200_000, 100_000, 150_000]);
        expect(
          Math.max(...back.map((each, k) => Math.abs(each - ([100_000, 100_000, 200_000, 100_000, 150_000][k] as number)))),
        ).toBeLessThanOrEqual(1);
      }),
      { numRuns: 20 },
    ));
});

describe("paceOf", () => {
  it("says the same speed in three ways", () => {
    expect(paceOf(Array(6).fill(100_000))).toEqual({ total: 600_000, perStep: 100_000, fps: 10, even: true });
    expect(paceOf([100, 200])?.even).toBe(false);
    expect(paceOf([])).toBeNull();
  });
});
