"use client";

import { useMedia } from "./media";

/** Returns whether a stop's main settings are shown in the middle, beside their subject, instead of under the player. */
export function useIsWide(): boolean {
  return useMedia("(min-width: 77.5em)");
}
