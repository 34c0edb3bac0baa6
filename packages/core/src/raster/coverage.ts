/**
 * Coverage: which pixels of a picture are drawn at all, one bit per pixel, set if its alpha is above 0.
 *
 * It is 32 times smaller than the picture, so a screen can keep one for every sheet and find empty cells and drawn parts at once, without a
 * worker: a few milliseconds for a 4096×4096 sheet. Units: bit k of word w of a row is the pixel x = 32·w + k. Bits beyond the width are 0.
 */
import { type Rect, type Size, type Spacing, scaledSide } from "../model";
import { coloursOf, type PictureColours } from "./colours";
import { type Pixels, pixelWords } from "./pixels";

export interface Coverage {
  readonly width: number;
  readonly height: number;
  /** `ceil(width / 32) × height` words, row by row. */
  readonly bits: Uint32Array;
  /** Whether some of its pixels are half transparent, as the edges of smooth drawings are; none of pixel art are. */
  readonly soft?: boolean;
  /** How its colours run, of a picture that is drawn nearly all over. */
  readonly colours?: PictureColours;
}

/** Above this fraction of drawn pixels, clear space says nothing about a picture. */
const NEARLY_ALL = 0.94;

/** Cost: O(pixels). */
export function coverageOf({ width, height, bytes }: Pixels): Coverage {
  const stride = wordsPerRow(width);
  const bits = new Uint32Array(stride * height);
  const pixels = pixelWords(bytes);
  let at = 0;
  let soft = false;
  for (let y = 0; y < height; y++)
    for (let word = 0; word < stride; word++) {
      const end = at + Math.min(32, width - word * 32);
      let mask = 0;
      for (let bit = 1; at < end; at++, bit <<= 1) {
        const alpha = (pixels[at] as number) >>> 24;
        if (alpha === 0) continue;
        mask |= bit;
        if (alpha !== 255) soft = true;
      }
      bits[y * stride + word] = mask;
    }
  return { width, height, bits, soft };
}

/** The coverage of a whole sheet, with its colours if it is drawn nearly all over. Cost: as `coverageOf` and `coloursOf`. */
export function sheetCoverageOf(pixels: Pixels): Coverage {
  const coverage = coverageOf(pixels);
  const { width, height } = pixels;
  const all = countDrawn(coverage, { x: 0, y: 0, w: width, h: height }) >= width * height * NEARLY_ALL;
  return all ? { ...coverage, colours: coloursOf(pixels) } : coverage;
}

/** The coverage of the part `rect`, which must lie within the picture. Cost: O(words of the part). */
export function cropCoverage({ width, bits, soft }: Coverage, rect: Rect): Coverage {
  const stride = wordsPerRow(width);
  const out = new Uint32Array(wordsPerRow(rect.w) * rect.h);
  const shift = rect.x & 31;
  for (let y = 0; y < rect.h; y++)
    for (let word = 0; word << 5 < rect.w; word++) {
      const from = (rect.y + y) * stride + (rect.x >> 5) + word;
      const high = shift > 0 && (rect.x >> 5) + word + 1 < stride ? (bits[from + 1] as number) << (32 - shift) : 0;
      out[y * wordsPerRow(rect.w) + word] = (((bits[from] as number) >>> shift) | high) & maskOf(word, 0, rect.w);
    }
  return { width: rect.w, height: rect.h, bits: out, ...(soft === undefined ? {} : { soft }) };
}

/** Whether a picture has half-transparent pixels. Looked at once for each picture. Cost: O(pixels). */
export function isSoft(pixels: Pixels): boolean {
  const known = softness.get(pixels);
  if (known !== undefined) return known;
  const { bytes } = pixels;
  let soft = false;
  for (let alpha = 3; alpha < bytes.length && !soft; alpha += 4) soft = bytes[alpha] !== 0 && bytes[alpha] !== 255;
  softness.set(pixels, soft);
  return soft;
}

const softness = new WeakMap<Pixels, boolean>();

