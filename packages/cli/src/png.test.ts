import { deflateSync } from "node:zlib";
import { clearPixels, samePixels } from "@caravan/core/raster";
import { describe, expect, it } from "vitest";
import { decodePng, pngCodec } from "./png";

const png = pngCodec();
const CRC = Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

/** A part of a PNG with a right checksum of its own. */
function part(type: string, content: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, "latin1"), content]);
  let crc = 0xffffffff;
  for (const byte of body) crc = (CRC[(crc ^ byte) & 255] as number) ^ (crc >>> 8);
  const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(content.length);
  check.writeUInt32BE((crc ^ 0xffffffff) >>> 0);
  return Buffer.concat([length, body, check]);
}

/** A white picture of 2 × 2 px whose compressed data is given. */
function white(data: Uint8Array): Uint8Array {
  const header = Buffer.from([0, 0, 0, 2, 0, 0, 0, 2, 8, 6, 0, 0, 0]);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    part("IHDR", header),
    part("IDAT", data),
    part("IEND", Buffer.alloc(0)),
  ]);
}

function reasonOf(attempt: () => unknown): string {
  try {
    attempt();
  } catch (error) {
    return (error as Error).message;
  }
  throw new Error("It was not refused.");
}

describe("PNG files", () => {
  const data = deflateSync(Buffer.from([0, ...Array(8).fill(255), 0, ...Array(8).fill(255)]));

  it("with a right checksum of their compressed data are read", () =>
    expect(png.decode(white(data), "x").bytes).toEqual(new Uint8Array(16).fill(255)));

  it("with a wrong one are refused, though every chunk's own checksum is right", async () => {
    const wrong = Buffer.from(data);
    wrong[wrong.length - 1] = (wrong[wrong.length - 1] as number) ^ 1;
    expect(() => png.decode(white(wrong), "x.png")).toThrow(/x\.png: The PNG file's picture data is damaged/);
    await expect(decodePng(white(wrong), "x.png")).rejects.toThrow(/x\.png: The PNG file's picture data is damaged/);
  });

  it("are read the same while their checksum is verified beside, small and large ones", async () => {
    expect(await decodePng(white(data), "x")).toEqual(png.decode(white(data), "x"));
    const large = clearPixels(1200, 1000);
    for (let k = 0; k < large.bytes.length; k++) large.bytes[k] = (k * 7919) >> 3;
    const file = png.encode(large);
    const [beside, plain] = [await decodePng(file, "large"), png.decode(file, "large")];
    expect(beside.bytes.buffer).toBeInstanceOf(SharedArrayBuffer);
    expect(samePixels(beside, large) && samePixels(plain, large)).toBe(true);
  });

  it("of one kind, with too little or too much data or a filter that does not exist, end as the coder says", async () => {
    const row = [0, ...Array(8).fill(255)];
    for (const rows of [row, [...row, ...row, ...row], [...row, 5, ...Array(8).fill(255)], [...row, ...row, ...Array(200_000).fill(7)]]) {
      const bytes = white(deflateSync(Buffer.from(rows)));
      const outcome = await decodePng(bytes, "x").then(
        ({ bytes: read }) => String(read),
        (error: Error) => error.message,
      );
      const plain = () => String(png.decode(bytes, "x").bytes);
      expect(outcome).toBe(rows.length === 9 * 3 ? plain() : reasonOf(plain));
    }
  });

  it("that are no PNG, cut off or empty are refused with the coder's own reasons", async () => {
    const whole = white(data);
    for (const bytes of [new Uint8Array(0), whole.subarray(0, 20), whole.subarray(0, 50), Buffer.from("no picture at all, only some text")])
      await expect(decodePng(bytes, "x")).rejects.toThrow(reasonOf(() => png.decode(bytes, "x")));
  });
});
