/**
 * Rotates about a point, in degrees clockwise on the screen; exact for multiples of 90°, because near-zero sines are rounded. Pure, and
 * shipped with the player, so it has no dependencies.
 */

/** A way from the point that is turned about, to a thousandth of a pixel. */
export function turnedBy({ x, y }: { readonly x: number; readonly y: number }, angle: number): { x: number; y: number } {
  const turn = (angle * Math.PI) / 180;
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  return { x: thousandths(x * cos - y * sin), y: thousandths(x * sin + y * cos) };
}

function thousandths(value: number): number {
  // Never minus 0.
  return Math.round(value * 1000) / 1000 + 0;
}

/** A drawn picture: its size, and the position of its origin. */
interface DrawnPlace {
  readonly size: { readonly w: number; readonly h: number };
  readonly origin: { readonly x: number; readonly y: number };
}

/** The place of a frame that is mirrored, then turned about its origin by whole quarters. */
export function placeTurned({ size, origin }: DrawnPlace, mirror: boolean, angle = 0): DrawnPlace {
  const { w, h } = size;
  const { x, y } = mirror ? { x: w - origin.x, y: origin.y } : origin;
  switch (angle) {
    case 90:
      return { size: { w: h, h: w }, origin: { x: h - y, y: x } };
    case 180:
      return { size, origin: { x: w - x, y: h - y } };
    case 270:
      return { size: { w: h, h: w }, origin: { x: y, y: w - x } };
    default:
      return { size, origin: { x, y } };
  }
}
