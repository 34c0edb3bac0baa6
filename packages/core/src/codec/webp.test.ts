import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, type Pixels } from "../raster";
import { readApng } from "./apng";
import { apngOf } from "./apng.fixture";
import { png } from "./png.fixture";
import { readAnimatedWebp } from "./webp";
import { decodePlain, webpOf } from "./webp.fixture";

async function read(bytes: Uint8Array) {
  const damage: [number, string][] = [];
  const animation = readAnimatedWebp(bytes, "camel.webp", decodePlain);
  const frames = [];
  for await (const frame of animation?.frames((index, why) => damage.push([index, why])) ?? []) frames.push(frame);
  return { animation, frames, damage };
}

const CANVAS = { w: 24, h: 20 };

/** A part of the canvas in more than 256 colours, as `apngOf` needs, some of them half-transparent. */
const parts = fc
  .record({
    column: fc.nat(2),
    row: fc.nat(1),
    seed: fc.nat(1000),
    ms: fc.integer({ min: 1, max: 60_000 }),
    clears: fc.boolean(),
    over: fc.boolean(),
  })
  .map(({ column, row, seed, ms, clears, over }) => {
    const pixels = clearPixels(18, 16);
    for (let k = 0; k < 18 * 16; k++)
      pixels.bytes.set([(k * 7 + seed) % 256, (k * 13 + (k >> 8) * 29) % 256, (k + seed) % 256, k % 3 === 0 ? 100 : 255], k * 4);
    return { pixels, x: column * 2, y: row * 2, ms, clears, over };
  });

describe("an animated WebP", () => {
  it("shows the same as an animated PNG of the same parts", () =>
    fc.assert(
      fc.asyncProperty(fc.array(parts, { minLength: 1, maxLength: 6 }), fc.nat(300), async (list, plays) => {
        const { animation, frames, damage } = await read(webpOf(list, CANVAS, plays));
        const apng = readApng(
          apngOf(
            list.map(({ pixels, x, y, ms, clears, over }) => ({
              ...{ pixels, x, y, num: ms, den: 1000 },
              dispose: clears ? 1 : 0,
              blend: over ? 1 : 0,
            })),
            CANVAS,
            png,
          ),
          "camel.png",
          png,
        );
        expect(animation).toMatchObject({ width: 24, height: 20, count: list.length, plays });
        expect(frames).toEqual([...(apng?.frames(() => expect.fail()) ?? [])]);
        expect(damage).toEqual([]);
      }),
      { numRuns: 60 },
    ));

  it("without a time gets 100 ms", async () => {
    const part = { pixels: clearPixels(4, 4), x: 0, y: 0, ms: 0, clears: false, over: true };
    expect((await read(webpOf([part], CANVAS, 1))).frames.map(({ ms }) => ms)).toEqual([100]);
  });

  it("reports parts outside of its picture, and keeps the others", async () => {
    const part = (x: number): { pixels: Pixels; x: number; y: number; ms: number; clears: boolean; over: boolean } => ({
      ...{ pixels: clearPixels(10, 10), y: 0, ms: 50, clears: false, over: true },
      x,
    });
    const { frames, damage } = await read(webpOf([part(0), part(20), part(14)], CANVAS, 0));
    expect(frames).toHaveLength(2);
    expect(damage).toEqual([[1, expect.stringContaining("It lies at 20, 0 with 10 × 10 px")]]);
  });

  it("that says it moves and has no picture is damaged", () => {
    expect(() => readAnimatedWebp(webpOf([], CANVAS, 0), "camel.webp", decodePlain)).toThrow(/camel\.webp: .*contains no picture/);
  });

  it("is none if it is a still or something else", () => {
    const still = webpOf([], CANVAS, 0);
    still[20] = 0;
    expect(readAnimatedWebp(still, "still.webp", decodePlain)).toBeNull();
    expect(readAnimatedWebp(new Uint8Array([1, 2, 3]), "no.webp", decodePlain)).toBeNull();
  });

  it("however damaged neither crashes nor hangs, and errors name the file", () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(parts, { minLength: 1, maxLength: 3 }),
        fc.array(fc.tuple(fc.nat(4000), fc.nat(255)), { maxLength: 12 }),
        fc.nat(4000),
        async (list, changes, keep) => {
          const bytes = webpOf(list, CANVAS, 0).slice(0, keep);
          for (const [at, value] of changes) if (at < bytes.length) bytes[at] = value;
          try {
            for (const { pixels } of (await read(bytes)).frames) expect(pixels.bytes.length).toBe(pixels.width * pixels.height * 4);
          } catch (error) {
            expect(String(error)).toMatch(/camel\.webp: /);
          }
        },
      ),
      { numRuns: 300 },
    ));
});
