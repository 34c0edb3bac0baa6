/**
 * Sorts pieces into uneven rows for reading: rows from top to bottom, each from left to right.
 *
 * The tallest piece without a row opens one; it takes all pieces whose centre lies between its top and bottom, and those that reach well
 * into that band where it is free, such as a jumping figure. Holds: every piece is in one row. Cost: O(n × rows).
 */
import type { Rect } from "../model";

/** How far into a row's band a piece must reach to belong to it although its middle does not: this share of its height. */
const REACH = 0.3;

export function rowsOf<Piece extends { readonly rect: Rect }>(pieces: readonly Piece[]): Piece[][] {
  const left = pieces.toSorted((a, b) => b.rect.h - a.rect.h || a.rect.y - b.rect.y || a.rect.x - b.rect.x);
  const rows: { top: number; members: Piece[] }[] = [];
  while (left.length > 0) {
    const band = (left[0] as Piece).rect;
    const bottom = band.y + band.h;
    const members: Piece[] = [];
    const keep: Piece[] = [];
    for (const piece of left) {
      const middle = piece.rect.y + piece.rect.h / 2;
      (middle >= band.y && middle < bottom ? members : keep).push(piece);
    }
    const others: Piece[] = [];
    for (const piece of keep) {
      const { y, h } = piece.rect;
      const inside = Math.min(y + h, bottom) - Math.max(y, band.y);
      const free = members.every(({ rect }) => rect.x + rect.w <= piece.rect.x || piece.rect.x + piece.rect.w <= rect.x);
      (inside >= h * REACH && free ? members : others).push(piece);
    }
    rows.push({ top: band.y, members });
    left.splice(0, left.length, ...others);
  }
  return rows.sort((a, b) => a.top - b.top).map(({ members }) => members.sort((a, b) => a.rect.x - b.rect.x || a.rect.y - b.rect.y));
}

/** A piece at its place on a sheet, wrapped for the same size as the others of its row. */
export interface Levelled {
  readonly size: { readonly w: number; readonly h: number };
  readonly inset: { readonly x: number; readonly y: number };
}

/** Equal sizes for the pieces of one row: each with its lowest pixel on the bottom line, centred. */
export function levelRow(pieces: readonly { readonly rect: Rect }[]): Levelled[] {
  const w = Math.max(...pieces.map(({ rect }) => rect.w));
  const h = Math.max(...pieces.map(({ rect }) => rect.h));
  return pieces.map(({ rect }) => ({ size: { w, h }, inset: { x: Math.floor((w - rect.w) / 2), y: h - rect.h } }));
}
