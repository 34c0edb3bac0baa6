import type { Pixels } from "../raster";
import { joined } from "./joined";

/**
 * Builds an animated WebP whose pictures are not compressed, but behind the name that compressed ones have: width, height, then RGBA. Only
 * `decodePlain` reads them.
 */
export function webpOf(
  frames: readonly { pixels: Pixels; x: number; y: number; ms: number; clears: boolean; over: boolean }[],
  canvas: { w: number; h: number },
  plays: number,
): Uint8Array {
  const pictures = frames.map(({ pixels, x, y, ms, clears, over }) => {
    const header = [...three(x / 2), ...three(y / 2), ...three(pixels.width - 1), ...three(pixels.height - 1), ...three(ms)];
    return chunk("ANMF", [...header, (clears ? 1 : 0) + (over ? 0 : 2), ...chunk("VP8L", plain(pixels))]);
  });
  const content = [
    ...[..."WEBP"].map((letter) => letter.charCodeAt(0)),
    ...chunk("VP8X", [2, 0, 0, 0, ...three(canvas.w - 1), ...three(canvas.h - 1)]),
    ...chunk("ANIM", [0, 0, 0, 0, plays & 255, plays >> 8]),
    ...chunk("XMP ", [1, 2, 3]),
  ];
  return joined([chunk("RIFF", joined([Uint8Array.from(content), ...pictures]))]);
}

/** Decodes a still of `webpOf`. Throws on anything else. */
export async function decodePlain(file: Uint8Array, where: string): Promise<Pixels> {
  const name = String.fromCharCode(...file.subarray(12, 16));
  const [width, height] = [file[20] ?? 0, file[21] ?? 0];
  const bytes = file.slice(22, 22 + width * height * 4);
  if (name !== "VP8L" || bytes.length !== width * height * 4) throw new Error(`${where}: no picture`);
  return { width, height, bytes };
}

function plain({ width, height, bytes }: Pixels): number[] {
  return [width, height, ...bytes];
}

function three(value: number): number[] {
  return [value & 255, (value >>> 8) & 255, value >>> 16];
}

function chunk(name: string, data: ArrayLike<number>): Uint8Array {
  const out = new Uint8Array(8 + data.length + (data.length % 2));
  out.set([...name].map((letter) => letter.charCodeAt(0)));
  new DataView(out.buffer).setUint32(4, data.length, true);
  out.set(data, 8);
  return out;
}
