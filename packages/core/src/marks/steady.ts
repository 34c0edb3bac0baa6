/**
 * Steadies a clip: moves each frame's origin by whole pixels until its drawing overlaps the previous one most. A figure that was cut
 * unevenly then stands still on its body, whatever its legs do.
 *
 * The first frame stays. Among equal overlaps the nearest to the current origin wins, so that a steady clip does not change.
 */
import type { Drawn } from "../art";
import type { FramePoint } from "../model";
import { type Coverage, countDrawn, cropCoverage, overlapOf, turnedCoverage } from "../raster";

/** A frame to steady: its drawing, and its current origin. */
export interface Unsteady {
  readonly drawn: Drawn;
  readonly origin: FramePoint;
}

/** In which directions origins may move. */
export const STEADY_AXES = ["both", "x", "y"] as const;
export type SteadyAxes = (typeof STEADY_AXES)[number];

/** A frame is never moved further: a drawing elsewhere is meant to be there. */
const FURTHEST = 24; // px
const LEAST_REACH = 4; // px

/**
 * The origins that steady the frames of a clip, in the order of its steps. Empty frames keep theirs, and the next one is compared with the
 * last non-empty one. Cost: O(frames × reach² × words of a frame), with a reach of a quarter of its larger side.
 */
export function steadyOrigins(frames: readonly Unsteady[], axes: SteadyAxes = "both"): FramePoint[] {
  let before: { readonly upright: Upright; readonly origin: FramePoint } | null = null;
  return frames.map(({ drawn, origin }) => {
    const upright = uprightOf(drawn);
    if (!upright) return origin;
    const next: FramePoint = before ? moved(before, upright, origin, axes) : origin;
    before = { upright, origin: next };
    return next;
  });
}

/** A frame's drawing, and its position in the frame. */
interface Upright {
  readonly coverage: Coverage;
  readonly left: number;
  readonly top: number;
}

function uprightOf({ coverage, frame }: Drawn): Upright | null {
  const stored = cropCoverage(coverage, frame.rect);
  if (countDrawn(stored, { x: 0, y: 0, w: stored.width, h: stored.height }) === 0) return null;
  const upright = frame.turned ? turnedCoverage(stored, frame.turned === "counter" ? "clockwise" : "counter") : stored;
  return { coverage: upright, left: frame.inset?.x ?? 0, top: frame.inset?.y ?? 0 };
}

function moved(
  before: { readonly upright: Upright; readonly origin: FramePoint },
  { coverage, left, top }: Upright,
  origin: FramePoint,
  axes: SteadyAxes,
): FramePoint {
  const reach = Math.min(FURTHEST, Math.max(LEAST_REACH, Math.ceil(Math.max(coverage.width, coverage.height) / 4)));
  // The position of the previous frame's pixel in this one at their current origins.
  const dx = Math.round(origin.x - before.origin.x) + before.upright.left - left;
  const dy = Math.round(origin.y - before.origin.y) + before.upright.top - top;
  let best = { x: 0, y: 0, overlap: overlapOf(before.upright.coverage, coverage, dx, dy) };
  const [across, down] = [axes === "y" ? 0 : reach, axes === "x" ? 0 : reach];
  for (let y = -down; y <= down; y++)
    for (let x = -across; x <= across; x++) {
      const overlap = overlapOf(before.upright.coverage, coverage, dx + x, dy + y);
      if (overlap > best.overlap || (overlap === best.overlap && x * x + y * y < best.x * best.x + best.y * best.y))
        best = { x, y, overlap };
    }
  return { x: origin.x + best.x, y: origin.y + best.y };
}
