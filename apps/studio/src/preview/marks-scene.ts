/** Computes where a frame's boxes, points, outlines and their tags lie on the stage. Pure, and tested. */
import type { SeenOutlines } from "@caravan/core/check";
import { boxesIn, mirroredAngle, outlinesIn, pointIn } from "@caravan/core/marks";
import {
  type ByShape,
  byShape,
  type FramePoint,
  type MarkKind,
  type MarkName,
  type MarkShape,
  type Outline,
  ownOf,
  type Rect,
} from "@caravan/core/model";
import type { PlayedFrame } from "./playing";
import { frameOnStage, type HeldStill, type StageScene } from "./stage-scene";

/** What is painted over the figure, and which kind is emphasised. */
export interface ShownMarks {
  /** As they are traced now. */
  readonly outlines: SeenOutlines;
  readonly kinds: readonly MarkKind[];
  readonly chosen: MarkName | null;
}

/** A mark in device pixels; angles are as seen. */
export type MarkOnStage = { readonly kind: MarkKind } & (
  | { readonly shape: "box"; readonly index: number; readonly rect: Rect }
  | { readonly shape: "point"; readonly at: FramePoint; readonly angle?: number }
  | { readonly shape: "outline"; readonly index: number; readonly corners: readonly FramePoint[] }
);

/** A mark of one shape on the stage. */
export type OnStage<Shape extends MarkShape> = Extract<MarkOnStage, { shape: Shape }>;

/** A frame's outlines of a kind: its own, or else the traced ones. */
export function outlinesOn({ ref, marks }: Pick<PlayedFrame, "ref" | "marks">, name: MarkName, seen: SeenOutlines): readonly Outline[] {
  return outlinesIn(marks, name) ?? (ref && ownOf(seen.get(ref), name)?.polygons) ?? [];
}

/** In the order of the kinds, so that later ones are on top. */
export function marksOnStage(
  frame: Pick<PlayedFrame, "size" | "origin" | "marks" | "ref">,
  { kinds, outlines }: Pick<ShownMarks, "kinds" | "outlines">,
  scene: StageScene,
  { held = "origin", mirror = false }: { readonly held?: HeldStill; readonly mirror?: boolean } = {},
): MarkOnStage[] {
  const { marks, size } = frame;
  const whole = frameOnStage(frame, scene, { held, mirror });
  const { scale } = scene;
  const left = (x: number, w: number) => whole.x + (mirror ? size.w - x - w : x) * scale;
  const placed: ByShape<MarkOnStage[]> = {
    box: (kind) =>
      boxesIn(marks, kind.name).map((box, index) => ({
        kind,
        shape: "box",
        index,
        rect: { x: left(box.x, box.w), y: whole.y + box.y * scale, w: box.w * scale, h: box.h * scale },
      })),
    outline: (kind) =>
      outlinesOn(frame, kind.name, outlines).map((polygon, index) => ({
        kind,
        shape: "outline",
        index,
        corners: polygon.map(({ x, y }) => ({ x: left(x, 0), y: whole.y + y * scale })),
      })),
    point(kind) {
      const point = pointIn(marks, kind.name);
      if (!point) return [];
      const { angle } = point;
      const seen = angle === undefined ? {} : { angle: mirror ? mirroredAngle(angle) : angle };
      return [{ kind, shape: "point", at: { x: left(point.x, 0), y: whole.y + point.y * scale }, ...seen }];
    },
  };
  return kinds.flatMap((kind) => byShape(kind, placed));
}

/** A place of the canvas, in device pixels, as one of the frame, in its untrimmed pixels, unrounded. Nothing is mirrored. */
export function framePlace(frame: Pick<PlayedFrame, "size" | "origin">, scene: StageScene, held: HeldStill, at: FramePoint): FramePoint {
  const whole = frameOnStage(frame, scene, { held });
  return { x: (at.x - whole.x) / scene.scale, y: (at.y - whole.y) / scene.scale };
}
