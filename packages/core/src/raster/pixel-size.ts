import type { Pixels } from "./pixels";

/**
 * Returns the size of the art's own pixels: n if the picture consists of single-colour squares of n × n px, like pixel art saved enlarged;
 * 1 otherwise, or if the picture has a single colour. The squares may start anywhere. Cost: O(pixels), less if it is 1.
 */
export function pixelSizeOf({ width, height, bytes }: Pixels): number {
  const words = new Uint32Array(bytes.slice().buffer);
  const alpha = (k: number) => bytes[k * 4 + 3] as number;
  const differ = (a: number, b: number) => words[a] !== words[b] && (alpha(a) !== 0 || alpha(b) !== 0);
  let size = 0;
  let [firstX, firstY] = [-1, -1];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const k = y * width + x;
      if (x > 0 && differ(k, k - 1)) {
        if (firstX < 0) firstX = x;
        size = commonDivisor(size, x - firstX);
      }
      if (y > 0 && differ(k, k - width)) {
        if (firstY < 0) firstY = y;
        size = commonDivisor(size, y - firstY);
      }
      if (size === 1) return 1;
    }
  return size === 0 ? 1 : size;
}

/** Of 0 and a number it is the number. */
function commonDivisor(a: number, b: number): number {
  while (b !== 0) [a, b] = [b, a % b];
  return a;
}
