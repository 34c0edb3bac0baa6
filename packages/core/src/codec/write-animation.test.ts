import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { looksSame, type Pixels } from "../raster";
import type { Animation } from "./animation";
import { readApng } from "./apng";
import { readGif } from "./gif";
import { png } from "./png.fixture";
import { apngTime, writeApng } from "./write-apng";
import { gifTimes, writeGif } from "./write-gif";

/** Pictures of one size, clear or opaque, in a few colours. */
const films = fc
  .tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 5 }))
  .chain(([width, height, count]) =>
    fc.array(
      fc.record({
        ms: fc.integer({ min: 2, max: 900 }).map((n) => n * 10),
        pixels: fc.array(fc.nat({ max: 5 }), { minLength: width * height, maxLength: width * height }).map(
          (kinds): Pixels => ({
            width,
            height,
            bytes: Uint8Array.from(kinds.flatMap((kind) => (kind === 0 ? [0, 0, 0, 0] : [kind * 40, 9, 255 - kind, 255]))),
          }),
        ),
      }),
      { minLength: count, maxLength: count },
    ),
  );
const read = (animation: Animation | null) => [...(animation as Animation).frames((_, why) => expect.fail(why))];

describe("an animation that was written", () => {
  it("is read back the same as APNG, half-clear colours and times too", () =>
    fc.assert(
      fc.property(films, fc.nat({ max: 3 }), (frames, plays) => {
        (frames[0] as (typeof frames)[number]).pixels.bytes.set([1, 2, 3, 77]);
        const back = readApng(writeApng(frames, plays, png), "film", png);
        expect(back?.plays).toBe(plays);
        read(back).forEach(({ pixels, ms }, k) => {
          expect(ms).toBe(frames[k]?.ms);
          expect(looksSame(pixels, (frames[k] as (typeof frames)[number]).pixels)).toBe(true);
        });
      }),
      { numRuns: 40 },
    ));

  it("is read back the same as GIF, if colours are few and none is half clear", () =>
    fc.assert(
      fc.property(films, fc.nat({ max: 3 }), (frames, plays) => {
        const { bytes, exact } = writeGif(frames, plays);
        expect(exact).toBe(true);
        const back = readGif(bytes, "film");
        expect(back.plays).toBe(plays);
        read(back).forEach(({ pixels, ms }, k) => {
          expect(ms).toBe(frames[k]?.ms);
          expect(looksSame(pixels, (frames[k] as (typeof frames)[number]).pixels)).toBe(true);
        });
      }),
      { numRuns: 60 },
    ));

  it("as GIF approximates colours if there are too many, and says so", () => {
    const bytes = new Uint8Array(32 * 32 * 4);
    for (let k = 0; k < 1024; k++) bytes.set([k & 255, (k >> 2) & 255, 255 - (k & 255), 255], k * 4);
    const { bytes: file, exact } = writeGif([{ pixels: { width: 32, height: 32, bytes }, ms: 100 }], 0);
    expect(exact).toBe(false);
    const [frame] = read(readGif(file, "film"));
    let most = 0;
    for (let k = 0; k < bytes.length; k++) most = Math.max(most, Math.abs((bytes[k] as number) - (frame?.pixels.bytes[k] as number)));
    expect(most).toBeLessThan(40);
  });

  it("loses no time as GIF: rounded steps add up to the true length", () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 30, max: 400, noNaN: true }), { minLength: 1, maxLength: 60 }), (times) => {
        const sum = (all: readonly number[]) => all.reduce((total, ms) => total + ms, 0);
        expect(Math.abs(sum(gifTimes(times)) - sum(times))).toBeLessThanOrEqual(5.001);
      }),
    ));

  it("as APNG holds thousandths of a second up to a minute, and 37.5 ms exactly", () => {
    for (const ms of [1, 37.5, 100, 333.333, 59_999]) expect(Math.abs(apngTime(ms) - ms)).toBeLessThan(0.04);
    expect(apngTime(37.5)).toBe(37.5);
  });
});
