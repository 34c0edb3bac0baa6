/** What changed art did to a source's frames: the same, changed, new, gone. */
import { type Frame, type FrameRef, frameRef, type Source } from "../model";

export interface FrameChanges {
  readonly same: readonly FrameRef[];
  readonly changed: readonly FrameRef[];
  readonly added: readonly FrameRef[];
  readonly gone: readonly FrameRef[];
}

/** Whether a frame looks the same in both states; asked only for frames that both have, of equal size. */
export type LooksTheSame = (before: Frame, after: Frame) => boolean;

/** Compares two states of one source. Dropped frames count as the others do. Cost: O(frames) and one comparison for each. */
export function framesChanged(before: Source, after: Source, looksTheSame: LooksTheSame): FrameChanges {
  const old = new Map(before.frames.map((frame) => [frame.key, frame]));
  const kept = new Set<string>();
  const changes = { same: [] as FrameRef[], changed: [] as FrameRef[], added: [] as FrameRef[], gone: [] as FrameRef[] };
  for (const frame of after.frames) {
    const known = old.get(frame.key);
    const ref = frameRef(after, frame);
    if (!known) {
      changes.added.push(ref);
      continue;
    }
    kept.add(frame.key);
    (looksTheSame(known, frame) ? changes.same : changes.changed).push(ref);
  }
  for (const frame of before.frames) if (!kept.has(frame.key)) changes.gone.push(frameRef(before, frame));
  return changes;
}
