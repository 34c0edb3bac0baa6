/**
 * Computes where a clip's frames stand on the player's stage. Each frame is placed so that its origin stays on one point of the screen,
 * as it will in the game. Pure, and tested.
 */

import type { FramePoint, Rect } from "@caravan/core/model";
import { placeTurned } from "@caravan/core/parts";
import { largestFitting, nextZoom, zoomsBetween } from "../ui/zooms";
import type { PlayedFrame, Playing } from "./playing";

/** How far frames reach from their origin, in frame pixels. */
export interface Reach {
  readonly left: number;
  readonly right: number;
  readonly up: number;
  readonly down: number;
}

/** What stays at one point of the screen: the origin, as in the game, or the frame's box, as in a strip of film. */
export type HeldStill = "origin" | "frame";

/** The frame's point that lies on the stage's standing point. A frame held still stands on the middle of its bottom edge. */
export function anchorOf({ size, origin }: Pick<PlayedFrame, "size" | "origin">, held: HeldStill): FramePoint {
  return held === "origin" ? origin : { x: size.w / 2, y: size.h };
}

/** Frames, some of them mirrored. */
export interface Cast {
  readonly frames: readonly (PlayedFrame | null)[];
  readonly mirror: boolean;
}

/** Everything that may appear on the stage while this plays. */
export function castOf(playing: Playing | null): Cast[] {
  const poses = playing?.turning?.poses ?? (playing ? [playing] : []);
  return poses.map(({ steps, mirror = false }) => ({ frames: steps.map(({ frame }) => frame), mirror }));
}

/** A reach with room for what hangs: by the furthest place of it at any step's beginning. */
export function reachWithParts(reach: Reach, playing: Playing | null): Reach {
  const poses = playing?.turning?.poses ?? (playing ? [playing] : []);
  let { left, right, up, down } = reach;
  for (const { hanging, steps, mirror = false, facing = "s" } of poses) {
    if (!hanging) continue;
    let time = 0;
    for (const [k, { duration }] of steps.entries()) {
      for (const { frame, mirror: isMirrored, x, y, angle } of hanging.at(k, time, { mirror, facing })) {
        const { size, origin } = placeTurned(frame, isMirrored, angle);
        left = Math.max(left, origin.x - x);
        right = Math.max(right, x + size.w - origin.x);
        up = Math.max(up, origin.y - y);
        down = Math.max(down, y + size.h - origin.y);
      }
      time += duration;
    }
  }
  return { left, right, up, down };
}

/** The reach of all frames together; of none, a small square. */
export function reachOf(casts: readonly Cast[], held: HeldStill): Reach {
  const reach = { left: 0, right: 0, up: 0, down: 0 };
  for (const { frames, mirror } of casts)
    for (const frame of frames) {
      if (!frame) continue;
      const { size } = frame;
      const at = anchorOf(frame, held);
      const before = mirror ? size.w - at.x : at.x;
      reach.left = Math.max(reach.left, before);
      reach.right = Math.max(reach.right, size.w - before);
      reach.up = Math.max(reach.up, at.y);
      reach.down = Math.max(reach.down, size.h - at.y);
    }
  return reach.left + reach.right > 0 ? reach : { left: 8, right: 8, up: 16, down: 0 };
}

const ZOOMS = zoomsBetween(0.25, 16);

/** The largest zoom at which the whole reach fits. */
export function fittingZoom(reach: Reach, width: number, height: number): number {
  return largestFitting(ZOOMS, (zoom) => (reach.left + reach.right) * zoom <= width && (reach.up + reach.down) * zoom <= height);
}

/** The next zoom in a direction, or the same at the end. */
export function neighbourZoom(zoom: number, direction: 1 | -1): number {
  return nextZoom(ZOOMS, zoom, direction);
}

export interface StageScene {
  /** Device pixels per frame pixel: whole, unless the zoom is below 1. */
  readonly scale: number;
  /** The point, in device pixels, of every origin. */
  readonly standing: FramePoint;
}

/** Sizes in CSS pixels; `density` is device pixels per CSS pixel. The reach is centred on the stage. */
export function stageScene(reach: Reach, zoom: number, width: number, height: number, density: number): StageScene {
  const scale = zoom >= 1 ? Math.max(1, Math.round(zoom * density)) : zoom * density;
  const x = (width * density - (reach.right - reach.left) * scale) / 2;
  const y = (height * density - (reach.down - reach.up) * scale) / 2;
  return { scale, standing: { x: Math.round(x), y: Math.round(y) } };
}

/**
 * The position of a frame on the stage, in device pixels. A half-pixel origin shifts by a rounded half, always the same way; a mirrored
 * frame lies equally far on the other side of the standing point.
 */
export function frameOnStage(
  frame: Pick<PlayedFrame, "size" | "origin">,
  { scale, standing }: StageScene,
  { held = "origin", mirror = false }: { readonly held?: HeldStill; readonly mirror?: boolean } = {},
): Rect {
  const { size } = frame;
  const at = anchorOf(frame, held);
  const before = mirror ? size.w - at.x : at.x;
  return {
    x: standing.x - Math.round(before * scale),
    y: standing.y - Math.round(at.y * scale),
    w: size.w * scale,
    h: size.h * scale,
  };
}
