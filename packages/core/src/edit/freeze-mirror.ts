/** Turns a mirrored facing into a clip of mirrored frames, which can then be edited on its own. */
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
  type Layer,
  originOf,
  type Picture,
  type Project,
  type Source,
} from "../model";
import type { Coverage } from "../raster";
import { t } from "../words";
import { setPetal } from "./actions";
import { takeIn } from "./add-sources";
import type { StoredPicture } from "./changed-art";
import { edit } from "./edit";
import type { NewLayer } from "./layers";
import { placeOrigins } from "./origins";
import { withFrames } from "./with-frames";

/** The mirrored picture of one frame, upright and untrimmed, stored by its hash. */
export interface MirroredPicture extends Pick<Picture, "sha256" | "width" | "height"> {
  /** The frame as it is not mirrored. */
  readonly frame: FrameRef;
  /** Of all its layers. */
  readonly coverage: Coverage;
  /** Its layers, mirrored too; the same for each frame. */
  readonly layers?: readonly (Pick<Layer, "name" | "blend"> & StoredPicture)[];
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
  (_project, name: ActionName, facing: Facing, _pictures: readonly MirroredPicture[]) =>
    t("freeze the mirror of {name} {facing}", { name, facing }),
  (project, name, facing, pictures) => {
    const clip = mirroredClip(project, name, facing);
    const refs = framesOfClips([clip]);
    if (refs.length === 0)
      throw new CaravanError(
        "bad-call",
        t('clip "{name}"', { name: clip.name }),
        t("It has no steps, so there is nothing to freeze."),
        t("Add frames to it first."),
      );
    if (refs.length !== pictures.length || pictures.some(({ frame }, k) => frame !== refs[k]))
      throw new CaravanError(
        "bad-call",
        t('clip "{name}"', { name: clip.name }),
        t("Its frames are no longer the mirrored ones."),
        t("Freeze it again."),
      );
    const called = freeName(`${name}-${facing}`, new Set(project.clips.map((each) => each.name))) as ClipName;
    const whole = { by: "count", columns: 1, rows: 1, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: true } as const;
    const added = takeIn(project, [
      {
        name: called,
        pictures: pictures.map(({ sha256, width, height }) => ({ sha256, width, height })),
        ...layersOf(pictures, clip),
        coverages: pictures.map(({ coverage }) => coverage),
        ...(pictures.length === 1 ? { cut: whole } : {}),
      },
    ]);
    const source = added.sources.at(-1) as Source;
    const own = new Map(keptRefs(source).map((ref, k) => [refs[k] as FrameRef, ref]));
    const refOf = new Map([...own].map(([from, to]) => [to, from]));
    const origins = new Map<FrameRef, FramePoint>();
    for (const [from, to] of own) {
      const found = findFrame(project, from);
      if (!found)
        throw new CaravanError(
          "missing-frame",
          t('clip "{name}"', { name: clip.name }),
          t("One of its frames is missing."),
          t("Remove it first."),
        );
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

function layersOf(pictures: readonly MirroredPicture[], { name }: Clip): { layers?: NewLayer[] } {
  const lists = pictures.map(({ layers = [] }) => layers.map((each) => `${each.name} ${each.blend}`).join());
  if (lists.some((each) => each !== lists[0]))
    throw new CaravanError(
      "bad-call",
      t('clip "{name}"', { name }),
      t("Its frames have different layers, and one source cannot have both."),
      t("Give their sources the same layers, or leave the facing mirrored."),
    );
  const first = pictures[0]?.layers ?? [];
  if (first.length === 0) return {};
  return {
    layers: first.map((layer, k) => ({
      ...{ name: layer.name, blend: layer.blend },
      pictures: pictures.flatMap(({ layers = [] }) =>
        layers[k] ? [{ sha256: layers[k].sha256, width: layers[k].width, height: layers[k].height }] : [],
      ),
    })),
  };
}

/** The marks of a frame's mirror picture, and its data, as a part of the frame. */
function mirroredOf(project: Project, ref: FrameRef | undefined): Pick<Frame, "marks" | "data"> {
  const found = ref && findFrame(project, ref);
  if (!found) return {};
  const { marks, data } = found.frame;
  return {
    ...(marks ? { marks: mirroredMarks(marks, frameSize(found.source, found.frame).w) } : {}),
    ...(data ? { data } : {}),
  };
}

function mirroredClip(project: Project, name: ActionName, facing: Facing): Clip {
  const petal = actionNamed(project, name).facings[facing];
  if (!petal?.mirror)
    throw new CaravanError(
      "bad-call",
      t('action "{name}"', { name }),
      t("Its facing {facing} is no mirror.", { facing }),
      t("Choose a facing that is mirrored."),
    );
  return clipNamed(project, petal.clip);
}
