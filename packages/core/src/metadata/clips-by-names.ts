/** Derives clips from frame names where a file lists none: `walk_0 walk_1 …` become the clip `walk`. */
import { naturalOrder } from "../model";
import { withoutEnding } from "./frame-book";
import type { ReadClip, ReadFrame } from "./read";

/** A number at the end of a name, and what parts it from the rest. */
const NUMBERED = /^(.*?[^\s\-_/.:#(\d])[\s\-_/.:#(]*(\d+)\)?$/;

/** Frames whose names are alike but for a number at their end, in its order; two at least. Cost: O(n log n). */
export function clipsByNames(frames: readonly ReadFrame[]): ReadClip[] {
  const groups = new Map<string, { readonly frame: ReadFrame; readonly number: string }[]>();
  for (const frame of frames) {
    const match = NUMBERED.exec(withoutEnding(frame.name));
    if (!match || frame.name.length > 300) continue;
    const name = match[1] as string;
    groups.set(name, [...(groups.get(name) ?? []), { frame, number: match[2] as string }]);
  }
  return [...groups]
    .filter(([, list]) => list.length > 1)
    .map(([name, list]) => ({
      name,
      facing: null,
      playback: "loop",
      times: 0,
      steps: list
        .sort((a, b) => naturalOrder(a.number, b.number))
        .map(({ frame }, place) => ({
          ...{ frame: frame.name, ms: frame.ms ?? 100, place },
          ...(frame.events.length > 0 ? { events: frame.events } : {}),
        })),
      by: "names",
    }));
}
