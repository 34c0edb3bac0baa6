/** Reads the names of files in a ZIP as the program that packed it meant them. */

/** Signatures and lengths of records (APPNOTE.TXT, 4.3.12 and 4.3.16). */
const ENTRY = 0x02014b50;
const ENTRY_LENGTH = 46;
const END = 0x06054b50;
const END_LENGTH = 22;
/** bytes: the longest remark after the end record. */
const LONGEST_REMARK = 65_535;
/** The flag of names in UTF-8 (APPNOTE.TXT, 4.4.4, bit 11). */
const IS_UTF8 = 0x800;

/** The upper half of code page 437, which names without the flag are in (APPNOTE.TXT, appendix D). */
const UPPER =
  "ÇüéâäàåçêëèïîìÄÅÉæÆôöòûùÿÖÜ¢£¥₧ƒáíóúñÑªº¿⌐¬½¼¡«»░▒▓│┤╡╢╖╕╣║╗╝╜╛┐└┴┬├─┼╞╟╚╔╩╦╠═╬╧╨╤╥╙╘╒╓╫╪┘┌█▄▌▐▀αßΓπΣσµτΦΘΩδ∞φε∩≡±≥≤⌠⌡÷≈°∙·√ⁿ²■\u00a0";

/**
 * Names beyond ASCII that do not say that they are UTF-8, by their bytes as Latin-1, which is how unpackers read them: UTF-8 if they can be,
 * as some systems write it without saying so, otherwise of code page 437. Empty if the list of files is not found where it should be.
 * Cost: O(files).
 */
export function meantNames(archive: Uint8Array): ReadonlyMap<string, string> {
  const names = new Map<string, string>();
  const view = new DataView(archive.buffer, archive.byteOffset, archive.byteLength);
  let end = archive.length - END_LENGTH;
  const least = Math.max(0, end - LONGEST_REMARK);
  while (end >= least && view.getUint32(end, true) !== END) end--;
  if (end < least) return names;
  let at = view.getUint32(end + 16, true);
  for (let left = view.getUint16(end + 10, true); left > 0; left--) {
    if (at + ENTRY_LENGTH > archive.length || view.getUint32(at, true) !== ENTRY) return names;
    const [name, extra, remark] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true)) as [number, number, number];
    const bytes = archive.subarray(at + ENTRY_LENGTH, at + ENTRY_LENGTH + name);
    if ((view.getUint16(at + 8, true) & IS_UTF8) === 0 && bytes.some((byte) => byte > 127))
      names.set(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(""), named(bytes));
    at += ENTRY_LENGTH + name + extra + remark;
  }
  return names;
}

function named(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return Array.from(bytes, (byte) => (byte < 128 ? String.fromCharCode(byte) : UPPER[byte - 128])).join("");
  }
}
