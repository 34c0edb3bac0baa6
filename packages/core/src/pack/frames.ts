/**
 * Packs frames into pages: trims each frame to what is drawn on any of its layers, shares places among frames that look the same on all of
 * them, packs the rest, and draws the pages of each layer with extruded edges.
 *
 * Holds: what `frameFromPage` extracts from a layer's page equals the original.
 */
import { CaravanError, type Packing, type Rect, type Size, type Spacing } from "../model";
import {
  clearPixels,
  coverageOf,
  crop,
  drawnPart,
  extrude,
  firstAlike,
  mirrored,
  type Part,
  type Pixels,
  paste,
  turnClockwise,
  turnCounterClockwise,
} from "../raster";
import { t } from "../words";
import type { OnProgress } from "./pages";
import { packPagesOnce } from "./remembered";

/** A frame to pack: a rectangle of a picture under the name that errors call it by. */
export interface FrameToPack extends Part {
  readonly name: string;
  /** The frame's parts on each further layer, equally large; null if empty. The same number for each frame. */
  readonly layers?: readonly (Part | null)[];
}

/** Where a frame ended up. */
export interface PackedFrame {
  readonly page: number;
  /** On the page, as stored: a turned frame's width and height are exchanged. */
  readonly rect: Rect;
  readonly turned: boolean;
  /** Stored as its mirror picture, since it shares the place of one that is: the game draws it mirrored. */
  readonly mirrored: boolean;
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
  /** Groups that no single page can hold. */
  readonly split: readonly number[];
}

/**
 * Packs the frames. Frames with the same number in `groups` share a page if pages are large enough. Throws `frame-too-large`, naming the
 * first frame that fits no page, and `too-many-pages`.
 */
export function packFrames(
  frames: readonly FrameToPack[],
  packing: Packing,
  groups: readonly number[] | null = null,
  onProgress?: OnProgress,
): PackedFrames {
  const trimmed = packing.trim ? trimAll(frames, packing.trimMarginPx) : frames.map((frame) => frame.rect);
  const depth = Math.max(0, ...frames.map(({ layers = [] }) => layers.length));
  const layered = Array.from({ length: depth + 1 }, (_, layer) => frames.map((frame, k) => partOn(frame, trimmed[k] as Rect, layer)));
  const alike = likes(layered, packing);
  const distinct = alike.flatMap(({ first }, k) => (first === k ? [k] : []));
  const edge = 2 * packing.extrudePx;
  const items = distinct.map((k) => ({ w: (trimmed[k] as Rect).w + edge, h: (trimmed[k] as Rect).h + edge }));
  const grouped = groups && groupsOfPlaces(groups, alike, distinct);
  const packed = packPagesOnce(items, packing, grouped, onProgress);
  if (packed.kind === "too-large") throw tooLarge(frames[distinct[packed.items[0] as number] as number] as FrameToPack, packing);
  if (packed.pages.length > packing.maxPages) throw tooMany(packed.pages.length, packing);
  const placeOf = new Map(distinct.map((k, index) => [k, packed.places[index]]));
  const used = packed.pages.map(() => 0);
  const placed = frames.map((frame, k): PackedFrame => {
    const { first, mirrored } = alike[k] as Like;
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
      mirrored,
      inset: { x: rect.x - frame.rect.x, y: rect.y - frame.rect.y },
      size: { w: frame.rect.w, h: frame.rect.h },
      sameAs: first,
    };
  });
  const pages = packed.pages.map((size, page) => ({ size, occupancy: (used[page] as number) / (size.w * size.h) }));
  return { pages, frames: placed, split: packed.split };
}

interface Like {
  /** The first frame whose place it can share, itself if there is none before it. */
  readonly first: number;
  readonly mirrored: boolean;
}

