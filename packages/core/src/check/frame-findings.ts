/**
 * Findings about the frames of one source: cut through, empty, specks, odd sizes, repeats. They depend on pixels, so they are computed
 * where a source is viewed, and none of them stops a delivery.
 */
import { sizesAreTold, traitsOf } from "../cut";
import { counted, drawnSize, type Frame, type FrameRef, frameRef, type Source } from "../model";
import { type Coverage, findSpecks, isDrawn } from "../raster";
import { t } from "../words";
import type { Repeats } from "./repeats";

export type FrameFindingCode = "cut-through" | "empty-frames" | "specks" | "odd-sizes" | "repeats" | "mirrored-repeats";

export interface FrameFinding {
  readonly code: FrameFindingCode;
  readonly message: string;
  /** The frames it is about, in the order of the tray; of repeats those that could go. */
  readonly frames: readonly FrameRef[];
}

/**
 * All of a source's findings, the gravest first. `coverages` are those of its pictures, as they look with their clearing; one that
 * is not read yet is null. `repeats` are those of its kept frames.
 */
export function frameFindings(source: Source, coverages: readonly (Coverage | null)[], repeats: Repeats): FrameFinding[] {
  const kept = source.frames.filter((frame) => !frame.dropped);
  return [
    ...cutThrough(source, kept, coverages[0] ?? null),
    ...empties(source, kept),
    ...specks(source, kept, coverages),
    ...oddSizes(source, kept),
    ...repeated(repeats),
  ];
}

/** A border that is drawn across along more than this share of its length is that of tiles, which belong together edge to edge. */
const TILE_SHARE = 0.9;
/** Pixels drawn across a border at least: one is as likely a corner that touches. */
const LEAST_CROSSING = 2;

/** Neighbouring cells between which something is drawn across their common border: the sign of a wrong grid. */
function cutThrough(source: Source, kept: readonly Frame[], coverage: Coverage | null): FrameFinding[] {
  const { cut } = source;
  if (!coverage || !traitsOf(cut).cells) return [];
  const byPlace = new Map(kept.map((frame) => [`${frame.rect.x} ${frame.rect.y}`, frame]));
  const touched = new Set<Frame>();
  let borders = 0;
  for (const frame of kept) {
    const { x, y, w, h } = frame.rect;
    const right = byPlace.get(`${x + w} ${y}`);
    const below = byPlace.get(`${x} ${y + h}`);
    if (right && right.rect.h === h && isCut(h, (k) => crosses(coverage, x + w - 1, y + k, 1, 0))) {
      touched.add(frame).add(right);
      borders++;
    }
    if (below && below.rect.w === w && isCut(w, (k) => crosses(coverage, x + k, y + h - 1, 0, 1))) {
      touched.add(frame).add(below);
      borders++;
    }
  }
  if (borders === 0) return [];
  const frames = kept.filter((frame) => touched.has(frame)).map((frame) => frameRef(source, frame));
  const message = t("Something is drawn across {borders} between cells, so {frames} cut through. The grid may be wrong.", {
    borders: counted(borders, "border"),
    frames: counted(frames.length, "frame is", "frames are"),
  });
  return [{ code: "cut-through", message, frames }];
}

function isCut(length: number, crossesAt: (k: number) => boolean): boolean {
  let crossing = 0;
  for (let k = 0; k < length; k++) if (crossesAt(k)) crossing++;
  return crossing >= LEAST_CROSSING && crossing <= length * TILE_SHARE;
}

/** Whether the pixel at (x, y) is drawn and continues across the border, straight or diagonally. */
function crosses(coverage: Coverage, x: number, y: number, dx: number, dy: number): boolean {
  if (!isDrawn(coverage, x, y)) return false;
  return [-1, 0, 1].some((aside) => isDrawn(coverage, x + dx + aside * dy, y + dy + aside * dx));
}

function empties(source: Source, kept: readonly Frame[]): FrameFinding[] {
  const frames = kept.filter(({ empty }) => empty).map((frame) => frameRef(source, frame));
  if (frames.length === 0) return [];
  return [{ code: "empty-frames", message: t("Nothing is drawn in {frames}.", { frames: counted(frames.length, "frame") }), frames }];
}

function specks(source: Source, kept: readonly Frame[], coverages: readonly (Coverage | null)[]): FrameFinding[] {
  let count = 0;
  const frames = new Set<FrameRef>();
  for (const [picture, coverage] of coverages.entries()) {
    if (!coverage) continue;
    const own = kept.filter((frame) => (frame.picture ?? 0) === picture);
    for (const { x, y } of findSpecks(coverage, 1)) {
      const frame = own.find(({ rect }) => x >= rect.x && y >= rect.y && x < rect.x + rect.w && y < rect.y + rect.h);
      if (!frame) continue;
      count++;
      frames.add(frameRef(source, frame));
    }
  }
  if (count === 0) return [];
  const message = t("{pixels} alone in {frames}: sparks, or leftover specks.", {
    pixels: counted(count, "pixel stands", "pixels stand"),
    frames: counted(frames.size, "frame"),
  });
  return [{ code: "specks", message, frames: kept.map((frame) => frameRef(source, frame)).filter((ref) => frames.has(ref)) }];
}

function oddSizes({ cut, ...source }: Source, kept: readonly Frame[]): FrameFinding[] {
  if (kept.length < 2 || cut === null || sizesAreTold(cut)) return [];
  const sizeOf = (frame: Frame) => `${drawnSize(frame).w} × ${drawnSize(frame).h}`;
  const counts = new Map<string, number>();
  for (const frame of kept) counts.set(sizeOf(frame), (counts.get(sizeOf(frame)) ?? 0) + 1);
  if (counts.size === 1) return [];
  const [usual, most] = [...counts].reduce((best, each) => (each[1] > best[1] ? each : best));
  const isUsual = most * 2 > kept.length;
  const odd = isUsual ? kept.filter((frame) => sizeOf(frame) !== usual) : kept;
  const message = isUsual
    ? t("{frames} not {usual} px as the other {most} are.", { frames: counted(odd.length, "frame is", "frames are"), usual, most })
    : t("The frames have {count} different sizes.", { count: counts.size });
  return [{ code: "odd-sizes", message, frames: odd.map((frame) => frameRef(source, frame)) }];
}

function repeated({ same, mirrored }: Repeats): FrameFinding[] {
  const findings: FrameFinding[] = [];
  const later = same.flatMap((group) => group.slice(1));
  if (later.length > 0)
    findings.push({
      code: "repeats",
      message: t("{frames} another exactly.", { frames: counted(later.length, "frame repeats", "frames repeat") }),
      frames: later,
    });
  if (mirrored.length > 0)
    findings.push({
      code: "mirrored-repeats",
      message: t("{frames} the mirror image of another.", { frames: counted(mirrored.length, "frame is", "frames are") }),
      frames: mirrored.map(([, ref]) => ref),
    });
  return findings;
}
