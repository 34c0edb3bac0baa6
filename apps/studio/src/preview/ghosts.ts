/** Draws the neighbouring steps faintly, in one colour or as outlines. */

import { isFigure, type Micros } from "@caravan/core/model";
import type { Timeline } from "@caravan/core/playback";
import { pictureNow } from "../project/pictures";
import { type Drawable, drawStill, shownLayers } from "./draw-frame";
import type { PlayedFrame } from "./playing";

export type GhostLook = "tint" | "outline";

export const MOST_GHOSTS = 4;

/** A step shown as a ghost, by its distance before (negative) or after the current one. */
export interface Ghost {
  readonly step: number;
  readonly apart: number;
  /** When its step begins. */
  readonly at: Micros;
}

/** Steps around the one shown at `elapsed`, in the order in which they are played, furthest first. None is the step itself. */
export function ghostsAround(timeline: Timeline, elapsed: Micros, before: number, after: number): Ghost[] {
  const now = Math.min(elapsed, Number.isFinite(timeline.end) ? timeline.end - 1 : elapsed);
  const shown = timeline.spanAt(now);
  const ghosts: Ghost[] = [];
  let at = shown.at;
  for (let k = 1; k <= before && at > 0; k++) {
    const span = timeline.spanAt(at - 1);
    ghosts.push({ step: span.step, apart: -k, at: span.at });
    at = span.at;
  }
  let until = shown.until;
  for (let k = 1; k <= after && until < timeline.end; k++) {
    const span = timeline.spanAt(until);
    ghosts.push({ step: span.step, apart: k, at: span.at });
    until = span.until;
  }
  return ghosts.filter(({ step }) => step !== shown.step).sort((a, b) => Math.abs(b.apart) - Math.abs(a.apart));
}

/** How strongly a ghost is drawn: the nearest plainest. */
export function ghostAlpha({ apart }: Ghost): number {
  return 0.55 / Math.abs(apart);
}

const drawn = new WeakMap<PlayedFrame, Map<string, HTMLCanvasElement>>();

/**
 * A frame as a ghost, made once: untrimmed, with one pixel around it for the outline. Uses the visible figure layers, or all visible ones:
 * a layer viewed alone has its own ghosts. Null until a picture is loaded.
 */
export function ghostPicture(frame: PlayedFrame, colour: string, look: GhostLook): HTMLCanvasElement | null {
  const seen = shownLayers(frame);
  const figure = seen.filter(isFigure);
  const layers = figure.length > 0 ? figure : seen;
  const pictures = layers.map((each) => pictureNow(each.look));
  if (pictures.length === 0 || pictures.some((each) => !each)) return null;
  const draw = (context: CanvasRenderingContext2D, x: number, y: number) => {
    for (const picture of pictures) drawStill(context, picture as Drawable, frame, x, y, 1);
  };
  const known = drawn.get(frame) ?? new Map<string, HTMLCanvasElement>();
  drawn.set(frame, known);
  const key = `${look} ${colour} ${layers.map(({ name }) => name).join()}`;
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
  for (const [x, y] of shifts) draw(context, x as number, y as number);
  context.globalCompositeOperation = "source-in";
  context.fillStyle = colour;
  context.fillRect(0, 0, canvas.width, canvas.height);
  if (look === "outline") {
    context.globalCompositeOperation = "destination-out";
    draw(context, 1, 1);
  }
  known.set(key, canvas);
  return canvas;
}
