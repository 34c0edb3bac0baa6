import type { Pixels } from "./pixels";

/**
 * Draws `part` with its top-left corner at (x, y) of `canvas`, cropped to it: replacing what is there, or over it (the "over" of Porter &
 * Duff, "Compositing Digital Images", SIGGRAPH 1984, with straight alpha). Cost: O(pixels of the part).
 */
export function lay(canvas: Pixels, part: Pixels, x: number, y: number, over: boolean): void {
  for (let row = 0; row < part.height; row++)
    for (let column = 0; column < part.width; column++) {
      const px = x + column;
      const py = y + row;
      if (px < 0 || py < 0 || px >= canvas.width || py >= canvas.height) continue;
      const from = (row * part.width + column) * 4;
      const to = (py * canvas.width + px) * 4;
      const alpha = part.bytes[from + 3] as number;
      const under = canvas.bytes[to + 3] as number;
      if (!over || alpha === 255 || under === 0) canvas.bytes.set(part.bytes.subarray(from, from + 4), to);
      else if (alpha > 0) {
        const a = alpha / 255;
        const b = (under / 255) * (1 - a);
        for (let k = 0; k < 3; k++)
          canvas.bytes[to + k] = Math.round(((part.bytes[from + k] as number) * a + (canvas.bytes[to + k] as number) * b) / (a + b));
        canvas.bytes[to + 3] = Math.round((a + b) * 255);
      }
    }
}
