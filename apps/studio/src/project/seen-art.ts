/**
 * Remembers facts about pictures that were seen in passing: which are missing, which have an opaque background. By hash, so they stay
 * valid forever.
 */
import { NOTHING_SEEN, type SeenArt } from "@caravan/core/check";
import type { UsedColour } from "@caravan/core/palette";
import type { Ground } from "@caravan/core/raster";
import { create } from "zustand";

export const useSeenArt = create<SeenArt>(() => NOTHING_SEEN);

export function sawGrounds(grounds: ReadonlyMap<string, Ground>): void {
  const before = useSeenArt.getState().grounds;
  if ([...grounds.keys()].some((sha256) => !before.has(sha256))) useSeenArt.setState({ grounds: new Map([...before, ...grounds]) });
}

/** Colours of pictures, each by its look in the colours it is drawn in. */
export function sawColours(colours: ReadonlyMap<string, readonly UsedColour[]>): void {
  const before = useSeenArt.getState().colours;
  if ([...colours.keys()].some((key) => !before.has(key))) useSeenArt.setState({ colours: new Map([...before, ...colours]) });
}

export function sawMissing(hashes: readonly string[]): void {
  const before = useSeenArt.getState().missing;
  if (hashes.some((sha256) => !before.has(sha256))) useSeenArt.setState({ missing: new Set([...before, ...hashes]) });
}

const restored = new Set<string>();

/** A picture that may have been missing is there again. */
export function sawAgain(sha256: string): void {
  const { missing } = useSeenArt.getState();
  if (!missing.has(sha256)) return;
  restored.add(sha256);
  useSeenArt.setState({ missing: new Set([...missing].filter((each) => each !== sha256)) });
}

/** Whether a picture had been missing and came again, since this was last asked. */
export function isRestored(sha256: string): boolean {
  return restored.delete(sha256);
}
