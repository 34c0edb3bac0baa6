/** Zoom and position of the sheet on the surface. Pure, and tested. Points in CSS pixels from the surface's corner. */

import type { Size } from "@caravan/core/model";
import { evenScale, largestFitting, nextZoom, onPixel, zoomsBetween } from "../../ui/zooms";

export interface SheetView {
  /** What was chosen: a whole number, or a half, a quarter or an eighth. */
  readonly zoom: number;
  /** CSS pixels per sheet pixel: those of the zoom, or as near to them as the screen has whole pixels. */
  readonly scale: number;
  /** The position of the sheet's top-left corner, on a whole pixel of the screen. */
  readonly x: number;
  readonly y: number;
}

export const SHEET_ZOOMS = zoomsBetween(0.0625, 32);

const EDGE = 26; // px: room for the rows' handles

/** What is shown where. `density`: the screen's pixels per CSS pixel. */
export interface Surface {
  readonly sheet: Size;
  readonly room: Size;
  readonly density: number;
}

/** The largest zoom at which the whole sheet is seen, in the middle. */
export function fitted(surface: Surface): SheetView {
  const { room } = surface;
  return centred(surface, largestZoom(surface, { w: room.w - 2 * EDGE, h: room.h - EDGE }));
}

/** How a sheet is first shown: whole, or if its art would be too small to judge, its whole width from the top. */
export function opening(surface: Surface): SheetView {
  const { room } = surface;
  const whole = fitted(surface);
  if (whole.zoom >= 2) return whole;
  return centred(surface, largestZoom(surface, { w: room.w - 2 * EDGE, h: room.h * 2.2 }));
}

function largestZoom({ sheet, density }: Surface, within: Size): number {
  return largestFitting(SHEET_ZOOMS, (zoom) => {
    const scale = evenScale(zoom, density);
    return sheet.w * scale <= within.w && sheet.h * scale <= within.h;
  });
}

/** In the middle, or with its top in sight if it is taller than the room. */
function centred({ sheet, room, density }: Surface, zoom: number): SheetView {
  const scale = evenScale(zoom, density);
  const below = room.h - sheet.h * scale;
  return onPixels({ zoom, scale, x: (room.w - sheet.w * scale) / 2, y: below >= 0 ? below / 2 : EDGE / 2 }, density);
}

function onPixels(view: SheetView, density: number): SheetView {
  return { ...view, x: onPixel(view.x, density), y: onPixel(view.y, density) };
}

/** Zooms in or out by one level, keeping the sheet's pixel under (x, y) in place. */
export function zoomedAt(view: SheetView, direction: 1 | -1, x: number, y: number, density: number): SheetView {
  return scaledAt(view, nextZoom(SHEET_ZOOMS, view.zoom, direction), x, y, density);
}

function scaledAt(view: SheetView, zoom: number, x: number, y: number, density: number): SheetView {
  const scale = evenScale(zoom, density);
  const grow = scale / view.scale;
  return onPixels({ zoom, scale, x: x - (x - view.x) * grow, y: y - (y - view.y) * grow }, density);
}

/** The same on a screen of another density; its middle stays. */
export function onScreen(view: SheetView, { room, density }: Surface): SheetView {
  return scaledAt(view, view.zoom, room.w / 2, room.h / 2, density);
}

/** Moved by (dx, dy), but never so far that less than a corner of the sheet is left in sight. */
export function panned(view: SheetView, dx: number, dy: number, { sheet, room, density }: Surface): SheetView {
  const keep = 40; // px of the sheet that stay in sight
  const clamp = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
  const x = clamp(view.x + dx, keep - sheet.w * view.scale, room.w - keep);
  const y = clamp(view.y + dy, keep - sheet.h * view.scale, room.h - keep);
  return onPixels({ ...view, x, y }, density);
}

/** The sheet's pixel under a point of the surface; may be outside the sheet. */
export function pixelAt(view: SheetView, x: number, y: number): { x: number; y: number } {
  return { x: Math.floor((x - view.x) / view.scale), y: Math.floor((y - view.y) / view.scale) };
}

/** As `pixelAt`, with the part of the pixel. */
export function exactPixelAt(view: SheetView, x: number, y: number): { x: number; y: number } {
  return { x: (x - view.x) / view.scale, y: (y - view.y) / view.scale };
}

export function zoomInWords(zoom: number): string {
  return zoom >= 1 ? `${zoom}×` : `1/${1 / zoom}×`;
}
