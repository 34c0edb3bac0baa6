/** Putting PNG files together (specification, W3C Recommendation, third edition, section 5.3). */
import CRC32 from "crc-32";

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

/** The parts one after the other. */
export function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
