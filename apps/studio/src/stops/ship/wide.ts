"use client";

import { useMedia } from "../../ui/media";

/** Whether what a delivery is made of stands beside its pages, in the middle, rather than under the player. */
export function useIsWide(): boolean {
  return useMedia("(min-width: 1500px)");
}
