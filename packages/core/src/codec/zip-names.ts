/** Reads the names of files in a ZIP as the program that packed it meant them. */
import CRC32 from "crc-32";
import { t } from "../words";
import { lettersOf } from "./letters";

/** Signatures and lengths of records (APPNOTE.TXT, 4.3.12 and 4.3.16). */
const ENTRY = 0x02014b50;
const ENTRY_LENGTH = 46;
const END = 0x06054b50;
const END_LENGTH = 22;
/** bytes: the longest remark after the end record. */
const LONGEST_REMARK = 65_535;
/** The flag of names in UTF-8 (APPNOTE.TXT, 4.4.4, bit 11). */
const IS_UTF8 = 0x800;
/** The extra field with the same name in UTF-8 (APPNOTE.TXT, 4.6.9). */
const UNICODE_PATH = 0x7075;

/** The upper half of code page 437, which names without the flag are in (APPNOTE.TXT, appendix D). */
const UPPER =
  "ÇüéâäàåçêëèïîìÄÅÉæÆôöòûùÿÖÜ¢£¥₧ƒáíóúñÑªº¿⌐¬½¼¡«»░▒▓│┤╡╢╖╕╣║╗╝╜╛┐└┴┬├─┼╞╟╚╔╩╦╠═╬╧╨╤╥╙╘╒╓╫╪┘┌█▄▌▐▀αßΓπΣσµτΦΘΩδ∞φε∩≡±≥≤⌠⌡÷≈°∙·√ⁿ²■\u00a0";

export interface MeantNames {
  /** By the bytes of the name as Latin-1, which is how unpackers read them. */
  readonly names: ReadonlyMap<string, string>;
  /** Whose letters names were taken for, in words, if nothing in the archive says so; otherwise null. */
  readonly guessed: string | null;
}

/**
 * Names beyond ASCII that are not marked as UTF-8: those of the archive's own second list of names, if it has one; UTF-8 if they can be, as
 * some systems write it without saying so; otherwise old East Asian or Cyrillic encodings if their letters are likely, and code page 437.
 * Empty if the list of files is not found where it should be. Cost: O(files).
 */
export function meantNames(archive: Uint8Array): MeantNames {
  const names = new Map<string, string>();
  const unsure: Uint8Array[] = [];
  for (const { bytes, extra } of unmarkedNames(archive)) {
    const name = toldBeside(bytes, extra) ?? asUtf8(bytes);
    if (name === null) unsure.push(bytes);
    else names.set(asLatin1(bytes), name);
  }
  if (unsure.length === 0) return { names, guessed: null };
  const { encoding, words } = lettersOf(unsure, { encoding: "", words: t("Western European") }, "ibm866");
  const decoder = encoding === "" ? null : new TextDecoder(encoding);
  for (const bytes of unsure) names.set(asLatin1(bytes), decoder ? decoder.decode(bytes) : asPage437(bytes));
  return { names, guessed: words };
}

function unmarkedNames(archive: Uint8Array): { readonly bytes: Uint8Array; readonly extra: Uint8Array }[] {
  const found: { bytes: Uint8Array; extra: Uint8Array }[] = [];
  const view = new DataView(archive.buffer, archive.byteOffset, archive.byteLength);
  let end = archive.length - END_LENGTH;
  const least = Math.max(0, end - LONGEST_REMARK);
  while (end >= least && view.getUint32(end, true) !== END) end--;
  if (end < least) return found;
  let at = view.getUint32(end + 16, true);
  for (let left = view.getUint16(end + 10, true); left > 0; left--) {
    if (at + ENTRY_LENGTH > archive.length || view.getUint32(at, true) !== ENTRY) return found;
    const [name, extra, remark] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true)) as [number, number, number];
    const start = at + ENTRY_LENGTH;
    const bytes = archive.subarray(start, start + name);
    if ((view.getUint16(at + 8, true) & IS_UTF8) === 0 && bytes.some((byte) => byte > 127))
      found.push({ bytes, extra: archive.subarray(start + name, start + name + extra) });
    at = start + name + extra + remark;
  }
  return found;
}

/** The name in an extra field that was written for these very bytes: a program that knows no such fields may have changed the name alone. */
function toldBeside(bytes: Uint8Array, extra: Uint8Array): string | null {
  const view = new DataView(extra.buffer, extra.byteOffset, extra.byteLength);
  for (let at = 0; at + 4 <= extra.length; at += 4 + view.getUint16(at + 2, true)) {
    const length = view.getUint16(at + 2, true);
    if (view.getUint16(at, true) !== UNICODE_PATH || length < 5 || at + 4 + length > extra.length) continue;
    if (view.getUint8(at + 4) === 1 && view.getUint32(at + 5, true) === CRC32.buf(bytes) >>> 0)
      return asUtf8(extra.subarray(at + 9, at + 4 + length));
  }
  return null;
}

function asUtf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

function asLatin1(bytes: Uint8Array): string {
  return Array.from(bytes, (byte) => String.fromCharCode(byte)).join("");
}

function asPage437(bytes: Uint8Array): string {
  return Array.from(bytes, (byte) => (byte < 128 ? String.fromCharCode(byte) : UPPER[byte - 128])).join("");
}