/** The coverage turned by 90°, counter-clockwise (what was at the right is at the top) or clockwise. Cost: O(pixels). */
export function turnedCoverage(coverage: Coverage, way: "counter" | "clockwise"): Coverage {
  const { width, height, soft } = coverage;
  if (way === "clockwise") return madeCoverage(height, width, soft, (x, y) => isDrawn(coverage, y, height - 1 - x));
  return madeCoverage(height, width, soft, (x, y) => isDrawn(coverage, width - 1 - y, x));
}

/**
 * The scaled coverage of a drawing at `inset` in a picture of `size`: by the pixel under each new centre with `nearest`, otherwise wherever
 * anything is covered. Cost: O(pixels of both).
 */
export function scaledCoverage(coverage: Coverage, inset: Spacing, { w, h }: Size, scale: number, nearest: boolean): Coverage {
  const drawn = (x: number, y: number) => isDrawn(coverage, x - inset.x, y - inset.y);
  const [width, height] = [scaledSide(w, scale), scaledSide(h, scale)];
  const middle = (at: number, side: number) => Math.min(side - 1, Math.floor((at + 0.5) / scale));
  if (nearest) return madeCoverage(width, height, coverage.soft, (x, y) => drawn(middle(x, w), middle(y, h)));
  return madeCoverage(width, height, true, (x, y) => {
    for (let v = Math.floor(y / scale); v < Math.min(h, (y + 1) / scale); v++)
      for (let u = Math.floor(x / scale); u < Math.min(w, (x + 1) / scale); u++) if (drawn(u, v)) return true;
    return false;
  });
}

