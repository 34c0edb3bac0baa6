import fc from "fast-check";
import { applyPalette, GIFEncoder, quantize } from "gifenc";
import { describe, expect, it } from "vitest";
import { clearPixels, type Pixels } from "../raster";
import { readApng } from "./apng";
import { apngOf } from "./apng.fixture";
import { readGif } from "./gif";
import { png, still } from "./png.fixture";

function gifOf(stills: readonly Pixels[], options: { delay?: number; dispose?: number } = {}): Uint8Array {
  const gif = GIFEncoder();
  for (const { width, height, bytes } of stills) {
    const palette = quantize(bytes, 256, { format: "rgba4444", oneBitAlpha: true });
    const clear = palette.findIndex((colour: number[]) => colour[3] === 0);
    gif.writeFrame(applyPalette(bytes, palette, "rgba4444"), width, height, {
      palette,
      delay: options.delay ?? 70,
      dispose: options.dispose ?? 2,
      transparent: clear >= 0,
      transparentIndex: Math.max(0, clear),
    });
  }
  gif.finish();
  return gif.bytes();
}

function read(bytes: Uint8Array) {
  const damage: [number, string][] = [];
  const animation = readGif(bytes, "well.gif");
  const frames = [...animation.frames((index, why) => damage.push([index, why]))];
  return { animation, frames, damage };
}

/** Where something is drawn, for comparing shapes whatever the palette did to colours. */
const shape = ({ bytes }: Pixels) => Array.from({ length: bytes.length / 4 }, (_, k) => bytes[k * 4 + 3]);

describe("a GIF", () => {
  it("gives its pictures whole, with their times", () => {
    const stills = [0, 1, 2, 3].map((k) => still(k));
    const { animation, frames, damage } = read(gifOf(stills));
    expect(animation).toMatchObject({ width: 12, height: 9, count: 4, plays: 0 });
    expect(frames.map(({ ms }) => ms)).toEqual([70, 70, 70, 70]);
    expect(frames.map(({ pixels }) => shape(pixels))).toEqual(stills.map(shape));
    expect(damage).toEqual([]);
  });

  it("keeps the earlier canvas if they ask for it", () => {
    const { frames } = read(gifOf([still(0), still(5)], { dispose: 1 }));
    const both = shape(still(0)).map((alpha, k) => Math.max(alpha as number, shape(still(5))[k] as number));
    expect(shape((frames[1] as { pixels: Pixels }).pixels)).toEqual(both);
  });

  it("without a time gets 100 ms", () =>
    expect(read(gifOf([still(0), still(1)], { delay: 0 })).frames.map(({ ms }) => ms)).toEqual([100, 100]));

  it("that is truncated keeps its good pictures and reports the broken one", () => {
    const whole = gifOf([0, 1, 2].map((k) => still(k)));
    const { frames, damage } = read(whole.subarray(0, whole.length - 20));
    expect(frames).toHaveLength(2);
    expect(damage).toEqual([[2, expect.stringMatching(/cut off|ends after/)]]);
  });

  it("however damaged neither crashes nor hangs, and errors name the file", () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(400), fc.nat(255)), { minLength: 1, maxLength: 12 }), fc.nat(420), (changes, keep) => {
        const bytes = gifOf([0, 1, 2].map((k) => still(k))).slice(0, Math.max(6, keep));
        for (const [at, value] of changes) if (at < bytes.length) bytes[at] = value;
        try {
          for (const { pixels } of read(bytes).frames) expect(pixels.bytes.length).toBe(pixels.width * pixels.height * 4);
        } catch (error) {
          expect(String(error)).toMatch(/well\.gif: /);
        }
      }),
      { numRuns: 400 },
    ));
});

/** More than 256 colours, so that it is written as RGBA; partly clear. */
function noisy(width: number, height: number, seed: number, alpha = 255): Pixels {
  const pixels = clearPixels(width, height);
  for (let k = 0; k < width * height; k++)
    pixels.bytes.set([(k * 7 + seed) % 256, (k * 13 + (k >> 8) * 29) % 256, (k * 31 + seed * 5) % 256, alpha], k * 4);
  return pixels;
}

describe("an animated PNG", () => {
  it("returns its pictures composed: replaced, blended, cleared and reverted", () => {
    const bytes = apngOf(
      [
        { pixels: noisy(40, 30, 1), x: 0, y: 0, num: 1, den: 8, dispose: 0, blend: 0 },
        { pixels: noisy(20, 20, 2), x: 5, y: 5, num: 50, den: 0, dispose: 2, blend: 0 },
        { pixels: noisy(20, 20, 3, 128), x: 10, y: 0, num: 0, den: 0, dispose: 1, blend: 1 },
        { pixels: noisy(18, 16, 4), x: 20, y: 12, num: 1, den: 100, dispose: 0, blend: 0 },
      ],
      { w: 40, h: 30 },
      png,
    );
    const animation = readApng(bytes, "torch.png", png);
    const frames = [...(animation?.frames(() => {}) ?? [])];
    expect(animation).toMatchObject({ width: 40, height: 30, count: 4, plays: 3 });
    expect(frames.map(({ ms }) => ms)).toEqual([125, 500, 100, 10]);
    const at = (k: number, x: number, y: number) => [...(frames[k]?.pixels.bytes.subarray((y * 40 + x) * 4, (y * 40 + x) * 4 + 4) ?? [])];
    const of = (pixels: Pixels, x: number, y: number) => [
      ...pixels.bytes.subarray((y * pixels.width + x) * 4, (y * pixels.width + x) * 4 + 4),
    ];
    expect(at(0, 7, 7)).toEqual(of(noisy(40, 30, 1), 7, 7));
    expect(at(1, 7, 7)).toEqual(of(noisy(20, 20, 2), 2, 2));
    // The second was taken back before the third, which is half clear and laid over the first.
    expect(at(2, 7, 7)).toEqual(of(noisy(40, 30, 1), 7, 7));
    expect(at(2, 12, 3)[3]).toBe(255);
    expect(at(2, 12, 3)).not.toEqual(of(noisy(40, 30, 1), 12, 3));
    // What the third covered was cleared.
    expect(at(3, 12, 3)).toEqual([0, 0, 0, 0]);
    expect(at(3, 21, 13)).toEqual(of(noisy(18, 16, 4), 1, 1));
  });

  it("is none if it does not move", () => expect(readApng(png.encode(still(1)), "still.png", png)).toBeNull());
});
