/**
 * Frames -> pages: trims each frame to what is drawn in it, shares places among frames that look the same, packs the rest
 * and draws the pages with their edges extruded.
 *
 * Holds: what `frameFromPage` takes out of a page looks the same as what went in.
 */
import { CaravanError, type Packing, type Rect, type Size, type Spacing } from "../model";
import {
  clearPixels,
  coverageOf,
  crop,
  drawnPart,
  extrude,
  firstAlike,
  type Part,
  type Pixels,
  paste,
  turnClockwise,
  turnCounterClockwise,
} from "../raster";
import { type OnProgress, packPages } from "./pages";

/** A frame to pack: a rectangle of a picture under the name that errors call it by. */
export interface FrameToPack extends Part {
  readonly name: string;
}

/** Where a frame ended up. */
export interface PackedFrame {
  readonly page: number;
  /** On the page, as stored: a turned frame's width and height are exchanged. */
  readonly rect: Rect;
  readonly turned: boolean;
  /** Where the trimmed pixels sit in the untrimmed frame. */
  readonly inset: Spacing;
  readonly size: Size;
  /** Index of the frame whose place it shares; its own if it shares none. */
  readonly sameAs: number;
}

export interface PackedPage {
  readonly size: Size;
  /** Summed area of the distinct trimmed rectangles over the page's, 0 to 1. */
  readonly occupancy: number;
}

export interface PackedFrames {
  readonly pages: readonly PackedPage[];
  readonly frames: readonly PackedFrame[];
}

/** Throws `frame-too-large`, naming the first frame that no page takes. */
export function packFrames(frames: readonly FrameToPack[], packing: Packing, onProgress?: OnProgress): PackedFrames {
  const trimmed = packing.trim ? trimAll(frames) : frames.map((frame) => frame.rect);
  const parts = frames.map((frame, k): Part => ({ pixels: frame.pixels, rect: trimmed[k] as Rect }));
  const sameAs = packing.share ? firstAlike(parts) : frames.map((_, k) => k);
  const distinct = sameAs.flatMap((first, k) => (first === k ? [k] : []));
  const edge = 2 * packing.extrudePx;
  const items = distinct.map((k) => ({ w: (trimmed[k] as Rect).w + edge, h: (trimmed[k] as Rect).h + edge }));
  const packed = packPages(items, packing, onProgress);
  if (packed.kind === "too-large") throw tooLarge(frames[distinct[packed.items[0] as number] as number] as FrameToPack, packing);

  const placeOf = new Map(distinct.map((k, index) => [k, packed.places[index]]));
  const used = packed.pages.map(() => 0);
  const placed = frames.map((frame, k): PackedFrame => {
    const first = sameAs[k] as number;
    const place = placeOf.get(first);
    const rect = trimmed[k] as Rect;
    if (!place) throw new Error(`The packer lost frame ${frame.name}.`);
    if (first === k) used[place.page] = (used[place.page] as number) + rect.w * rect.h;
    return {
      page: place.page,
      rect: {
        x: place.x + packing.extrudePx,
        y: place.y + packing.extrudePx,
        w: place.turned ? rect.h : rect.w,
        h: place.turned ? rect.w : rect.h,
      },
      turned: place.turned,
      inset: { x: rect.x - frame.rect.x, y: rect.y - frame.rect.y },
      size: { w: frame.rect.w, h: frame.rect.h },
      sameAs: first,
    };
  });
  const pages = packed.pages.map((size, page) => ({ size, occupancy: (used[page] as number) / (size.w * size.h) }));
  return { pages, frames: placed };
}

/** Draws one page: every distinct frame of it in its place, its edge repeated outward. */
export function drawPage(page: number, packed: PackedFrames, frames: readonly FrameToPack[], extrudePx: number): Pixels {
  const { size } = packed.pages[page] as PackedPage;
  const out = clearPixels(size.w, size.h);
  packed.frames.forEach((place, k) => {
    if (place.page !== page || place.sameAs !== k) return;
    const { pixels, rect } = frames[k] as FrameToPack;
    const upright: Size = place.turned ? { w: place.rect.h, h: place.rect.w } : place.rect;
    const part: Rect = { x: rect.x + place.inset.x, y: rect.y + place.inset.y, w: upright.w, h: upright.h };
    if (place.turned) {
      const turned = turnClockwise(crop(pixels, part));
      paste(out, turned, { x: 0, y: 0, w: turned.width, h: turned.height }, place.rect.x, place.rect.y);
    } else paste(out, pixels, part, place.rect.x, place.rect.y);
    extrude(out, place.rect, extrudePx);
  });
  return out;
}

/** The whole, untrimmed frame as a reader of the atlas rebuilds it from a page. */
export function frameFromPage(page: Pixels, place: Pick<PackedFrame, "rect" | "turned" | "inset" | "size">): Pixels {
  const stored = crop(page, place.rect);
  const upright = place.turned ? turnCounterClockwise(stored) : stored;
  const out = clearPixels(place.size.w, place.size.h);
  paste(out, upright, { x: 0, y: 0, w: upright.width, h: upright.height }, place.inset.x, place.inset.y);
  return out;
}

/** The drawn part of each frame; of a wholly clear one its first pixel. */
function trimAll(frames: readonly FrameToPack[]): Rect[] {
  const coverages = new Map<Pixels, ReturnType<typeof coverageOf>>();
  return frames.map(({ pixels, rect }) => {
    let coverage = coverages.get(pixels);
    if (!coverage) {
      coverage = coverageOf(pixels);
      coverages.set(pixels, coverage);
    }
    return drawnPart(coverage, rect) ?? { x: rect.x, y: rect.y, w: 1, h: 1 };
  });
}

function tooLarge({ name, rect }: FrameToPack, packing: Packing): CaravanError {
  const edge = packing.extrudePx > 0 ? ` and ${packing.extrudePx} px of repeated edge around it` : "";
  return new CaravanError(
    "frame-too-large",
    `frame "${name}"`,
    `It is ${rect.w} × ${rect.h} px${edge}; no page of at most ${packing.maxPx} px a side takes it.`,
    "Allow larger pages or cut it smaller.",
  );
}
