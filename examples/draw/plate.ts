/** What the plates of docs/wiring are drawn with: paper, lines, letters, and frames taken from the demo's own delivery. */
import type { Atlas } from "@caravan/core/atlas";
import { letter, letteringWidth } from "@caravan/core/lettering";
import type { Rect } from "@caravan/core/model";
import { clearPixels, crop, lay, type Pixels, scaled } from "@caravan/core/raster";
import { dot } from "./canvas";
import { rgb } from "./palette";

export const ZOOM = 6;
export const PAPER = "#F7F2E8";
export const INK = "#221F1A";
export const MUTED = "#6A6152";
export const LAPIS = "#23557A";
export const SAFFRON = "#D4811E";
/** Height of a line of small letters, px. */
export const LINE = 22;

/** A paper plate, measured in art pixels. */
export function plate(w: number, h: number, zoom = ZOOM): Pixels {
  const out = clearPixels(Math.round(w * zoom), Math.round(h * zoom));
  block(out, 0, 0, out.width, out.height, PAPER);
  return out;
}

export function block(out: Pixels, x: number, y: number, w: number, h: number, hex: string): void {
  for (let row = y; row < y + h; row++) for (let column = x; column < x + w; column++) dot(out, column, row, hex);
}

/** A line around a rectangle of art pixels. */
export function outline(out: Pixels, { x, y, w, h }: Rect, hex: string, thick: number, zoom = ZOOM): void {
  const [left, top, wide, high] = [x, y, w, h].map((value) => Math.round(value * zoom)) as [number, number, number, number];
  block(out, left - thick, top - thick, wide + 2 * thick, thick, hex);
  block(out, left - thick, top + high, wide + 2 * thick, thick, hex);
  block(out, left - thick, top, thick, high, hex);
  block(out, left + wide, top, thick, high, hex);
}

/** An origin, at a place in pixels of art. */
export function cross(out: Pixels, x: number, y: number): void {
  const [cx, cy] = [Math.round(x * ZOOM), Math.round(y * ZOOM)];
  block(out, cx - 14, cy - 1, 28, 3, SAFFRON);
  block(out, cx - 1, cy - 14, 3, 28, SAFFRON);
}

/** Small letters with their top at y, in pixels of the plate; centred about x if asked. */
export function label(out: Pixels, text: string, x: number, y: number, hex = INK, centred = false): void {
  letter(out, text, Math.round(centred ? x - letteringWidth(text, 2) / 2 : x), y, rgb(hex), 2);
}

/** A frame with its origin on (x, y), in pixels of the plate. Upright frames only, as the demo has them. */
export function stand(out: Pixels, atlas: Atlas, page: Pixels, name: string, x: number, y: number, zoom: number): void {
  const { rect, inset, origin } = atlas.frames[name] as Atlas["frames"][string];
  lay(out, scaled(crop(page, rect), zoom), x + Math.round((inset.x - origin.x) * zoom), y + Math.round((inset.y - origin.y) * zoom), true);
}
