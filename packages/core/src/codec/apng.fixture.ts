import type { Pixels } from "../raster";
import type { PngCodec } from "./png";

/**
 * Builds an animated PNG from stills; each frame is only the given part. The stills need more than 256 colours, so that they are written as
 * RGBA.
 */
export function apngOf(
  frames: readonly { pixels: Pixels; x: number; y: number; num: number; den: number; dispose: number; blend: number }[],
  canvas: { w: number; h: number },
  png: PngCodec,
): Uint8Array {
  const chunks: { type: string; data: Uint8Array }[] = [];
  const numbers = (...list: [bytes: number, value: number][]) => {
    const out: number[] = [];
    for (const [bytes, value] of list) for (let k = bytes - 1; k >= 0; k--) out.push(Math.floor(value / 256 ** k) % 256);
    return new Uint8Array(out);
  };
  let sequence = 0;
  frames.forEach(({ pixels, x, y, num, den, dispose, blend }, k) => {
    const own = chunksOf(png.encode(pixels));
    if (k === 0) {
      chunks.push({ type: "IHDR", data: numbers([4, canvas.w], [4, canvas.h], [1, 8], [1, 6], [1, 0], [1, 0], [1, 0]) });
      chunks.push({ type: "acTL", data: numbers([4, frames.length], [4, 3]) });
    }
    chunks.push({
      type: "fcTL",
      data: numbers([4, sequence++], [4, pixels.width], [4, pixels.height], [4, x], [4, y], [2, num], [2, den], [1, dispose], [1, blend]),
    });
    for (const { data } of own.filter(({ type }) => type === "IDAT"))
      chunks.push(k === 0 ? { type: "IDAT", data } : { type: "fdAT", data: new Uint8Array([...numbers([4, sequence++]), ...data]) });
  });
  chunks.push({ type: "IEND", data: new Uint8Array() });
  return new Uint8Array([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...chunks.flatMap(({ type, data }) => [...written(type, data)])]);
}

function chunksOf(bytes: Uint8Array): { type: string; data: Uint8Array }[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const list: { type: string; data: Uint8Array }[] = [];
  for (let at = 8; at < bytes.length; at += 12 + view.getUint32(at))
    list.push({ type: String.fromCharCode(...bytes.subarray(at + 4, at + 8)), data: bytes.slice(at + 8, at + 8 + view.getUint32(at)) });
  return list;
}

function written(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(data.length + 12);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let k = 0; k < 4; k++) out[4 + k] = type.charCodeAt(k);
  out.set(data, 8);
  let crc = 0xffffffff;
  for (const byte of out.subarray(4, data.length + 8)) {
    crc ^= byte;
    for (let k = 0; k < 8; k++) crc = (crc & 1) === 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  view.setUint32(data.length + 8, (crc ^ 0xffffffff) >>> 0);
  return out;
}
