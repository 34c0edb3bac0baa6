import { type FrameRef, findFrame, type PlacedFrame } from "@caravan/core/model";
import { useMemo } from "react";
import { useProject } from "./open-project";

/** Finds a frame with its source, or null if it is missing. Returns the same object while neither changes. */
export function usePlacedFrame(ref: FrameRef): PlacedFrame | null {
  const source = useProject((project) => findFrame(project, ref)?.source ?? null);
  const frame = useProject((project) => findFrame(project, ref)?.frame ?? null);
  return useMemo(() => (source && frame ? { source, frame } : null), [source, frame]);
}
