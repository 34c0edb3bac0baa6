/**
 * Restores the rows of a PNG's unpacked data: whoever can unpack faster than the coder, as Node can, needs no more than this. Only for the
 * kind of nearly every large sheet, RGBA with 8 bits a channel and not interlaced; the coder reads all kinds.
 *
 * After the PNG specification, W3C Recommendation, third edition, section 9. Four channels are added at once within a 32-bit word, with the
 * carry of each byte kept from its neighbour (H. Warren, Hacker's Delight, section 2-18). Words are signed: unsigned ones would become
 * floating-point numbers.
 */
import type { PngHeader } from "./png-structure";

/** Whether `restoringRows` applies to such a file. */
export function hasPlainRows({ bitDepth, colourType, interlaced }: Pick<PngHeader, "bitDepth" | "colourType" | "interlaced">): boolean {
  return bitDepth === 8 && colourType === 6 && !interlaced;
}

/** Takes a picture's unpacked data in parts of any length. */
export interface RowsRestored {
  /** False if a row has a filter that does not exist, or there is more data than the picture has. */
  add(data: Uint8Array): boolean;
  /** Whether every row has come. */
  isWhole(): boolean;
}

/**
 * Writes the pixels of rows, each a filter byte and 4 × `width` bytes, into `into`, which has exactly room for them and is aligned to four
 * bytes.
 */
export function restoringRows(width: number, height: number, into: Uint8Array): RowsRestored {
  const stride = width * 4;
  const words = new Int32Array(into.buffer, into.byteOffset, width * height);
  // The filter byte comes last in the first word, so that the pixels begin at the second.
  const scratch = new Uint8Array(WORD + stride);
  const row = new Int32Array(scratch.buffer, WORD);
  let above: Int32Array = new Int32Array(width);
  let filled = 0;
  let y = 0;
  return {
    add(data) {
      for (let at = 0; at < data.length; ) {
        if (y === height) return false;
        const part = Math.min(data.length - at, stride + 1 - filled);
        scratch.set(data.subarray(at, at + part), WORD - 1 + filled);
        at += part;
        filled += part;
        if (filled <= stride) break;
        const out = words.subarray(y * width, (y + 1) * width);
        if (!restore(scratch[WORD - 1] as number, row, above, out)) return false;
        above = out;
        filled = 0;
        y++;
      }
      return true;
    },
    isWhole: () => y === height,
  };
}

/** bytes */
const WORD = 4;

/** Undoes one row's filter; false if it does not exist. */
function restore(filter: number, row: Int32Array, above: Int32Array, out: Int32Array): boolean {
  switch (filter) {
    case 0:
      out.set(row);
      return true;
    case 1:
      addLeft(row, out);
      return true;
    case 2:
      addUp(row, above, out);
      return true;
    case 3:
      addAverage(row, above, out);
      return true;
    case 4:
      addPaeth(row, above, out);
      return true;
    default:
      return false;
  }
}

const LOW = 0x7f7f7f7f;
const HIGH = 0x80808080 | 0;

function addLeft(row: Int32Array, out: Int32Array): void {
  let left = 0;
  for (let x = 0; x < row.length; x++) {
    const add = row[x] as number;
    left = ((left & LOW) + (add & LOW)) ^ ((left ^ add) & HIGH);
    out[x] = left;
  }
}

function addUp(row: Int32Array, above: Int32Array, out: Int32Array): void {
  for (let x = 0; x < row.length; x++) {
    const up = above[x] as number;
    const add = row[x] as number;
    out[x] = ((up & LOW) + (add & LOW)) ^ ((up ^ add) & HIGH);
  }
}

/** The mean of left and above is rounded down: what both have, and half of what one has. */
function addAverage(row: Int32Array, above: Int32Array, out: Int32Array): void {
  let left = 0;
  for (let x = 0; x < row.length; x++) {
    const up = above[x] as number;
    const add = row[x] as number;
    const mean = (left & up) + (((left ^ up) >>> 1) & LOW);
    left = ((mean & LOW) + (add & LOW)) ^ ((mean ^ add) & HIGH);
    out[x] = left;
  }
}

/**
 * The predictor is whichever of left, above and above left (the corner) is nearest to left + above − corner. Where two neighbours are equal,
 * as nearly everywhere in drawn art, it is the same for all four channels; elsewhere each has its own.
 */
function addPaeth(row: Int32Array, above: Int32Array, out: Int32Array): void {
  let left = 0;
  let corner = 0;
  for (let x = 0; x < row.length; x++) {
    const up = above[x] as number;
    const add = row[x] as number;
    const nearest = up === corner ? left : left === corner ? up : nearestOf(left, up, corner);
    left = ((nearest & LOW) + (add & LOW)) ^ ((nearest ^ add) & HIGH);
    out[x] = left;
    corner = up;
  }
}

function nearestOf(left: number, up: number, corner: number): number {
  return (
    nearestByte(left & 255, up & 255, corner & 255) |
    (nearestByte((left >>> 8) & 255, (up >>> 8) & 255, (corner >>> 8) & 255) << 8) |
    (nearestByte((left >>> 16) & 255, (up >>> 16) & 255, (corner >>> 16) & 255) << 16) |
    (nearestByte(left >>> 24, up >>> 24, corner >>> 24) << 24)
  );
}

function nearestByte(left: number, up: number, corner: number): number {
  const fromLeft = Math.abs(up - corner);
  const fromUp = Math.abs(left - corner);
  const fromCorner = Math.abs(left + up - 2 * corner);
  return fromLeft <= fromUp && fromLeft <= fromCorner ? left : fromUp <= fromCorner ? up : corner;
}
