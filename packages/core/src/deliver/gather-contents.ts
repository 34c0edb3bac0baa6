/** What a delivery chooses of a project, gathered before it is laid on any picture. */

import type { Art, PartOfPicture } from "../art";
import { type AtlasAction, type AtlasClip, atlasAction, atlasClip } from "../atlas";
import { type FindingCode, stoppingFinding } from "../check";
import { chosenFrames, layersOf } from "../delivery-plan";
import { packingIn, shapeOf } from "../example";
import { outlinesOf, scaledMarks, withOutlines } from "../marks";
import {
  CaravanError,
  type Delivery,
  type Density,
  type ErrorCode,
  exampleNamed,
  type FrameRef,
  frameRef,
  originOf,
  type Project,
} from "../model";
import { crop, type Part, scaled } from "../raster";
import { deliverableBehaviours } from "../rehearse";
import type { Contents, FrameToDeliver } from "./contents";
import { groupsOf } from "./page-groups";

/** Everything that a delivery chooses, as it is in the project. Throws the first finding that stops delivery, `missing-picture`, `not-found`. */
export function contentsOf(whole: Project, delivery: Delivery, art: Art): Contents {
  const { project, frames: placed, names: texts, nameOf } = chosenFrames(whole, delivery);
  const stopping = stoppingFinding(
    project,
    whole.deliveries.findIndex(({ name }) => name === delivery.name),
  );
  if (stopping) throw new CaravanError(CODES[stopping.code] ?? "nothing-picked", stopping.where, stopping.message, "Nothing was written.");
  const refs = placed.map(({ source, frame }) => frameRef(source, frame));
  const outlines = outlinesOf(whole, refs, art);
  const { layers } = layersOf([...new Set(placed.map(({ source }) => source))]);
  const frames = placed.map(({ source, frame }, k): FrameToDeliver => {
    const { pixels, rect } = art.frame(source, frame, null) as PartOfPicture;
    const over = layers.length > 0 ? { layers: layers.map(({ name }) => art.frame(source, frame, name)) } : {};
    const marks = withOutlines(frame.marks, outlines.get(refs[k] as FrameRef));
    return { name: texts[k] as string, pixels, rect, ...over, origin: originOf(source, frame), marks };
  });
  const clips = project.clips.map((clip): [string, AtlasClip] => [clip.name, atlasClip(clip, (step) => nameOf.get(step.frame) as string)]);
  const actions = project.actions.map((action): [string, AtlasAction] => [action.name, atlasAction(action)]);
  const shape = delivery.data.example === null ? null : shapeOf(exampleNamed(whole, delivery.data.example));
  const together = shape ? packingIn(shape.traits, delivery.packing).together : delivery.packing.together;
  const behaviours = deliverableBehaviours(whole, project);
  const groups = groupsOf(together, texts, clips, actions);
  return {
    frames,
    clips,
    actions,
    behaviours,
    layers,
    palettes: whole.palettes ?? [],
    groups,
    pixelsPerUnit: whole.pixelsPerUnit,
    shape,
  };
}

/** The contents at another size, origins and marks with them. */
export function scaledContents(contents: Contents, { scale, crisp }: Density): Contents {
  if (scale === 1) return contents;
  const frames = contents.frames.map(({ name, pixels, rect, layers, origin, marks }): FrameToDeliver => {
    const scaledPart = (part: Part): Part => {
      const small = scaled(crop(part.pixels, part.rect), scale, crisp === true);
      return { pixels: small, rect: { x: 0, y: 0, w: small.width, h: small.height } };
    };
    const rounded = (value: number) => Math.round(value * scale * 1000) / 1000;
    return {
      name,
      ...scaledPart({ pixels, rect }),
      ...(layers ? { layers: layers.map((part) => part && scaledPart(part)) } : {}),
      origin: { x: rounded(origin.x), y: rounded(origin.y) },
      marks: marks && scaledMarks(marks, scale),
    };
  });
  return { ...contents, frames };
}

const CODES: Partial<Record<FindingCode, ErrorCode>> = {
  "empty-clip": "empty-clip",
  "missing-frames": "missing-frame",
  "same-frame-name": "name-collision",
  "empty-action": "empty-clip",
  "nothing-cut": "nothing-picked",
  "unfit-name": "bad-name",
  "same-file-name": "name-collision",
  "layers-disagree": "name-collision",
};