/** The part of a frame within `trimmed`, which is in the pixels of the lowest layer, on a layer; the lowest is 0. */
function partOn({ pixels, rect, layers = [] }: FrameToPack, trimmed: Rect, layer: number): Part {
  const on = layer === 0 ? { pixels, rect } : layers[layer - 1];
  if (!on) return { pixels: clearPixels(trimmed.w, trimmed.h), rect: { x: 0, y: 0, w: trimmed.w, h: trimmed.h } };
  const { x, y } = on.rect;
  return { pixels: on.pixels, rect: { x: x + trimmed.x - rect.x, y: y + trimmed.y - rect.y, w: trimmed.w, h: trimmed.h } };
}

/** For each index the first one with equal entries in all lists. */
function firstOfAll(lists: readonly (readonly number[])[]): number[] {
  const [only, ...others] = lists as [readonly number[]];
  if (others.length === 0) return [...only];
  const seen = new Map<string, number>();
  return only.map((_, k) => {
    const key = lists.map((list) => list[k]).join();
    const first = seen.get(key) ?? k;
    seen.set(key, first);
    return first;
  });
}

/** Which frames share a place with which. Parts by layers. */
function likes(layered: readonly (readonly Part[])[], { share, shareMirrored }: Packing): Like[] {
  const parts = layered[0] as readonly Part[];
  if (!share) return parts.map((_, k) => ({ first: k, mirrored: false }));
  if (!shareMirrored) return firstOfAll(layered.map(firstAlike)).map((first) => ({ first, mirrored: false }));
  const first = firstOfAll(layered.map((each) => firstAlike([...each, ...each.map(mirrorOf)])));
  const found: Like[] = [];
  for (const k of parts.keys()) {
    const own = first[k] as number;
    // A mirror image counts as known only if an earlier frame shows it: others of its kind come later in the list.
    const other = first[parts.length + k] as number;
    if (own < k) found.push(found[own] as Like);
    else if (other < k) found.push({ first: (found[other] as Like).first, mirrored: !(found[other] as Like).mirrored });
    else found.push({ first: k, mirrored: false });
  }
  return found;
}

function mirrorOf({ pixels, rect }: Part): Part {
  return { pixels: mirrored(crop(pixels, rect)), rect: { x: 0, y: 0, w: rect.w, h: rect.h } };
}

/** Places that frames of several groups share bring these groups together. Groups by number, -1 for none, one for each place. */
function groupsOfPlaces(groups: readonly number[], alike: readonly Like[], distinct: readonly number[]): number[] {
  const leader = new Map<number, number>();
  const lead = (group: number): number => {
    const over = leader.get(group) ?? group;
    return over === group ? group : lead(over);
  };
  const groupOf = new Map<number, number>();
  for (const [k, { first }] of alike.entries()) {
    const own = groups[k] as number;
    if (own < 0) continue;
    const other = groupOf.get(first);
    if (other === undefined) groupOf.set(first, own);
    else if (lead(other) !== lead(own)) leader.set(Math.max(lead(other), lead(own)), Math.min(lead(other), lead(own)));
  }
  return distinct.map((k) => {
    const group = groupOf.get(k);
    return group === undefined ? -1 : lead(group);
  });
}

/** Draws one page of a layer, 0 being the lowest: every distinct frame of it in its place, its edge repeated outward. */
export function drawPage(page: number, packed: PackedFrames, frames: readonly FrameToPack[], extrudePx: number, layer = 0): Pixels {
  const { size } = packed.pages[page] as PackedPage;
  const out = clearPixels(size.w, size.h);
  packed.frames.forEach((place, k) => {
    if (place.page !== page || place.sameAs !== k) return;
    const frame = frames[k] as FrameToPack;
    if (layer > 0 && !frame.layers?.[layer - 1]) return;
    const { rect } = frame;
    const upright: Size = place.turned ? { w: place.rect.h, h: place.rect.w } : place.rect;
    const trimmed: Rect = { x: rect.x + place.inset.x, y: rect.y + place.inset.y, w: upright.w, h: upright.h };
    const { pixels, rect: part } = partOn(frame, trimmed, layer);
    if (place.turned) {
      const turned = turnClockwise(crop(pixels, part));
      paste(out, turned, { x: 0, y: 0, w: turned.width, h: turned.height }, place.rect.x, place.rect.y);
    } else paste(out, pixels, part, place.rect.x, place.rect.y);
    extrude(out, place.rect, extrudePx);
  });
  return out;
}

