/** Collects the contents of a delivery from a project, before any layout. */

import type { Art, PartOfPicture } from "../art";
import { type AtlasAction, type AtlasClip, atlasAction, atlasClip } from "../atlas";
import { brokenParts, type FindingCode, stoppingFinding } from "../check";
import { chosenFrames, layersOf } from "../delivery-plan";
import { packingIn, shapeOf } from "../example";
import { hostClips, outlinesOf, scaledMarks, withOutlines } from "../marks";
import {
  bakesParts,
  CaravanError,
  type Delivery,
  type Density,
  type ErrorCode,
  exampleNamed,
  type FrameMarks,
  type FrameRef,
  findFrame,
  frameName,
  frameRef,
  originOf,
  type Part,
  type PlacedFrame,
  type Project,
} from "../model";
import { crop, type Part as PicturePart, scaled } from "../raster";
import { deliverableBehaviours } from "../rehearse";
import { t } from "../words";
import { withPartsBaked } from "./bake-parts";
import type { Contents, FrameToDeliver } from "./contents";
import { groupsOf } from "./page-groups";

/**
 * Everything that a delivery chooses, as in the project. Throws the first finding that stops the delivery, `missing-picture`, `not-found`.
 */
export function contentsOf(whole: Project, delivery: Delivery, art: Art): Contents {
  const { project, frames: placed, names: texts, nameOf } = chosenFrames(whole, delivery);
  const stopping = stoppingFinding(
    project,
    whole.deliveries.findIndex(({ name }) => name === delivery.name),
  );
  // Baked guests are not delivered themselves, so their parts are looked up in the whole project.
  const broken = bakesParts(delivery) && !stopping ? brokenParts(hostedBy(whole, project))[0] : undefined;
  if (broken) throw new CaravanError(CODES[broken.code] ?? "bad-call", broken.where, broken.message, t("Nothing was written."));
  if (stopping)
    throw new CaravanError(CODES[stopping.code] ?? "nothing-picked", stopping.where, stopping.message, t("Nothing was written."));
  const refs = placed.map(({ source, frame }) => frameRef(source, frame));
  const outlines = outlinesOf(whole, refs, art);
  const baking = bakesParts(delivery) && (whole.parts?.length ?? 0) > 0;
  // A baked part may come from any source.
  const { layers } = layersOf(baking ? whole.sources : [...new Set(placed.map(({ source }) => source))]);
  const drawn = ({ source, frame }: PlacedFrame, name: string, marks: FrameMarks | undefined): FrameToDeliver => {
    const { pixels, rect } = art.frame(source, frame, null) as PartOfPicture;
    const over = layers.length > 0 ? { layers: layers.map((layer) => art.frame(source, frame, layer.name)) } : {};
    return { name, pixels, rect, ...over, origin: originOf(source, frame), marks, data: frame.data };
  };
  const frames = placed.map((each, k) =>
    drawn(each, texts[k] as string, withOutlines(each.frame.marks, outlines.get(refs[k] as FrameRef))),
  );
  const clips = project.clips.map((clip): [string, AtlasClip] => [clip.name, atlasClip(clip, (step) => nameOf.get(step.frame) as string)]);
  const actions = project.actions.map((action): [string, AtlasAction] => [action.name, atlasAction(action)]);
  // Films have no metadata.
  const shape = delivery.data.example === null || delivery.kind === "films" ? null : shapeOf(exampleNamed(whole, delivery.data.example));
  const together = shape ? packingIn(shape.traits, delivery.packing).together : delivery.packing.together;
  const behaviours = deliverableBehaviours(whole, project);
  const groups = groupsOf(together, texts, clips, actions);
  const parts = bakesParts(delivery) ? [] : deliveredParts(project);
  const contents: Contents = {
    frames,
    clips,
    actions,
    parts,
    behaviours,
    layers,
    palettes: whole.palettes ?? [],
    groups,
    pixelsPerUnit: whole.pixelsPerUnit,
    shape,
  };
  if (!baking) return contents;
  const baked = withPartsBaked(contents, project, whole, (ref) => {
    const found = findFrame(whole, ref);
    return found ? drawn(found, nameOf.get(ref) ?? frameName(found.source, found.frame), undefined) : null;
  });
  const names = baked.frames.map(({ name }) => name);
  return { ...baked, groups: groupsOf(together, names, baked.clips, actions) };
}

/** The project with those parts only whose hosts are chosen. */
function hostedBy(whole: Project, { clips }: Project): Project {
  const names = new Set(clips.map(({ name }) => name));
  return { ...whole, parts: (whole.parts ?? []).filter(({ host }) => hostClips(whole, host).some(({ name }) => names.has(name))) };
}

/** Parts that can show in the delivery. */
function deliveredParts({ parts = [], clips, actions }: Project): Part[] {
  const plays = new Set<string>([...clips, ...actions].map(({ name }) => name));
  return parts.filter(({ host, guest }) => plays.has(guest) && (plays.has(host) || hostClips({ clips, actions }, host).length > 0));
}

/** The contents at another size, origins and marks with them. */
export function scaledContents(contents: Contents, { scale, crisp }: Density): Contents {
  if (scale === 1) return contents;
  const frames = contents.frames.map(({ name, pixels, rect, layers, origin, marks, data }): FrameToDeliver => {
    const scaledPart = (part: PicturePart): PicturePart => {
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
      data,
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
  "part-gone": "missing-frame",
  "part-circle": "bad-call",
};
