/**
 * Matches changed art to earlier frames by their drawings: a row inserted at the top moves every cell, and frames follow their drawings.
 *
 * A frame whose drawing has not moved stays. Others are paired by equal drawings; if several are equal, the offset that most frames moved
 * by decides. Redrawn frames move with those around them (see `redrawn.ts`). Holds: no frame is given to two pieces. Cost: O(frames +
 * pieces), and what `waysOfRedrawn` costs.
 */
import { traitsOf } from "../cut";
import type { Frame, FramePoint, Rect, Source } from "../model";
import type { Drawing } from "../raster";
import { type NewFrame, placeOf } from "./new-frame";
import { type Guess, waysOfRedrawn } from "./redrawn";

/** Prints of drawings in earlier frames, by key, and in pieces of the changed art, by `placeOf`. */
export interface Drawings {
  readonly before: ReadonlyMap<string, Drawing>;
  readonly after: ReadonlyMap<string, Drawing>;
  /** Other places of drawings in the changed art, for frames without a recipe: by key, rectangles on the frame's picture. */
  readonly elsewhere?: ReadonlyMap<string, readonly Rect[]>;
}

/**
 * Frames whose drawing has moved, in a source with given rectangles: drawn by hand, or read from metadata. No recipe finds them, so the
 * whole changed picture is searched for their drawings (`findDrawings`).
 */
export function strayedFrames({ cut, frames }: Source, { before, after }: Drawings): Frame[] {
  if (cut === null || traitsOf(cut).finds) return [];
  return frames.filter((frame) => {
    const drawing = before.get(frame.key);
    return drawing !== undefined && after.get(placeOf(frame))?.print !== drawing.print;
  });
}

/** What is known about drawings, with the places found for `strayed` frames, in their order. */
export function withFoundPlaces({ before, after }: Drawings, strayed: readonly Frame[], places: readonly (readonly Rect[])[]): Drawings {
  const known = new Map(after);
  const elsewhere = new Map<string, readonly Rect[]>();
  for (const [k, frame] of strayed.entries()) {
    const drawing = before.get(frame.key);
    const found = places[k] ?? [];
    if (!drawing || found.length === 0) continue;
    elsewhere.set(frame.key, found);
    for (const rect of found)
      known.set(placeOf({ rect, picture: frame.picture }), {
        print: drawing.print,
        x: drawing.x + rect.x - frame.rect.x,
        y: drawing.y + rect.y - frame.rect.y,
      });
  }
  return { before, after: known, elsewhere };
}

export interface Followed {
  /** The frame of before that piece number k shows. */
  readonly frames: ReadonlyMap<number, Frame>;
  /** How far its drawing moved on its picture, by the frame's key; presumably, if it was redrawn; absent if nothing is known. */
  readonly drawn: ReadonlyMap<string, FramePoint>;
  /** Redrawn frames that no piece shows, and where they presumably went. */
  readonly unplaced: readonly Guess[];
}

export function followDrawings(before: readonly Frame[], pieces: readonly NewFrame[], { before: olds, after: news }: Drawings): Followed {
  const frames = new Map<number, Frame>();
  const drawn = new Map<string, FramePoint>();
  const taken = new Set<Frame>();
  const drawingOf = (k: number) => news.get(placeOf(pieces[k] as NewFrame));
  const give = (k: number, frame: Frame) => {
    const [from, to] = [olds.get(frame.key), drawingOf(k)];
    frames.set(k, frame);
    taken.add(frame);
    if (from && to && from.print === to.print) drawn.set(frame.key, { x: to.x - from.x, y: to.y - from.y });
  };
  const byPlace = new Map(before.map((frame) => [placeOf(frame), frame]));
  for (const k of pieces.keys()) {
    const there = byPlace.get(placeOf(pieces[k] as NewFrame));
    const print = drawingOf(k)?.print;
    if (there && print !== undefined && olds.get(there.key)?.print === print && !taken.has(there)) give(k, there);
  }
  const left = new Map<string, { frames: Frame[]; pieces: number[] }>();
  const groupOf = (print: string) => {
    const group = left.get(print) ?? { frames: [], pieces: [] };
    left.set(print, group);
    return group;
  };
  for (const frame of before) {
    const print = olds.get(frame.key)?.print;
    if (print !== undefined && !taken.has(frame)) groupOf(print).frames.push(frame);
  }
  for (const k of pieces.keys()) {
    const print = drawingOf(k)?.print;
    if (print !== undefined && !frames.has(k)) groupOf(print).pieces.push(k);
  }
  const way = commonWay(
    [...left.values()].flatMap(({ frames: f, pieces: p }) =>
      f.length === 1 && p.length === 1 ? [[f[0] as Frame, pieces[p[0] as number] as NewFrame] as const] : [],
    ),
  );
  for (const group of left.values()) {
    const free = new Set(group.pieces);
    const later: Frame[] = [];
    for (const frame of group.frames) {
      const k = group.pieces.find((each) => free.has(each) && way !== null && wayOf(frame, pieces[each] as NewFrame) === way);
      if (k === undefined) later.push(frame);
      else {
        give(k, frame);
        free.delete(k);
      }
    }
    for (const k of free) {
      const frame = later.shift();
      if (frame) give(k, frame);
    }
  }
  const found = [...frames].flatMap(([k, frame]) => {
    const went = drawn.get(frame.key);
    return went ? [{ frame, way: wayOf(frame, pieces[k] as NewFrame), went }] : [];
  });
  const redrawn = waysOfRedrawn(
    before.filter((frame) => olds.has(frame.key) && !taken.has(frame)),
    found,
  );
  const numbers = new Map(pieces.map((piece, k) => [placeOf(piece), k]));
  for (const { frame, way: where, went } of redrawn) {
    const k = numbers.get(placeOf(movedBy(frame, where)));
    if (k === undefined || frames.has(k)) continue;
    give(k, frame);
    drawn.set(frame.key, went);
  }
  return { frames, drawn, unplaced: redrawn.filter(({ frame }) => !taken.has(frame)) };
}

/** From a frame to a piece: by how many pictures, and pixels right and down. */
export function wayOf(frame: Frame, piece: NewFrame): string {
  return `${(piece.picture ?? 0) - (frame.picture ?? 0)} ${piece.rect.x - frame.rect.x} ${piece.rect.y - frame.rect.y}`;
}

/** Where the frame is if it went that way. */
export function movedBy({ rect, picture = 0 }: Frame, way: string): { readonly rect: Rect; readonly picture: number } {
  const [pictures = 0, x = 0, y = 0] = way.split(" ").map(Number);
  return { rect: { ...rect, x: rect.x + x, y: rect.y + y }, picture: picture + pictures };
}

/** The way that most pairs went; null if there are none. */
export function commonWay(pairs: readonly (readonly [Frame, NewFrame])[]): string | null {
  const counts = new Map<string, number>();
  for (const [frame, piece] of pairs) {
    const way = wayOf(frame, piece);
    counts.set(way, (counts.get(way) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
