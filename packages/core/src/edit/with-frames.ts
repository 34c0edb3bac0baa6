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

/** Returns the project with every frame changed. Frames that the change returns as given stay the same objects, and so do their sources. */
export function withEachFrame(project: Project, change: (frame: Frame) => Frame): Project {
  const sources = project.sources.map((source) => {
    const frames = source.frames.map(change);
    return frames.every((frame, k) => frame === source.frames[k]) ? source : { ...source, frames };
  });
  return sources.every((source, k) => source === project.sources[k]) ? project : { ...project, sources };
}
