import { type AtlasAction, type AtlasClip, atlasAction, atlasClip } from "../atlas";
import { type FindingCode, findingsOf } from "../check";
import type { PngCodec } from "../codec";
import {
  CaravanError,
  type Delivery,
  type ErrorCode,
  type FrameRef,
  frameLook,
  frameName,
  frameRef,
  keptFrames,
  type Look,
  originOf,
  type Project,
  pictureOf,
} from "../model";
import type { OnProgress } from "../pack";
import { framePixels, type Pixels } from "../raster";
import { type AtlasFiles, buildAtlasFiles } from "./atlas-files";

/**
 * Everything that one of a project's deliveries asks for. `pictures` are the sources' pixels by look, cleared.
 * Throws the first finding that stops delivery, and what `buildAtlasFiles` throws.
 */
export function deliver(
  project: Project,
  delivery: Delivery,
  pictures: ReadonlyMap<Look, Pixels>,
  png: PngCodec,
  onProgress?: OnProgress,
): AtlasFiles {
  const stopping = findingsOf(project).find((finding) => finding.severity === "error");
  if (stopping) throw new CaravanError(CODES[stopping.code] ?? "nothing-picked", stopping.where, stopping.message, "Nothing was written.");
  const names = new Map<FrameRef, string>();
  const frames = keptFrames(project).map(({ source, frame }) => {
    const pixels = pictures.get(frameLook(source, frame));
    if (!pixels)
      throw new CaravanError(
        "missing-picture",
        pictureOf(source, frame).file,
        "The picture of this source is not there.",
        "Put it back and deliver again.",
      );
    const name = frameName(source, frame);
    names.set(frameRef(source, frame), name);
    const origin = originOf(source, frame);
    if (!frame.size && !frame.turned) return { name, pixels, rect: frame.rect, origin };
    const whole = framePixels(pixels, frame);
    return { name, pixels: whole, rect: { x: 0, y: 0, w: whole.width, h: whole.height }, origin };
  });
  const clips = project.clips.map((clip): [string, AtlasClip] => [clip.name, atlasClip(clip, (step) => names.get(step.frame) as string)]);
  const actions = project.actions.map((action): [string, AtlasAction] => [action.name, atlasAction(action)]);
  return buildAtlasFiles({ delivery, frames, clips, actions }, png, onProgress);
}

const CODES: Partial<Record<FindingCode, ErrorCode>> = {
  "empty-clip": "empty-clip",
  "missing-frames": "missing-frame",
  "same-frame-name": "name-collision",
  "empty-action": "empty-clip",
  "nothing-cut": "nothing-picked",
};
