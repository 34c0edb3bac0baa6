"use client";

import { useMedia } from "./media";

/** Whether the settings that a stop is about stand in its middle, beside what they are set of, rather than under the player. */
export function useIsWide(): boolean {
  return useMedia("(min-width: 1240px)");
}
