/** A mirrored facing made into a clip of its own, whose frames are mirrored pictures: from then on it can be changed for itself. */
import { mirroredMarks } from "../marks";
import {
  type ActionName,
  actionNamed,
  CaravanError,
  type Clip,
  type ClipName,
  clipNamed,
  type Facing,
  type Frame,
  type FramePoint,
  type FrameRef,
  findFrame,
  frameSize,
  framesOfClips,
  freeName,
  keptRefs,
  originOf,
  type Picture,
  type Project,
  type Source,
} from "../model";
import type { Coverage } from "../raster";
import { setPetal } from "./actions";
import { takeIn } from "./arrivals";
import { edit } from "./edit";
import { placeOrigins } from "./origins";
import { withFrames } from "./with-frames";

/** The mirrored picture of one frame, upright and untrimmed, stored by its hash. */
export interface MirroredPicture extends Pick<Picture, "sha256" | "width" | "height"> {
  readonly coverage: Coverage;
}

/** The frames whose mirrored pictures a freezing needs, in their order. Throws `bad-call` if the facing is no mirror. */
export function framesToMirror(project: Project, name: ActionName, facing: Facing): FrameRef[] {
  return framesOfClips([mirroredClip(project, name, facing)]);
}

/**
 * Adds `pictures`, the mirrored pictures of `framesToMirror` in that order, as a source, a clip of them with the same times, events
 * and way of playing, and lets the facing show it. Origins are mirrored too. Throws `bad-call` or `missing-frame`.
 */
export const freezeMirror = edit(
  (_project, name: ActionName, facing: Facing, _pictures: readonly MirroredPicture[]) => `freeze the mirror of ${name} ${facing}`,
  (project, name, facing, pictures) => {
    const clip = mirroredClip(project, name, facing);
    const refs = framesOfClips([clip]);
    if (refs.length !== pictures.length)
      throw new CaravanError("bad-call", `clip "${clip.name}"`, "Its frames are not those that were mirrored.", "Freeze it again.");
    const called = freeName(`${name}-${facing}`, new Set(project.clips.map((each) => each.name))) as ClipName;
    const whole = { by: "count", columns: 1, rows: 1, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: true } as const;
    const added = takeIn(project, [
      { name: called, pictures, coverages: pictures.map(({ coverage }) => coverage), ...(pictures.length === 1 ? { cut: whole } : {}) },
    ]);
    const source = added.sources.at(-1) as Source;
    const own = new Map(keptRefs(source).map((ref, k) => [refs[k] as FrameRef, ref]));
    const refOf = new Map([...own].map(([from, to]) => [to, from]));
    const origins = new Map<FrameRef, FramePoint>();
    for (const [from, to] of own) {
      const found = findFrame(project, from);
      if (!found) throw new CaravanError("missing-frame", `clip "${clip.name}"`, "One of its frames is missing.", "Take it out first.");
      const { x, y } = originOf(found.source, found.frame);
      origins.set(to, { x: frameSize(found.source, found.frame).w - x, y });
    }
    const steps = clip.steps.map((step) => ({ ...step, frame: own.get(step.frame) ?? step.frame }));
    const frozen: Clip = { ...clip, name: called, steps };
    const placed = placeOrigins({ ...added, clips: [...added.clips, frozen] }, called, origins);
    const marked = withFrames(placed, new Set(own.values()), (each, ref) => ({ ...each.frame, ...mirroredOf(project, refOf.get(ref)) }));
    return setPetal(marked, name, facing, { clip: called });
  },
);

/** The marks of a frame's mirror picture, as a part of the frame. */
function mirroredOf(project: Project, ref: FrameRef | undefined): Pick<Frame, "marks"> {
  const found = ref && findFrame(project, ref);
  return found?.frame.marks ? { marks: mirroredMarks(found.frame.marks, frameSize(found.source, found.frame).w) } : {};
}

function mirroredClip(project: Project, name: ActionName, facing: Facing): Clip {
  const petal = actionNamed(project, name).facings[facing];
  if (!petal?.mirror)
    throw new CaravanError("bad-call", `action "${name}"`, `Its facing ${facing} is no mirror.`, "Choose a facing that is mirrored.");
  return clipNamed(project, petal.clip);
}
