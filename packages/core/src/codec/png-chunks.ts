/** Assembles PNG files from chunks (specification, W3C Recommendation, third edition, section 5.3). */
import CRC32 from "crc-32";

/** A chunk of a PNG file. */
export interface Chunk {
  readonly type: string;
  readonly data: Uint8Array;
}

/** The parts of a file, as far as they are whole. */
export function chunksOf(bytes: Uint8Array): Chunk[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks: Chunk[] = [];
  for (let at = 8; at + 12 <= bytes.length; ) {
    const length = view.getUint32(at);
    chunks.push({ type: String.fromCharCode(...bytes.subarray(at + 4, at + 8)), data: bytes.subarray(at + 8, at + 8 + length) });
    at += 12 + length;
  }
  return chunks;
}

/** A part of a PNG file: length, type, content, checksum. */
export function chunk(type: string, content: Uint8Array): Uint8Array {
  const out = new Uint8Array(content.length + 12);
  const view = new DataView(out.buffer);
  view.setUint32(0, content.length);
  for (let k = 0; k < 4; k++) out[4 + k] = type.charCodeAt(k);
  out.set(content, 8);
  view.setInt32(content.length + 8, CRC32.buf(out.subarray(4, content.length + 8)));
  return out;
}
