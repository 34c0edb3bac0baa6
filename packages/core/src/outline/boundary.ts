/**
 * Traces the exact line around an island along the sides of its pixels: marching squares for pixels that are either drawn or not (Lorensen
 * & Cline 1987 in the plane). Pixels that touch at a corner are connected, so the line visits such a corner twice; the second time it
 * passes beside it, across half of the clear pixel there. So it never touches itself.
 */
import type { Island, Mask } from "./mask";
import type { Corner } from "./polygon";

/** Right, down, left, up. */
const STEPS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** Every corner of a pixel along the line, clockwise, in whole numbers of the picture. Cost: O(length of the line + pixels to its start). */
export function boundaryOf({ x: left, y: top, mask }: Island): Corner[] {
  const { width, height } = mask;
  const first = mask.bytes.indexOf(1);
  const start = { x: first % width, y: Math.floor(first / width) };
  const been = new Uint8Array((width + 1) * (height + 1));
  const line: Corner[] = [];
  let { x, y } = start;
  let way = 0;
  do {
    const corner = y * (width + 1) + x;
    if (been[corner] === 0) line.push({ x: left + x, y: top + y });
    been[corner] = 1;
    const [dx, dy] = STEPS[way] as (typeof STEPS)[number];
    x += dx;
    y += dy;
    if (isIn(mask, x, y, (way + 3) % 4)) way = (way + 3) % 4;
    else if (!isIn(mask, x, y, way)) way = (way + 1) % 4;
  } while (x !== start.x || y !== start.y || way !== 0);
  return line;
}

/** Whether the pixel to the right of a step from this corner is in. */
function isIn({ width, bytes }: Mask, x: number, y: number, way: number): boolean {
  const [u, v] = way === 0 ? [x, y] : way === 1 ? [x - 1, y] : way === 2 ? [x - 1, y - 1] : [x, y - 1];
  return bytes[v * width + u] === 1;
}