function madeCoverage(width: number, height: number, soft: boolean | undefined, drawn: (x: number, y: number) => boolean): Coverage {
  const stride = wordsPerRow(width);
  const bits = new Uint32Array(stride * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (drawn(x, y)) bits[y * stride + (x >> 5)] = (bits[y * stride + (x >> 5)] as number) | (1 << (x & 31));
  return { width, height, bits, ...(soft === undefined ? {} : { soft }) };
}

/** Whether `rect`, which must lie within the picture, is empty. Cost: O(rows × words), less if it finds a pixel. */
export function isClear(coverage: Coverage, rect: Rect): boolean {
  for (let y = rect.y; y < rect.y + rect.h; y++) if (!rowIsClear(coverage, y, rect.x, rect.w)) return false;
  return true;
}

/** Whether a pixel is drawn; none is outside the picture. */
export function isDrawn({ width, height, bits }: Coverage, x: number, y: number): boolean {
  if (x < 0 || y < 0 || x >= width || y >= height) return false;
  return (((bits[y * wordsPerRow(width) + (x >> 5)] as number) >>> (x & 31)) & 1) === 1;
}

/** The number of drawn pixels in `rect`, which must lie within the picture. Cost: O(rows × words). */
export function countDrawn({ width, bits }: Coverage, { x, y, w, h }: Rect): number {
  const stride = wordsPerRow(width);
  let count = 0;
  for (let row = y; row < y + h; row++)
    for (let word = x >> 5; word << 5 < x + w; word++) count += bitsSet((bits[row * stride + word] as number) & maskOf(word, x, x + w));
  return count;
}

/** How many bits of a word are set (population count after Warren, "Hacker's Delight", 2nd edition, section 5-1). */
export function bitsSet(word: number): number {
  let x = word - ((word >>> 1) & 0x55555555);
  x = (x & 0x33333333) + ((x >>> 2) & 0x33333333);
  return Math.imul((x + (x >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** The mean index of the drawn pixels in `rect`, which must lie within the picture; null if none is drawn. */
export function middleOfDrawn({ width, bits }: Coverage, { x, y, w, h }: Rect): { x: number; y: number } | null {
  const stride = wordsPerRow(width);
  let count = 0;
  let sumX = 0;
  let sumY = 0;
  for (let row = y; row < y + h; row++)
    for (let word = x >> 5; word << 5 < x + w; word++) {
      const drawn = (bits[row * stride + word] as number) & maskOf(word, x, x + w);
      if (drawn === 0) continue;
      const own = bitsSet(drawn);
      count += own;
      sumX += own * word * 32 + sumOfPlaces(drawn);
      sumY += own * row;
    }
  return count === 0 ? null : { x: sumX / count, y: sumY / count };
}

/** The sum of the positions of all set bits, counting each binary digit of the positions separately. */
function sumOfPlaces(word: number): number {
  return (
    bitsSet(word & 0xaaaaaaaa) +
    2 * bitsSet(word & 0xcccccccc) +
    4 * bitsSet(word & 0xf0f0f0f0) +
    8 * bitsSet(word & 0xff00ff00) +
    16 * bitsSet(word & 0xffff0000)
  );
}

/** The smallest rectangle around everything drawn in `rect`, or null if it is empty. */
export function drawnPart(coverage: Coverage, rect: Rect): Rect | null {
  let top = rect.y;
  let bottom = rect.y + rect.h;
  while (top < bottom && rowIsClear(coverage, top, rect.x, rect.w)) top++;
  if (top === bottom) return null;
  while (rowIsClear(coverage, bottom - 1, rect.x, rect.w)) bottom--;
  let left = rect.x + rect.w;
  let right = rect.x;
  for (let y = top; y < bottom; y++) {
    while (left > rect.x && !rowIsClear(coverage, y, rect.x, left - rect.x)) left = firstDrawn(coverage, y, rect.x, left);
    while (right < rect.x + rect.w && !rowIsClear(coverage, y, right, rect.x + rect.w - right))
      right = lastDrawn(coverage, y, right, rect.x + rect.w) + 1;
  }
  return { x: left, y: top, w: right - left, h: bottom - top };
}

function wordsPerRow(width: number): number {
  return Math.ceil(width / 32);
}

/** Bits of word `word` with x ≤ pixel < end. */
function maskOf(word: number, x: number, end: number): number {
  const from = Math.max(0, x - word * 32);
  const to = Math.min(32, end - word * 32);
  const upTo = to === 32 ? -1 : (1 << to) - 1;
  return upTo & (-1 << from);
}

function rowIsClear({ width, bits }: Coverage, y: number, x: number, count: number): boolean {
  const row = y * wordsPerRow(width);
  const end = x + count;
  for (let word = x >> 5; word << 5 < end; word++) if (((bits[row + word] as number) & maskOf(word, x, end)) !== 0) return false;
  return true;
}

/** The first drawn pixel of a row in x ≤ pixel < end; the row must have one there. */
function firstDrawn({ width, bits }: Coverage, y: number, x: number, end: number): number {
  const row = y * wordsPerRow(width);
  for (let word = x >> 5; ; word++) {
    const found = (bits[row + word] as number) & maskOf(word, x, end);
    if (found !== 0) return word * 32 + (31 - Math.clz32(found & -found));
  }
}

/** The last drawn pixel of a row in x ≤ pixel < end; the row must have one there. */
function lastDrawn({ width, bits }: Coverage, y: number, x: number, end: number): number {
  const row = y * wordsPerRow(width);
  for (let word = (end - 1) >> 5; ; word--) {
    const found = (bits[row + word] as number) & maskOf(word, x, end);
    if (found !== 0) return word * 32 + (31 - Math.clz32(found));
  }
}

/** The union of several coverages of one size, at least one. Cost: O(words × pictures). */
export function joinedCoverage(coverages: readonly Coverage[]): Coverage {
  const [first, ...others] = coverages as [Coverage, ...Coverage[]];
  const bits = first.bits.slice();
  for (const each of others) for (let k = 0; k < bits.length; k++) bits[k] = (bits[k] as number) | (each.bits[k] as number);
  return { width: first.width, height: first.height, bits, soft: coverages.some(({ soft }) => soft === true) };
}
