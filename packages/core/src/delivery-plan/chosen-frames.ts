import { type Delivery, type FrameRef, frameRef, keptFrames, type PlacedFrame, type Project } from "../model";
import { chosenOf } from "./choice";
import { framesNamed } from "./frame-names";

export interface ChosenFrames {
  /** The project with only the clips and actions that are chosen. */
  readonly project: Project;
  readonly frames: readonly PlacedFrame[];
  /** What each is called in the game, in the same order. */
  readonly names: readonly string[];
  readonly nameOf: ReadonlyMap<FrameRef, string>;
}

/** The delivery's frames, with their delivered names. Throws `nothing-picked` if its choice matches nothing. */
export function chosenFrames(whole: Project, delivery: Delivery): ChosenFrames {
  const { frameNames, counting } = delivery;
  const { project, frames: only } = chosenOf(whole, delivery);
  const frames = keptFrames(project).filter(({ source, frame }) => only?.has(frameRef(source, frame)) ?? true);
  const names = framesNamed(project, frames, frameNames, counting.from);
  const nameOf = new Map(frames.map(({ source, frame }, k) => [frameRef(source, frame), names[k] as string]));
  return { project, frames, names, nameOf };
}
