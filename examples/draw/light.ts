/** Light that falls around a flame: a layer of its own over the art, to be added to what is below. */
import type { Rect, Size } from "@caravan/core/model";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { RAMPS, rgb } from "./palette";

/** Rings from the flame outward: how far each reaches, in px, its colour and how strong it is. */
const RINGS = [
  { reach: 3.4, hex: RAMPS.fire[4], alpha: 92 },
  { reach: 6.2, hex: RAMPS.fire[3], alpha: 64 },
  { reach: 9.6, hex: RAMPS.fire[2], alpha: 42 },
  { reach: 14, hex: RAMPS.fire[1], alpha: 24 },
] as const;

/** How much the rings grow and shrink from frame to frame; it loops after four. */
const FLICKER = [1, 1.06, 0.97, 1.03];

/** The colours of a flame, for finding it in a frame. */
const FLAME = new Set<string>([RAMPS.fire[3], RAMPS.fire[4]]);

/**
 * Light over a sheet of cells, around the centre of the flame in each; none without a visible flame. `reach` scales the rings, which end at
 * the cell's edges, softened by every other pixel of the outermost one.
 */
export function lightOver(sheet: Pixels, cell: Size, reach: number): Pixels {
  const light = clearPixels(sheet.width, sheet.height);
  const columns = sheet.width / cell.w;
  for (let number = 0; number < columns * (sheet.height / cell.h); number++) {
    const area = { x: (number % columns) * cell.w, y: Math.floor(number / columns) * cell.h, ...cell };
    const flame = flameIn(sheet, area);
    if (flame) shine(light, area, flame, reach * (FLICKER[number % FLICKER.length] as number));
  }
  return light;
}

function flameIn({ width, bytes }: Pixels, { x, y, w, h }: Rect): { x: number; y: number } | null {
  let [count, across, down] = [0, 0, 0];
  for (let v = y; v < y + h; v++)
    for (let u = x; u < x + w; u++) {
      const at = (v * width + u) * 4;
      if (bytes[at + 3] === 0 || !FLAME.has(hexAt(bytes, at))) continue;
      count++;
      across += u;
      down += v;
    }
  return count === 0 ? null : { x: across / count, y: down / count };
}

function hexAt(bytes: Uint8Array, at: number): string {
  return `#${[0, 1, 2].map((k) => (bytes[at + k] as number).toString(16).padStart(2, "0")).join("")}`;
}

function shine({ width, bytes }: Pixels, { x, y, w, h }: Rect, flame: { x: number; y: number }, reach: number): void {
  for (let v = y; v < y + h; v++)
    for (let u = x; u < x + w; u++) {
      const away = Math.hypot(u - flame.x, v - flame.y) / reach;
      const ring = RINGS.findIndex((each) => away <= each.reach);
      if (ring < 0 || (ring === RINGS.length - 1 && (u + v) % 2 === 1)) continue;
      const { hex, alpha } = RINGS[ring] as (typeof RINGS)[number];
      bytes.set([...rgb(hex), alpha], (v * width + u) * 4);
    }
}
