/** Zoom and position of the sheet on the surface. Pure, and tested. Points in CSS pixels from the surface's corner. */

import type { Size } from "@caravan/core/model";
import { largestFitting, nextZoom, zoomsBetween } from "../../ui/zooms";

export interface SheetView {
  /** CSS pixels per sheet pixel: a whole number, or a half, a quarter or an eighth. */
  readonly zoom: number;
  /** The position of the sheet's top-left corner. */
  readonly x: number;
  readonly y: number;
}

export const SHEET_ZOOMS = zoomsBetween(0.0625, 32);

const EDGE = 26; // px: room for the rows' handles

/** The largest zoom at which the whole sheet is seen, in the middle. */
export function fitted(sheet: Size, room: Size): SheetView {
  return centred(sheet, room, largestZoom(sheet, { w: room.w - 2 * EDGE, h: room.h - EDGE }));
}

/** How a sheet is first shown: whole, or if its art would be too small to judge, its whole width from the top. */
export function opening(sheet: Size, room: Size): SheetView {
  const whole = fitted(sheet, room);
  if (whole.zoom >= 2) return whole;
  return centred(sheet, room, largestZoom(sheet, { w: room.w - 2 * EDGE, h: room.h * 2.2 }));
}

function largestZoom(sheet: Size, within: Size): number {
  return largestFitting(SHEET_ZOOMS, (each) => sheet.w * each <= within.w && sheet.h * each <= within.h);
}

/** In the middle, or with its top in sight if it is taller than the room. */
function centred(sheet: Size, room: Size, zoom: number): SheetView {
  const below = room.h - sheet.h * zoom;
  return { zoom, x: Math.round((room.w - sheet.w * zoom) / 2), y: Math.round(below >= 0 ? below / 2 : EDGE / 2) };
}

/** Zooms in or out by one level, keeping the sheet's pixel under (x, y) in place. */
export function zoomedAt(view: SheetView, direction: 1 | -1, x: number, y: number): SheetView {
  const zoom = nextZoom(SHEET_ZOOMS, view.zoom, direction);
  const grow = zoom / view.zoom;
  return { zoom, x: Math.round(x - (x - view.x) * grow), y: Math.round(y - (y - view.y) * grow) };
}

/** Moved by (dx, dy), but never so far that less than a corner of the sheet is left in sight. */
export function panned(view: SheetView, dx: number, dy: number, sheet: Size, room: Size): SheetView {
  const keep = 40; // px of the sheet that stay in sight
  const clamp = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
  return {
    zoom: view.zoom,
    x: clamp(view.x + dx, keep - sheet.w * view.zoom, room.w - keep),
    y: clamp(view.y + dy, keep - sheet.h * view.zoom, room.h - keep),
  };
}

/** The sheet's pixel under a point of the surface; may be outside the sheet. */
export function pixelAt(view: SheetView, x: number, y: number): { x: number; y: number } {
  return { x: Math.floor((x - view.x) / view.zoom), y: Math.floor((y - view.y) / view.zoom) };
}

/** As `pixelAt`, with the part of the pixel. */
export function exactPixelAt(view: SheetView, x: number, y: number): { x: number; y: number } {
  return { x: (x - view.x) / view.zoom, y: (y - view.y) / view.zoom };
}

export function zoomInWords(zoom: number): string {
  return zoom >= 1 ? `${zoom}×` : `1/${1 / zoom}×`;
}
