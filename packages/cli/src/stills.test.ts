import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readAnimatedWebp } from "@caravan/core/codec";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { afterAll, describe, expect, it } from "vitest";
import { pngCodec } from "./png";
import { decodeStill, readStill } from "./stills";
import { cmykJpegBytes, jpegBytes, movingLossyWebpBytes, movingWebpBytes, webpBytes } from "./stills.fixture";

const folder = mkdtempSync(join(tmpdir(), "caravan-stills-"));
afterAll(() => rmSync(folder, { recursive: true }));

const at = ({ width, bytes }: { width: number; bytes: Uint8Array }, x: number, y: number) => [
  ...bytes.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
];

describe("a still", () => {
  it("of WebP gives its exact pixels, half-transparent ones too", async () => {
    const pixels = await decodeStill(webpBytes(), "a.webp");
    expect([pixels.width, pixels.height, pixels.bytes.length]).toEqual([32, 16, 32 * 16 * 4]);
    expect(at(pixels, 0, 0)).toEqual([0x20, 0x50, 0x80, 255]);
    expect(at(pixels, 31, 15)[3]).toBe(0);
  });

  it("of JPEG gives its pixels within the losses of JPEG", async () => {
    const pixels = await decodeStill(jpegBytes(), "a.jpg");
    for (const [k, wanted] of [0x20, 0x50, 0x80, 255].entries()) expect(Math.abs((at(pixels, 1, 1)[k] as number) - wanted)).toBeLessThan(6);
  });

  it("is recognised by its bytes, whatever its name", async () => {
    writeFileSync(join(folder, "a.png"), webpBytes());
    expect((await readStill(join(folder, "a.png"))).width).toBe(32);
    writeFileSync(join(folder, "b.jpg"), pngCodec().encode(clearPixels(3, 2)));
    expect((await readStill(join(folder, "b.jpg"))).height).toBe(2);
    const tga = Uint8Array.from([0, 0, 3, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 0, 1, 0, 8, 32, 7]);
    expect(at(await decodeStill(tga, "c.tga"), 0, 0)).toEqual([7, 7, 7, 255]);
  });

  it("that is truncated, empty or of another kind is refused by name, and the next one is still read", async () => {
    for (const [name, bytes] of [
      ["a.jpg", jpegBytes()],
      ["a.webp", webpBytes()],
    ] as const) {
      for (const share of [0.01, 0.2, 0.5, 0.9, 0.999])
        await expect(decodeStill(bytes.subarray(0, Math.floor(bytes.length * share)), name), `${name} ${share}`).rejects.toThrow(
          `${name}: `,
        );
      expect((await decodeStill(bytes, name)).width).toBe(32);
    }
    await expect(decodeStill(new Uint8Array(0), "none.jpg")).rejects.toThrow(/none\.jpg: .*empty/);
    await expect(decodeStill(new TextEncoder().encode("hello, this is no picture at all"), "text.webp")).rejects.toThrow(/text\.webp: /);
  });

  it("that is an animation or in colours of print is refused as that, not as damaged", async () => {
    await expect(decodeStill(movingWebpBytes(), "walk.webp")).rejects.toThrow(/walk\.webp: This is an animation of 2 pictures/);
    await expect(decodeStill(cmykJpegBytes(), "ink.jpg")).rejects.toThrow(/ink\.jpg: .*CMYK/);
  });
});

describe("an animated WebP", () => {
  async function framesOf(bytes: Uint8Array) {
    const damage: [number, string][] = [];
    const animation = readAnimatedWebp(bytes, "walk.webp", decodeStill);
    const frames = [];
    for await (const frame of animation?.frames((index, why) => damage.push([index, why])) ?? []) frames.push(frame);
    return { animation, frames, damage };
  }

  it("gives its exact pictures whole, with their times", async () => {
    const { animation, frames, damage } = await framesOf(movingWebpBytes());
    expect(animation).toMatchObject({ width: 40, height: 24, count: 2, plays: 0 });
    expect(frames.map(({ ms }) => ms)).toEqual([300, 300]);
    const [first, second] = frames.map(({ pixels }) => pixels) as [Pixels, Pixels];
    expect(at(first, 2, 2)).toEqual([0x20, 0x50, 0x80, 255]);
    expect(at(first, 22, 8)[3]).toBe(0);
    expect(at(second, 22, 8)).toEqual([0xa0, 0x40, 0x20, 255]);
    // The file laid it over the first.
    expect(at(second, 11, 13)).toEqual([0x20, 0x50, 0x80, 255]);
    expect(damage).toEqual([]);
  });

  it("with lossy pictures keeps their separate alpha", async () => {
    const { frames, damage } = await framesOf(movingLossyWebpBytes());
    expect(damage).toEqual([]);
    expect(frames.map(({ ms }) => ms)).toEqual([100, 100]);
    const [first, second] = frames.map(({ pixels }) => pixels) as [Pixels, Pixels];
    for (const pixels of [first, second])
      expect([at(pixels, 16, 16)[3], at(pixels, 1, 1)[3], at(pixels, 48, 48)[3]]).toEqual([255, 0, 255]);
    expect(at(first, 16, 16)[0]).toBeGreaterThan(200);
    expect(at(second, 16, 16)[0]).toBeLessThan(60);
  });

  it("that is truncated keeps its good pictures and reports the broken one", async () => {
    const { frames, damage } = await framesOf(movingWebpBytes().subarray(0, 130));
    expect(frames).toHaveLength(1);
    expect(damage).toEqual([[1, "It is cut off."]]);
  });
});
