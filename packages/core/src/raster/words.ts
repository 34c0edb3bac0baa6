/** Views pixels as 32-bit words, for comparing and hashing many at once. */
import type { Pixels } from "./pixels";

/** Whether a pixel's alpha is above 0, in a word as the machine reads it from R, G, B, A. */
const ALPHA = new Uint8Array(new Uint32Array([0xff000000]).buffer)[3] === 0xff ? 0xff000000 : 0x000000ff;

export function isDrawnWord(word: number): boolean {
  return (word & ALPHA) !== 0;
}

/** A word per pixel, row by row; 0 for every transparent pixel, whatever its colour. Cost: a copy. */
export function wordsOf({ bytes, width, height }: Pixels): Uint32Array {
  const words = new Uint32Array(width * height);
  words.set(new Uint32Array(bytes.buffer, bytes.byteOffset, width * height));
  for (let k = 0; k < words.length; k++) if (!isDrawnWord(words[k] as number)) words[k] = 0;
  return words;
}
