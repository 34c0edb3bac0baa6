/**
 * Draws the country of the Tamarisk Road as a backdrop: sky, far ridges, dunes, a few shrubs and the road. It uses the art's own pixel
 * size and few colours, so that figures are judged where they will be seen.
 */

const SKY = ["#e8c99b", "#eed3a8", "#f3deb8", "#f7e8cb"] as const;
const RIDGE = "#c59a78";
const RIDGE_NEAR = "#b58163";
const DUNE = "#d9a766";
const DUNE_SHADE = "#c48f52";
const ROAD = "#b98250";
const ROAD_EDGE = "#a06c41";
const SHRUB = ["#6f7a4b", "#59643c", "#8a9160"] as const;

/** A whole-number noise without state: the same place always gives the same. After a common integer hash. */
function noise(x: number): number {
  let n = Math.imul(x ^ 0x9e3779b9, 0x85ebca6b);
  n = Math.imul(n ^ (n >>> 13), 0xc2b2ae35);
  return ((n ^ (n >>> 16)) >>> 0) / 2 ** 32;
}

let made: { readonly key: string; readonly canvas: HTMLCanvasElement } | null = null;
let madeOpen: { readonly key: string; readonly canvas: HTMLCanvasElement } | null = null;

/** A picture of this size in art pixels, with the road below `groundY`. The last one is cached. */
export function landscape(width: number, height: number, groundY: number): HTMLCanvasElement {
  const key = `${width} ${height} ${groundY}`;
  if (made?.key === key) return made.canvas;
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, width);
  canvas.height = Math.max(1, height);
  const context = canvas.getContext("2d") as CanvasRenderingContext2D;
  const band = (y: number, h: number, colour: string, x = 0, w = width) => {
    context.fillStyle = colour;
    context.fillRect(x, y, w, h);
  };
  const horizon = groundY - 14;
  for (const [k, colour] of SKY.entries()) {
    const top = Math.floor((horizon * k) / SKY.length);
    band(top, horizon - top, colour);
  }
  for (let x = 0; x < width; x++) {
    const far = Math.round(12 + 7 * Math.sin(x / 23) + 4 * Math.sin(x / 9 + 2));
    band(horizon - far, far, RIDGE, x, 1);
    const near = Math.round(6 + 4 * Math.sin(x / 17 + 1) + 2 * Math.sin(x / 5));
    band(horizon - near, near, RIDGE_NEAR, x, 1);
    const dune = Math.max(0, Math.round(2 + 3 * Math.sin(x / 31 + 4)));
    band(horizon - dune, height, DUNE, x, 1);
    if ((x + dune) % 3 === 0) band(horizon - dune + 1, 1, DUNE_SHADE, x, 1);
  }
  for (let x = 3; x < width; x += 7) {
    if (noise(x) < 0.55) continue;
    const y = horizon + 2 + Math.floor(noise(x + 999) * 6);
    const colour = SHRUB[Math.floor(noise(x + 55) * SHRUB.length)] as string;
    band(y - 1, 1, colour, x, 2);
    band(y, 1, colour, x - 1, 4);
    band(y + 1, 1, DUNE_SHADE, x - 1, 5);
  }
  band(groundY - 4, height, ROAD);
  band(groundY - 4, 1, ROAD_EDGE);
  for (let x = 0; x < width; x++) {
    const y = groundY - 3 + Math.floor(noise(x * 3 + 7) * Math.max(4, height - groundY + 4));
    if (noise(x * 11 + 1) > 0.6) band(y, 1, ROAD_EDGE, x, 2);
  }
  made = { key, canvas };
  return canvas;
}

const SAND = "#d2a066";
const SAND_DARK = "#bf8c54";
const SAND_LIGHT = "#e0b57c";
const STONE = ["#8f8b96", "#686476"] as const;

/**
 * The same country seen from above, in px of art: sky and ridges end at `horizon`; below it sand with ripples, shrubs, stones, and the road that
 * crosses it. The last one made is kept.
 */
export function openCountry(width: number, height: number, horizon: number): HTMLCanvasElement {
  const key = `${width} ${height} ${horizon}`;
  if (madeOpen?.key === key) return madeOpen.canvas;
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, width);
  canvas.height = Math.max(1, height);
  const context = canvas.getContext("2d") as CanvasRenderingContext2D;
  const dab = (x: number, y: number, w: number, h: number, colour: string) => {
    context.fillStyle = colour;
    context.fillRect(x, y, w, h);
  };
  context.drawImage(landscape(width, Math.max(1, horizon), horizon + 14), 0, 0);
  dab(0, horizon, width, height, SAND);
  // Ripples lie across the wind, and closer together in the distance.
  for (let y = horizon + 3, gap = 5; y < height; y += Math.round(gap), gap += 0.6)
    for (let x = Math.floor(noise(y * 5) * 9); x < width; x += 14 + Math.floor(noise(x * 7 + y) * 22)) {
      const long = 4 + Math.floor(noise(x + y * 31) * 9);
      const dip = Math.round(Math.sin((x + y) / 26) * 2);
      dab(x, y + dip, long, 1, SAND_DARK);
      dab(x + 1, y + dip + 1, Math.max(1, long - 2), 1, SAND_LIGHT);
    }
  // The road comes from the left and bends away.
  for (let x = 0; x < width; x++) {
    const middle = horizon + (height - horizon) * (0.5 + 0.12 * Math.sin(x / 90 + 1));
    const half = 15 + Math.round(2 * Math.sin(x / 13));
    dab(x, Math.round(middle) - half, 1, half * 2, ROAD);
    dab(x, Math.round(middle) - half, 1, 1, ROAD_EDGE);
    dab(x, Math.round(middle) + half - 1, 1, 1, ROAD_EDGE);
    if (noise(x * 11 + 1) > 0.55) dab(x, Math.round(middle) - half + 2 + Math.floor(noise(x * 3 + 7) * (half * 2 - 5)), 2, 1, ROAD_EDGE);
  }
  for (let k = 0; k < (width * (height - horizon)) / 2600; k++) {
    const x = Math.floor(noise(k * 17 + 3) * width);
    const y = horizon + 6 + Math.floor(noise(k * 29 + 11) * Math.max(1, height - horizon - 10));
    if (noise(k * 41) < 0.35) {
      dab(x, y, 4, 2, STONE[0]);
      dab(x + 1, y + 2, 4, 1, STONE[1]);
      continue;
    }
    const colour = SHRUB[Math.floor(noise(k * 13) * SHRUB.length)] as string;
    dab(x + 1, y - 2, 3, 1, colour);
    dab(x - 1, y - 1, 7, 2, colour);
    dab(x, y + 1, 5, 1, SHRUB[1]);
    dab(x - 1, y + 2, 8, 1, SAND_DARK);
  }
  madeOpen = { key, canvas };
  return canvas;
}
