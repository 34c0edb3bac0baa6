import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FileStem } from "./delivery";
import { encloses, overlaps, sameRect } from "./geometry";
import { checkedName, freeName, isFitName } from "./name";
import { PicturePath } from "./picture";
import { checkedDuration, microsFromMs, msFromMicros } from "./time";

describe("names", () => {
  it("are any text that files can hold", () => {
    for (const fit of ["walk", "Gänge 2", "塩の道", "🐪", "a/b", "constructor"]) expect(isFitName(fit), fit).toBe(true);
    for (const unfit of ["", "  ", "a\nb", "a\u0000", "\ud800", "a".repeat(201), "__proto__", "a\u2028b"])
      expect(isFitName(unfit), JSON.stringify(unfit)).toBe(false);
    expect(checkedName("  walk ", "clip name")).toBe("walk");
    expect(() => checkedName(" ", "clip name")).toThrow(/clip name: A name needs/);
  });

  it("that would be too long are shortened, whether they need a number or not", () => {
    const long = "x".repeat(198);
    expect(freeName(`${long} tiles`, new Set())).toBe(`${long} t`);
    expect(freeName(`${"x".repeat(199)} y`, new Set())).toBe("x".repeat(199));
    const second = freeName(`${long} tiles`, new Set([`${long} t`]));
    expect(second).toHaveLength(200);
    expect(isFitName(second)).toBe(true);
  });

  it("get the first free number", () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom("a", "a-2", "a-3", "a-4", "b")), (taken) => {
        const name = freeName("a", new Set(taken));
        expect(taken).not.toContain(name);
        expect(["a", "a-2", "a-3", "a-4", "a-5"]).toContain(name);
      }),
    ));
});

describe("paths and file names", () => {
  it("stay in the project's folder", () => {
    for (const fit of ["art/x.png", "x.png", "a/b/c d.png", "art/塩.png", "art/..x.png"])
      expect(PicturePath.safeParse(fit).success, fit).toBe(true);
    for (const unfit of ["", "/x.png", "../x.png", "a/../b.png", "a//b.png", "a\\b.png", "c:x.png", "a/", "./x.png", "a\u0000.png"])
      expect(PicturePath.safeParse(unfit).success, unfit).toBe(false);
  });

  it("are accepted by every file system", () => {
    for (const fit of ["atlas", "my game", "v1.2", "塩"]) expect(FileStem.safeParse(fit).success, fit).toBe(true);
    for (const unfit of ["", "a/b", "a:", "a.", "a ", 'a"', "\u0007"]) expect(FileStem.safeParse(unfit).success, unfit).toBe(false);
  });
});

describe("rectangles", () => {
  const rects = fc.record({
    x: fc.nat({ max: 9 }),
    y: fc.nat({ max: 9 }),
    w: fc.integer({ min: 1, max: 9 }),
    h: fc.integer({ min: 1, max: 9 }),
  });

  it("overlap exactly when they share a pixel, and enclose when all pixels are shared", () =>
    fc.assert(
      fc.property(rects, rects, (a, b) => {
        const has = (rect: typeof a, x: number, y: number) => x >= rect.x && x < rect.x + rect.w && y >= rect.y && y < rect.y + rect.h;
        let shared = 0;
        for (let y = 0; y < 20; y++) for (let x = 0; x < 20; x++) if (has(a, x, y) && has(b, x, y)) shared++;
        expect(overlaps(a, b)).toBe(shared > 0);
        expect(encloses(a, b)).toBe(shared === b.w * b.h);
        expect(sameRect(a, b)).toBe(shared === b.w * b.h && shared === a.w * a.h);
      }),
    ));
});

describe("time", () => {
  it("is the same to the microsecond as ms with three decimals and back", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3_600_000_000 }), (micros) => {
        expect(microsFromMs(msFromMicros(micros))).toBe(micros);
        expect(microsFromMs(Number(JSON.stringify(msFromMicros(micros))))).toBe(micros);
      }),
    ));

  it("of a step is above nothing and at most an hour", () => {
    expect(checkedDuration(0.6, "x")).toBe(1);
    for (const unfit of [0, 0.4, -5, Number.NaN, Number.POSITIVE_INFINITY, 3_600_000_001])
      expect(() => checkedDuration(unfit, "x"), String(unfit)).toThrow(/at most one hour/);
  });
});
