/** Sets the origin of frames, shared by buttons and keys. Results are computed in the core. */

import type { Drawn } from "@caravan/core/art";
import { forgetOrigins, nudgeOrigins, placeOrigins } from "@caravan/core/edit";
import {
  commonOrigin,
  type DrawnWay,
  drawnOrigin,
  type OriginPlace,
  originAtPlace,
  pointAtShare,
  type SteadyAxes,
} from "@caravan/core/marks";
import { type FramePoint, type FrameRef, frameRef, frameSize, originOf, type PlacedFrame } from "@caravan/core/model";
import { begin } from "../../project/begun";
import { drawnFrames } from "../../project/drawn-frames";
import { edit, editInGesture } from "../../project/open-project";
import { say, sayTrouble, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { type FramesInScope, refsOf } from "./scope";

/** Each frame's own box determines the place. */
export function setToPlace(scope: FramesInScope, place: OriginPlace): void {
  place9(scope, ({ source, frame }) => originAtPlace(frameSize(source, frame), place));
}

/** One point for all, in pixels of each frame; a coordinate that is not given stays each frame's own. */
export function setToPoint(scope: FramesInScope, point: Partial<FramePoint>): string | undefined {
  return editInGesture(
    `origin ${scope.name}`,
    placeOrigins,
    scope.name,
    originsOf(scope, ({ source, frame }) => ({ ...originOf(source, frame), ...point })),
  )?.message;
}

/** One share of each frame's size; a coordinate that is not given stays each frame's own. */
export function setToShare(scope: FramesInScope, share: Partial<FramePoint>): string | undefined {
  return editInGesture(
    `origin ${scope.name}`,
    placeOrigins,
    scope.name,
    originsOf(scope, ({ source, frame }) => {
      const own = originOf(source, frame);
      const wanted = pointAtShare({ x: share.x ?? 0, y: share.y ?? 0 }, frameSize(source, frame));
      return { x: share.x === undefined ? own.x : wanted.x, y: share.y === undefined ? own.y : wanted.y };
    }),
  )?.message;
}

export function nudge(scope: FramesInScope, by: FramePoint, gesture = `nudge origin ${scope.name}`): void {
  sayUnlessDone(editInGesture(gesture, nudgeOrigins, scope.name, refsOf(scope), by));
}

export function forget(scope: FramesInScope): void {
  sayUnlessDone(edit(forgetOrigins, scope.name, refsOf(scope)));
}

/**
 * From the drawing: each frame by its own or, with `together`, one point for all, so that a stride does not sway with its feet. Empty
 * frames keep theirs, and so do coordinates not among the `axes`.
 */
export async function setFromDrawn(scope: FramesInScope, way: DrawnWay, together: boolean, axes: SteadyAxes): Promise<void> {
  const work = begin();
  try {
    const found = new Map<FrameRef, FramePoint>();
    const drawn = await drawnFrames(scope.frames);
    work.stillShows(scope.frames);
    for (const [k, { source, frame }] of scope.frames.entries()) {
      const point = drawnOrigin(drawn[k] as Drawn, way);
      if (point) found.set(frameRef(source, frame), point);
    }
    const common = together ? commonOrigin([...found.values()]) : null;
    if (found.size === 0) say({ tone: "plain", text: t("These frames are empty, so their origins stay where they were.") });
    const origins = new Map<FrameRef, FramePoint>();
    for (const { source, frame } of scope.frames) {
      const ref = frameRef(source, frame);
      const [own, wanted] = [originOf(source, frame), found.get(ref) && (common ?? found.get(ref))];
      if (wanted) origins.set(ref, { x: axes === "y" ? own.x : wanted.x, y: axes === "x" ? own.y : wanted.y });
    }
    sayUnlessDone(work.edit(placeOrigins, scope.name, origins));
  } catch (error) {
    sayTrouble(error);
  }
}

function place9(scope: FramesInScope, pointOf: (placed: PlacedFrame) => FramePoint): void {
  sayUnlessDone(edit(placeOrigins, scope.name, originsOf(scope, pointOf)));
}

function originsOf({ frames }: FramesInScope, pointOf: (placed: PlacedFrame) => FramePoint): Map<FrameRef, FramePoint> {
  return new Map(frames.map((each) => [frameRef(each.source, each.frame), pointOf(each)]));
}
