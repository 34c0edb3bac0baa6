/**
 * Finds specks: a few drawn pixels with nothing near them. Left by an eraser or a slip of the pen, they enlarge frames invisibly and make
 * empty cells look used.
 */
import type { Px } from "../model";
import { bitsSet, type Coverage, isDrawn } from "./coverage";

/** Clear pixels that a speck has around it at least, in every direction. */
const APART: Px = 3;

export interface Speck {
  readonly x: Px;
  readonly y: Px;
}

/**
 * Every pixel of a speck of at most `most` pixels, in reading order. Pixels that touch at a side or a corner are connected; anything else
 * within `APART` of a group means that it is no speck. Cost: O(pixels / 32 + pixels in short runs × most).
 */
export function findSpecks(coverage: Coverage, most: number): Speck[] {
  const { width, height, bits } = coverage;
  const stride = Math.ceil(width / 32);
  const found: Speck[] = [];
  for (let y = 0; y < height; y++)
    for (let word = 0; word < stride; word++)
      for (let rest = bits[y * stride + word] as number; rest !== 0; ) {
        // The lowest run of set bits: adding its lowest bit carries through it. Art is mostly runs too long to be specks.
        const lowest = rest & -rest;
        const others = rest & (rest + lowest);
        const run = rest ^ others;
        rest = others;
        if (bitsSet(run) > most) continue;
        const from = word * 32 + 31 - Math.clz32(lowest);
        for (let x = from; x < from + bitsSet(run); x++) if (isSpeck(coverage, x, y, most)) found.push({ x, y });
      }
  return found;
}

/** Whether the island of this drawn pixel is small and alone. Most pixels are not, and say so at their first neighbours. */
function isSpeck(coverage: Coverage, x: Px, y: Px, most: number): boolean {
  const own: Speck[] = [{ x, y }];
  const has = (px: Px, py: Px) => own.some((each) => each.x === px && each.y === py);
  for (let k = 0; k < own.length; k++) {
    const at = own[k] as Speck;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        if ((dx === 0 && dy === 0) || !isDrawn(coverage, at.x + dx, at.y + dy) || has(at.x + dx, at.y + dy)) continue;
        if (own.length === most) return false;
        own.push({ x: at.x + dx, y: at.y + dy });
      }
  }
  return own.every((at) => {
    for (let dy = -APART; dy <= APART; dy++)
      for (let dx = -APART; dx <= APART; dx++) if (isDrawn(coverage, at.x + dx, at.y + dy) && !has(at.x + dx, at.y + dy)) return false;
    return true;
  });
}
