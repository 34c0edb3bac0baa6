/** Measures how much two drawings overlap at a given offset. */
import { bitsSet, type Coverage } from "./coverage";

/**
 * The number of pixels that are drawn in both, with pixel (x, y) of `a` lying on pixel (x + dx, y + dy) of `b`, whole numbers. Counted 32 pixels
 * at a time. Cost: O(words of `a`).
 */
export function overlapOf(a: Coverage, b: Coverage, dx: number, dy: number): number {
  const [strideA, strideB] = [(a.width + 31) >> 5, (b.width + 31) >> 5];
  const shift = dx & 31;
  const words = dx >> 5;
  let count = 0;
  for (let y = Math.max(0, -dy); y < Math.min(a.height, b.height - dy); y++) {
    const row = (y + dy) * strideB;
    for (let word = 0; word < strideA; word++) {
      const own = a.bits[y * strideA + word] as number;
      if (own === 0) continue;
      const at = word + words;
      const low = at >= 0 && at < strideB ? (b.bits[row + at] as number) >>> shift : 0;
      const high = shift > 0 && at + 1 >= 0 && at + 1 < strideB ? (b.bits[row + at + 1] as number) << (32 - shift) : 0;
      count += bitsSet(own & (low | high));
    }
  }
  return count;
}
