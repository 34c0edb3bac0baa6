import { type FrameRef, findFrame, type PlacedFrame } from "@caravan/core/model";
import { useMemo } from "react";
import { useProject } from "./open-project";

/** A frame with its source, null if it is gone; the same object as long as neither changes, whatever else in the project does. */
export function usePlacedFrame(ref: FrameRef): PlacedFrame | null {
  const source = useProject((project) => findFrame(project, ref)?.source ?? null);
  const frame = useProject((project) => findFrame(project, ref)?.frame ?? null);
  return useMemo(() => (source && frame ? { source, frame } : null), [source, frame]);
}
