/** Unpacks what can be of a damaged ZIP: one cut off has no list of its files, so they are read one after the other from its beginning. */
import CRC32 from "crc-32";
import { strToU8, Unzip, UnzipInflate } from "fflate";
import { joined } from "./joined";
import type { NamedFile } from "./zip";

/**
 * The complete files of those `wanted`, by path, up to the first place that cannot be read; in all at most `most` bytes. Their checksums are
 * not looked at: see `hasItsChecksum`, or hold them against hashes of your own.
 */
export function remainsOfZip(bytes: Uint8Array, wanted: (path: string) => boolean, most: number): NamedFile[] {
  const found: NamedFile[] = [];
  let total = 0;
  const archive = new Unzip((file) => {
    if (!wanted(file.name)) return;
    const parts: Uint8Array[] = [];
    file.ondata = (error, part, isLast) => {
      if (error) throw error;
      parts.push(part);
      total += part.length;
      if (total > most) throw new RangeError("It unpacks to more than is read.");
      if (isLast) found.push({ path: file.name, bytes: joined(parts) });
    };
    file.start();
  });
  archive.register(UnzipInflate);
  try {
    archive.push(bytes, true);
  } catch {
    // Here it ends.
  }
  return found;
}

/** Bytes of a file's header in the archive up to its name (APPNOTE.TXT, 4.3.7). */
const HEADER = 30;

/** Whether a file's checksum in the archive is right; false also where none is found. Cost: linear in the archive. */
export function hasItsChecksum(archive: Uint8Array, { path, bytes }: NamedFile): boolean {
  return checksumOf(archive, path) === CRC32.buf(bytes) >>> 0;
}

function checksumOf(archive: Uint8Array, path: string): number | null {
  const name = strToU8(path);
  const view = new DataView(archive.buffer, archive.byteOffset, archive.byteLength);
  for (let at = archive.indexOf(0x50); at >= 0 && at + HEADER + name.length <= archive.length; at = archive.indexOf(0x50, at + 1))
    if (
      view.getUint32(at, true) === 0x04034b50 &&
      view.getUint16(at + 26, true) === name.length &&
      name.every((byte, k) => archive[at + HEADER + k] === byte)
    )
      return view.getUint32(at + 14, true);
  return null;
}
