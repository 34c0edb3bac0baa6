/** Lists the parts attached to the playing clip, as the player draws them. Pure. */
import { hostClips, partsOfProject } from "@caravan/core/marks";
import { type Clip, type Facing, type FrameRef, keptRefs, type Micros, type Project } from "@caravan/core/model";
import { placedParts } from "@caravan/core/parts";
import type { PlayedFrame } from "./played-frame";

/** A part on the stage: a frame, and the offset of its origin from its host's, in project pixels. */
export interface HangingPart {
  readonly name: string;
  readonly frame: PlayedFrame;
  readonly mirror: boolean;
  readonly x: number;
  readonly y: number;
  readonly front: boolean;
  /** Rotation after mirroring, in multiples of 90 degrees. */
  readonly angle?: number;
}

/** What hangs on a clip. */
export interface Hanging {
  /** In drawing order. `since` is how long the clip has played, if that differs from its own time. */
  at(
    step: number,
    time: Micros,
    how: { readonly mirror: boolean; readonly facing: Facing; readonly since?: Micros },
  ): readonly HangingPart[];
  /** All frames that may hang on it. */
  readonly frames: readonly PlayedFrame[];
}

/** Undefined if nothing is attached to the clip. `played` gives a frame as drawn. */
export function hangingOn(project: Project, clip: Clip, played: (ref: FrameRef) => PlayedFrame | null): Hanging | undefined {
  const { parts = [] } = project;
  const guests = guestsOf(project, clip);
  if (guests.length === 0) return undefined;
  const world = partsOfProject(project);
  const refs = new Set(guests.flatMap(({ steps }) => steps.map(({ frame }) => frame)));
  const kept = new Set(project.sources.flatMap(keptRefs));
  return {
    frames: [...refs].filter((ref) => kept.has(ref)).flatMap((ref) => played(ref) ?? []),
    at: (step, time, { mirror, facing, since = time }) =>
      parts.length === 0
        ? []
        : placedParts(world, { clip: clip.name, mirror, facing, step, time, since }).flatMap((each): HangingPart[] => {
            const frame = played(each.frame as FrameRef);
            return frame ? [{ ...each, frame }] : [];
          }),
  };
}

/** The clips of guests that may hang on a clip, theirs too. */
function guestsOf(project: Project, clip: Clip): Clip[] {
  const found = new Set<Clip>();
  const next = [clip];
  for (let each = next.pop(); each; each = next.pop()) {
    const { name } = each;
    for (const { host, guest } of project.parts ?? []) {
      if (!hostClips(project, host).some((shown) => shown.name === name)) continue;
      for (const other of hostClips(project, guest)) {
        if (!found.has(other)) next.push(other);
        found.add(other);
      }
    }
  }
  return [...found];
}
