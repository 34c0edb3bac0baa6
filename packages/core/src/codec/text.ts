/** Reads text files that other programs wrote. */
import { t } from "../words";
import { lettersOf } from "./letters";

export interface ReadText {
  readonly text: string;
  /** Whose letters its bytes beyond ASCII were taken for, in words, if nothing in the file says so; otherwise null. */
  readonly guessed: string | null;
}

/**
 * UTF-8, or UTF-16 in either byte order, as some systems' shells and spreadsheets write; otherwise old East Asian and Cyrillic encodings if
 * their letters are likely, and Windows-1252, the usual one (WHATWG Encoding Standard, section 4.2). A mark at the beginning is left out.
 */
export function readText(bytes: Uint8Array): ReadText {
  const wide = wideOrder(bytes);
  if (wide !== null) return { text: new TextDecoder(wide).decode(bytes), guessed: null };
  try {
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(bytes), guessed: null };
  } catch {
    const western = { encoding: "windows-1252", words: t("Western European") };
    const { encoding, words } = lettersOf([bytes], western, "windows-1251");
    return { text: inPieces(bytes, encoding), guessed: words };
  }
}

/** As of a stream: read at once, Node 20 takes Windows-1252 for Latin-1, and `œ` and `…` for control characters. */
function inPieces(bytes: Uint8Array, encoding: string): string {
  const decoder = new TextDecoder(encoding);
  return decoder.decode(bytes, { stream: true }) + decoder.decode();
}

/** Text has no zero bytes, unless it is UTF-16, and next to no control characters. */
export function seemsText(bytes: Uint8Array): boolean {
  if (wideOrder(bytes) !== null) return true;
  const start = bytes.subarray(0, LOOKED_AT);
  let odd = 0;
  for (const byte of start) {
    if (byte === 0) return false;
    if (byte < 32 && byte !== 9 && byte !== 10 && byte !== 13) odd++;
  }
  return odd < start.length / 50;
}

const LOOKED_AT = 2000; // bytes

/** By the mark at the beginning; without one by ASCII, which has a zero in every other byte. */
function wideOrder(bytes: Uint8Array): "utf-16le" | "utf-16be" | null {
  if (bytes.length < 2 || bytes.length % 2 !== 0) return null;
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return "utf-16le";
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return "utf-16be";
  const start = bytes.subarray(0, LOOKED_AT);
  let little = 0;
  let big = 0;
  for (let k = 0; k < start.length; k += 2) {
    const [even, odd] = [start[k] as number, start[k + 1] as number];
    if (odd === 0 && isPrinted(even)) little++;
    if (even === 0 && isPrinted(odd)) big++;
  }
  const enough = (start.length / 2) * 0.9;
  return little >= enough ? "utf-16le" : big >= enough ? "utf-16be" : null;
}

function isPrinted(byte: number): boolean {
  return (byte >= 32 && byte < 127) || byte === 9 || byte === 10 || byte === 13;
}
