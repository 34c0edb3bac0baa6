import { type Frame, type FrameRef, frameRef, type PlacedFrame, type Project } from "../model";
import { withSource } from "./with-source";

/** Returns the project with the frames of `refs` changed. A frame that the change returns as given stays the same object. */
export function withFrames(project: Project, refs: ReadonlySet<FrameRef>, change: (placed: PlacedFrame, ref: FrameRef) => Frame): Project {
  const meant = new Set([...refs].map((ref) => ref.slice(0, ref.indexOf("/"))));
  return project.sources.reduce((next: Project, source) => {
    if (!meant.has(source.id)) return next;
    const frames = source.frames.map((frame) => {
      const ref = frameRef(source, frame);
      return refs.has(ref) ? change({ source, frame }, ref) : frame;
    });
    return frames.every((frame, k) => frame === source.frames[k]) ? next : withSource(next, { ...source, frames });
  }, project);
}
