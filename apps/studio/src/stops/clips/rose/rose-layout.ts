/** Where the petals of a wind rose lie: as far apart as the room allows, and never over one another. All lengths in CSS pixels. */
import { angleOfFacing } from "@caravan/core/facing";
import type { Facing, Size } from "@caravan/core/model";

export interface RoseLayout {
  readonly size: Size;
  /** Of each petal's cell. */
  readonly cell: Size;
  /** Largest side of the picture in a cell. */
  readonly picture: number;
  /** From the middle to the cells' middles, along and down. */
  readonly across: number;
  readonly down: number;
}

const SMALL = { cell: { w: 116, h: 96 }, picture: 48 };
const LARGE = { cell: { w: 164, h: 156 }, picture: 104 };
const EDGE = 4;
/** Beyond these the eye has to jump from petal to petal. */
const MOST = { across: 330, down: 250 };

/** How near the middle neighbouring cells still lie apart, with a little air: north-east is at cos 45° of the way. */
function leastFor({ w, h }: Size): { readonly across: number; readonly down: number } {
  return { across: Math.ceil((w + 4) / Math.SQRT1_2), down: Math.ceil((h + 3) / Math.SQRT1_2) };
}

/** The layout for a room; larger than the room only if even the smallest does not fit. */
export function roseLayout(room: Size): RoseLayout {
  const fits = ({ cell }: typeof SMALL) => {
    const least = leastFor(cell);
    return room.w >= 2 * (least.across + EDGE) + cell.w && room.h >= 2 * (least.down + EDGE) + cell.h;
  };
  const { cell, picture } = fits(LARGE) ? LARGE : SMALL;
  const least = leastFor(cell);
  const reach = (side: number, taken: number) => Math.floor((side - taken) / 2) - EDGE;
  const across = Math.max(least.across, Math.min(MOST.across, reach(room.w, cell.w)));
  const down = Math.max(least.down, Math.min(MOST.down, reach(room.h, cell.h)));
  return { size: { w: 2 * (across + EDGE) + cell.w, h: 2 * (down + EDGE) + cell.h }, cell, picture, across, down };
}

/** The middle of a facing's cell. */
export function petalAt({ size, across, down }: RoseLayout, facing: Facing): { readonly x: number; readonly y: number } {
  const angle = (angleOfFacing(facing) * Math.PI) / 180;
  return { x: size.w / 2 + Math.cos(angle) * across, y: size.h / 2 + Math.sin(angle) * down };
}