/** What a reader of the atlas must know of a frame. */
export type StoredFrame = Pick<PackedFrame, "rect" | "turned" | "inset" | "size"> & { readonly mirrored?: boolean | undefined };

/** The whole, untrimmed frame as a reader of the atlas rebuilds it from a page. */
export function frameFromPage(page: Pixels, place: StoredFrame): Pixels {
  const stored = crop(page, place.rect);
  const turnedBack = place.turned ? turnCounterClockwise(stored) : stored;
  const upright = place.mirrored ? mirrored(turnedBack) : turnedBack;
  const out = clearPixels(place.size.w, place.size.h);
  paste(out, upright, { x: 0, y: 0, w: upright.width, h: upright.height }, place.inset.x, place.inset.y);
  return out;
}

/** The drawn part of each frame and a margin about it, as far as the frame reaches; of a wholly clear one its first pixel. */
function trimAll(frames: readonly FrameToPack[], margin: number): Rect[] {
  const coverages = new Map<Pixels, ReturnType<typeof coverageOf>>();
  const drawnIn = ({ pixels, rect }: Part): Rect | null => {
    let coverage = coverages.get(pixels);
    if (!coverage) {
      coverage = coverageOf(pixels);
      coverages.set(pixels, coverage);
    }
    return drawnPart(coverage, rect);
  };
  return frames.map((frame) => {
    const { rect, layers = [] } = frame;
    const over = layers.flatMap((layer) => {
      const drawn = layer && drawnIn(layer);
      return drawn ? [{ ...drawn, x: drawn.x - layer.rect.x + rect.x, y: drawn.y - layer.rect.y + rect.y }] : [];
    });
    const drawn = [drawnIn(frame) ?? [], over].flat().reduce<Rect | null>((all, each) => (all ? around(all, each) : each), null);
    return drawn ? grown(drawn, margin, rect) : { x: rect.x, y: rect.y, w: 1, h: 1 };
  });
}

function around(a: Rect, b: Rect): Rect {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return { x, y, w: Math.max(a.x + a.w, b.x + b.w) - x, h: Math.max(a.y + a.h, b.y + b.h) - y };
}

function grown({ x, y, w, h }: Rect, by: number, within: Rect): Rect {
  const left = Math.max(within.x, x - by);
  const top = Math.max(within.y, y - by);
  return {
    x: left,
    y: top,
    w: Math.min(within.x + within.w, x + w + by) - left,
    h: Math.min(within.y + within.h, y + h + by) - top,
  };
}

function tooLarge({ name, rect }: FrameToPack, packing: Packing): CaravanError {
  const { extrudePx, borderPx, sides, fixed, maxPx } = packing;
  const edges = [
    ...(extrudePx > 0 ? [t("{extrudePx} px of extruded edge around it", { extrudePx })] : []),
    ...(borderPx > 0 ? [t("{borderPx} px of page border", { borderPx })] : []),
  ];
  const page =
    sides === "fixed"
      ? t("no page of {w} × {h} px can hold it", { w: fixed.w, h: fixed.h })
      : t("no page of at most {maxPx} px a side can hold it", { maxPx });
  return new CaravanError(
    "frame-too-large",
    t('frame "{name}"', { name }),
    edges.length > 0
      ? t("It is {w} × {h} px and {edges}; {page}.", { w: rect.w, h: rect.h, edges: edges.join(` ${t("and")} `), page })
      : t("It is {w} × {h} px; {page}.", { w: rect.w, h: rect.h, page }),
    t("Allow larger pages, or cut it smaller."),
  );
}

function tooMany(pages: number, { maxPages }: Packing): CaravanError {
  return new CaravanError(
    "too-many-pages",
    t("pages"),
    t("The frames need {pages} pages; {maxPages} are allowed.", { pages, maxPages }),
    t("Allow more or larger pages, or deliver fewer clips."),
  );
}
