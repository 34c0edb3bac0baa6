/** Sets boxes and points, shared by the pointer, buttons and keys. Results are computed in the core. */

import type { Drawn } from "@caravan/core/art";
import {
  addBox,
  boxesOf,
  changeBox,
  clearMarks,
  copyMarks,
  putPoint,
  removeBox,
  setBoxes,
  setOutlines,
  turnPoint,
} from "@caravan/core/edit";
import { drawnBox } from "@caravan/core/marks";
import { type Box, type FramePoint, type FrameRef, findFrame, frameRef, type MarkName, type Outline } from "@caravan/core/model";
import { act } from "../../project/act";
import { begin } from "../../project/begun";
import { drawnFrames } from "../../project/drawn-frames";
import { currentProject, editInGesture } from "../../project/open-project";
import { say, sayTrouble, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { type FramesInScope, refsOf } from "./scope";

/** What is being marked: a kind, on a frame, for the frames of a scope. */
export interface Spot {
  readonly ref: FrameRef;
  readonly inScope: FramesInScope;
  readonly name: MarkName;
}

export function drawBox({ ref, inScope, name }: Spot, box: Box): boolean {
  return act(addBox, inScope.name, refsOf(inScope), name, ref, box);
}

/** From a key or the pointer: reports errors. */
export function nudgeBox(spot: Spot, index: number, by: Partial<Box>): void {
  sayUnlessDone(alterBox(spot, index, by));
}

/** Returns an error message for a field. */
export function alterBox({ inScope, name }: Spot, index: number, by: Partial<Box>, gesture = `nudge ${name}`): string | undefined {
  return editInGesture(gesture, changeBox, inScope.name, refsOf(inScope), name, index, by)?.message;
}

/** Moves the box of the shown frame to this place, and those of the others by the same amount, as one change within the gesture. */
export function boxTo(spot: Spot, index: number, { x, y, w, h }: Box, gesture: string): void {
  const frame = findFrame(currentProject(), spot.ref)?.frame;
  const now = frame && boxesOf(frame, spot.name)[index];
  if (now) sayUnlessDone(alterBox(spot, index, { x: x - now.x, y: y - now.y, w: w - now.w, h: h - now.h }, gesture));
}

export function dropBox({ inScope, name }: Spot, index: number): void {
  act(removeBox, inScope.name, refsOf(inScope), name, index);
}

/** From a key or the pointer: reports errors. */
export function pointTo(spot: Spot, point: FramePoint, gesture?: string): void {
  sayUnlessDone(placePoint(spot, point, gesture));
}

/** Returns an error message for a field. */
export function placePoint({ ref, inScope, name }: Spot, point: FramePoint, gesture = `nudge ${name}`): string | undefined {
  return editInGesture(gesture, putPoint, inScope.name, refsOf(inScope), name, ref, point)?.message;
}

/** Sets the point's angle in degrees, null for none. Returns an error message for a field. */
export function aimPoint({ ref, inScope, name }: Spot, angle: number | null, gesture = `turn ${name}`): string | undefined {
  return editInGesture(gesture, turnPoint, inScope.name, refsOf(inScope), name, ref, angle)?.message;
}

export function dropMarks({ inScope, name }: Spot): void {
  act(clearMarks, inScope.name, refsOf(inScope), name);
}

/** Sets the frame's outlines, and those of all others in scope at the same place relative to their origins. Reports errors. */
export function giveOutlines({ ref, inScope, name }: Spot, outlines: readonly Outline[], gesture?: string): void {
  if (gesture === undefined) act(setOutlines, inScope.name, refsOf(inScope), name, ref, outlines);
  else sayUnlessDone(placeCorner({ ref, inScope, name }, outlines, gesture));
}

/** Returns an error message for a field. */
export function placeCorner({ ref, inScope, name }: Spot, outlines: readonly Outline[], gesture: string): string | undefined {
  return editInGesture(gesture, setOutlines, inScope.name, refsOf(inScope), name, ref, outlines)?.message;
}

/** They are traced again. */
export function traceAgain({ ref, inScope, name }: Spot): void {
  act(setOutlines, inScope.name, refsOf(inScope), name, ref, null);
}

/** All frames of the scope get what this one has. */
export function giveToAll({ ref, inScope, name }: Spot): void {
  act(copyMarks, inScope.name, refsOf(inScope), name, ref);
}

/** Each frame gets one box around its own drawing; frames in which nothing is drawn stay as they are. */
export async function boxAroundDrawn({ inScope, name }: Spot): Promise<void> {
  const work = begin();
  try {
    const found = new Map<FrameRef, Box[]>();
    const drawn = await drawnFrames(inScope.frames);
    work.stillShows(inScope.frames);
    for (const [k, { source, frame }] of inScope.frames.entries()) {
      const box = drawnBox(drawn[k] as Drawn);
      if (box) found.set(frameRef(source, frame), [box]);
    }
    if (found.size === 0) say({ tone: "plain", text: t("Nothing is drawn in these frames, so there is nothing to put a box around.") });
    else sayUnlessDone(work.edit(setBoxes, inScope.name, name, found)?.message);
  } catch (error) {
    sayTrouble(error);
  }
}
