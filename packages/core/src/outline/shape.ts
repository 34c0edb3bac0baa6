/** Masks made of masks: what several have in common, larger or smaller, with a straight bottom. */
import type { SteadyWay } from "../model";
import type { Mask, PlacedMask } from "./mask";

/** What any, at least half, or all of the masks cover, laid over one another by their place 0, 0. Cost: O(pixels of all). */
export function steadyMask(masks: readonly PlacedMask[], by: SteadyWay): PlacedMask {
  const left = Math.max(0, ...masks.map(({ at }) => at.x));
  const top = Math.max(0, ...masks.map(({ at }) => at.y));
  const width = left + Math.max(1, ...masks.map(({ mask, at }) => mask.width - at.x));
  const height = top + Math.max(1, ...masks.map(({ mask, at }) => mask.height - at.y));
  const count = new Uint16Array(width * height);
  for (const { mask, at } of masks)
    for (let y = 0; y < mask.height; y++)
      for (let x = 0; x < mask.width; x++)
        if (mask.bytes[y * mask.width + x] === 1) {
          const place = (y + top - at.y) * width + x + left - at.x;
          count[place] = (count[place] as number) + 1;
        }
  const least = by === "union" ? 1 : by === "shared" ? masks.length : masks.length / 2;
  return { mask: { width, height, bytes: Uint8Array.from(count, (each) => (each > 0 && each >= least ? 1 : 0)) }, at: { x: left, y: top } };
}

/** Larger by so many pixels all around, as a disc is, or smaller by as many where it is negative. Cost: O(pixels × |px|). */
export function grownMask({ mask, at }: PlacedMask, px: number): PlacedMask {
  if (px === 0) return { mask, at };
  if (px < 0) return { mask: inverted(dilated(inverted(mask), -px, 1)), at };
  const roomy = withRoom(mask, px);
  return { mask: dilated(roomy, px, 0), at: { x: at.x + px, y: at.y + px } };
}

/** With `px` clear pixels more on each side. */
function withRoom({ width, height, bytes }: Mask, px: number): Mask {
  const wide = width + 2 * px;
  const out = new Uint8Array(wide * (height + 2 * px));
  for (let y = 0; y < height; y++) out.set(bytes.subarray(y * width, (y + 1) * width), (y + px) * wide + px);
  return { width: wide, height: height + 2 * px, bytes: out };
}

function inverted({ width, height, bytes }: Mask): Mask {
  return { width, height, bytes: bytes.map((each) => 1 - each) };
}

/** Every pixel within a disc of a covered one; `beyond` is what lies outside the mask. */
function dilated({ width, height, bytes }: Mask, px: number, beyond: 0 | 1): Mask {
  const out = new Uint8Array(width * height);
  const isCovered = (x: number, y: number) =>
    (x < 0 || y < 0 || x >= width || y >= height ? beyond : (bytes[y * width + x] as number)) === 1;
  // How far the disc reaches to both sides in each of its rows.
  const reach = Array.from({ length: px + 1 }, (_, dy) => Math.floor(Math.sqrt(px * px - dy * dy)));
  for (let row = -px; row < height + px; row++) {
    let run = Number.NEGATIVE_INFINITY;
    for (let x = -px; x < width + px; x++) {
      if (!isCovered(x, row)) {
        run = Number.NEGATIVE_INFINITY;
        continue;
      }
      for (let dy = -px; dy <= px; dy++) {
        const y = row + dy;
        if (y < 0 || y >= height) continue;
        const far = reach[Math.abs(dy)] as number;
        // Of a run of covered pixels each adds only its last pixel to the right.
        const from = run === x - 1 ? x + far : x - far;
        for (let at = Math.max(0, from); at <= Math.min(width - 1, x + far); at++) out[y * width + at] = 1;
      }
      run = x;
    }
  }
  return { width, height, bytes: out };
}

/** Share of the covered height, from below, whose width the bottom gets. */
const FOOT = 0.12;
/** A figure that is further from the ground than this share of its height is in the air. */
const AIR = 0.25;

export interface Flattened extends PlacedMask {
  /** Down from the mask's top edge; null where nothing is covered. */
  readonly bottom: number | null;
}

/**
 * With a straight bottom as wide as its feet: on the ground, which is at 0, or where its lowest pixel is while it is in the air. What lies
 * below is cut off. Cost: O(pixels).
 */
export function flattenedMask({ mask, at }: PlacedMask): Flattened {
  const { width, bytes } = mask;
  const rowOf = (place: number) => Math.floor(place / width);
  const first = bytes.indexOf(1);
  if (first < 0) return { mask, at, bottom: null };
  const [top, lowest] = [rowOf(first), rowOf(bytes.lastIndexOf(1)) + 1];
  const tall = lowest - top;
  const bottom = Math.abs(lowest - at.y) > tall * AIR || at.y <= top ? lowest : at.y;
  const foot = Math.max(top, lowest - Math.max(1, Math.round(tall * FOOT)));
  let [left, right] = [width, 0];
  for (let y = foot; y < lowest; y++)
    for (let x = 0; x < width; x++) if (bytes[y * width + x] === 1) [left, right] = [Math.min(left, x), Math.max(right, x + 1)];
  const height = Math.max(mask.height, bottom);
  const out = new Uint8Array(width * height);
  out.set(bytes.subarray(0, Math.min(bytes.length, bottom * width)));
  for (let y = Math.min(foot, bottom - 1); y < bottom; y++) out.fill(1, y * width + left, y * width + right);
  return { mask: { width, height, bytes: out }, at, bottom };
}
