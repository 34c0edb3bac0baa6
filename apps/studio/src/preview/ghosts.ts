/** The steps around the one on the stage, drawn faintly: in one colour, or as outlines. */

import type { Micros } from "@caravan/core/model";
import type { Timeline } from "@caravan/core/playback";
import { type Drawable, drawStill } from "./draw-frame";
import type { PlayedFrame } from "./playing";

export type GhostLook = "tint" | "outline";

export const MOST_GHOSTS = 4;

/** A step that stands as a ghost, so many steps before (negative) or after the one shown. */
export interface Ghost {
  readonly step: number;
  readonly apart: number;
}

/** Steps around the one shown at `elapsed`, in the order in which they are played, furthest first. None is the step itself. */
export function ghostsAround(timeline: Timeline, elapsed: Micros, before: number, after: number): Ghost[] {
  const now = Math.min(elapsed, Number.isFinite(timeline.end) ? timeline.end - 1 : elapsed);
  const shown = timeline.spanAt(now);
  const ghosts: Ghost[] = [];
  let at = shown.at;
  for (let k = 1; k <= before && at > 0; k++) {
    const span = timeline.spanAt(at - 1);
    ghosts.push({ step: span.step, apart: -k });
    at = span.at;
  }
  let until = shown.until;
  for (let k = 1; k <= after && until < timeline.end; k++) {
    const span = timeline.spanAt(until);
    ghosts.push({ step: span.step, apart: k });
    until = span.until;
  }
  return ghosts.filter(({ step }) => step !== shown.step).sort((a, b) => Math.abs(b.apart) - Math.abs(a.apart));
}

/** How strongly a ghost is drawn: the nearest plainest. */
export function ghostAlpha({ apart }: Ghost): number {
  return 0.55 / Math.abs(apart);
}

const drawn = new WeakMap<PlayedFrame, Map<string, HTMLCanvasElement>>();

/** A frame as a ghost, made once: untrimmed, with one pixel around it for the outline. */
export function ghostPicture(frame: PlayedFrame, picture: Drawable, colour: string, look: GhostLook): HTMLCanvasElement {
  const known = drawn.get(frame) ?? new Map<string, HTMLCanvasElement>();
  drawn.set(frame, known);
  const key = `${look} ${colour}`;
  const found = known.get(key);
  if (found) return found;
  const canvas = document.createElement("canvas");
  canvas.width = frame.size.w + 2;
  canvas.height = frame.size.h + 2;
  const context = canvas.getContext("2d") as CanvasRenderingContext2D;
  context.imageSmoothingEnabled = false;
  const shifts =
    look === "outline"
      ? [
          [0, 1],
          [2, 1],
          [1, 0],
          [1, 2],
        ]
      : [[1, 1]];
  for (const [x, y] of shifts) drawStill(context, picture, frame, x as number, y as number, 1);
  context.globalCompositeOperation = "source-in";
  context.fillStyle = colour;
  context.fillRect(0, 0, canvas.width, canvas.height);
  if (look === "outline") {
    context.globalCompositeOperation = "destination-out";
    drawStill(context, picture, frame, 1, 1, 1);
  }
  known.set(key, canvas);
  return canvas;
}
