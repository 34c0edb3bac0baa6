"use client";

import { boxesIn, halves, marksWith, pointIn } from "@caravan/core/marks";
import { type Box, byShape, type FramePoint, type MarkKind, type Outline, type Rect } from "@caravan/core/model";
import { type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import { type BoxGesture, gestureAt, rectDuring } from "../../preview/box-gesture";
import { looksOfStill } from "../../preview/draw-frame";
import { ghostPicture } from "../../preview/ghosts";
import { useHiddenLayers } from "../../preview/hidden-layers";
import { framePlace, outlinesOn } from "../../preview/marks-scene";
import { POINTER, paintMarks } from "../../preview/paint-marks";
import { paintFrame, paintOrigin } from "../../preview/paint-stage";
import type { PlayedFrame } from "../../preview/playing";
import { stageInks } from "../../preview/stage-inks";
import { fittingZoom, frameOnStage, reachOf, type StageScene, stageScene } from "../../preview/stage-scene";
import { useProject } from "../../project/open-project";
import { loadPictures, usePictures } from "../../project/pictures";
import { useSeenArt } from "../../project/seen-art";
import { useElementSize } from "../../ui/element-size";
import { sayUnlessDone } from "../../ui/notices";
import { useThemeNow } from "../../ui/theme-now";
import { nameAnd, t } from "../../ui/words";
import { type CornerAt, type Grip, gripAt, outlineAround, withCornerAt } from "./outline-gesture";
import type { FramesInScope } from "./scope";
import { aimPoint, boxTo, drawBox, giveOutlines, pointTo, type Spot } from "./set-marks";
import { nudge } from "./set-origin";

interface Props {
  readonly frame: PlayedFrame;
  /** The frames before and after it, which stand on the same origin. */
  readonly ghosts: readonly PlayedFrame[];
  /** The kind of boxes or points that is set; null for the origin. */
  readonly kind: MarkKind | null;
  /** The selected point's positions through the clip's steps, relative to the frames' origins; null if there is none. */
  readonly path: readonly (FramePoint | null)[] | null;
  readonly spot: Spot | null;
  readonly inScope: FramesInScope;
  /** The chosen box of the kind, by index. */
  readonly box: number;
  readonly onBox: (index: number) => void;
  readonly corner: CornerAt | null;
  readonly onCorner: (corner: CornerAt | null) => void;
  /** Whether the outlines are current; others cannot be dragged. */
  readonly isSettled: boolean;
}

/** A press in progress: its gesture, and how far it has moved things. */
type Drag =
  | { readonly kind: "origin"; readonly id: string; readonly from: FramePoint; readonly done: FramePoint }
  | { readonly kind: "point"; readonly id: string }
  | { readonly kind: "angle"; readonly id: string }
  /** `drawn` is the new box, once the pointer has moved far enough. */
  | { readonly kind: "box"; readonly id: string; readonly gesture: BoxGesture; readonly drawn: Rect | null }
  /** `of` is the frame whose outlines these are: undo or another tab may change it meanwhile. */
  | {
      readonly kind: "corner";
      readonly of: PlayedFrame;
      readonly grip: Grip;
      readonly outlines: readonly Outline[];
      readonly isMoved: boolean;
    };

const REACH = 6; // CSS px: how near to an edge counts as on it
/** A shorter movement is a click, and draws nothing. */
const MEANT = 4; // CSS px
/** An angle this near to a quarter turn is dragged onto it. Degrees. */
const CAUGHT = 8;
/** Boxes may reach this far out of a frame, in frames. */
const BEYOND = 2;

/**
 * One frame enlarged, held still, with its origin, the ground line through it, and all its marks. The selection can be dragged: the origin
 * and points in half pixels, boxes in whole ones; neighbouring frames show how steady they are.
 */
export function MarksCanvas({ frame, ghosts, kind, path, spot, inScope, box, onBox, corner, onCorner, isSettled }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(canvas);
  const entries = usePictures((state) => state.entries);
  const hidden = useHiddenLayers((state) => state.hidden);
  const kinds = useProject((project) => project.marks);
  // Not drawn, and read by the next move before anything is.
  const drag = useRef<Drag | null>(null);
  const [draft, setDraft] = useState<Rect | null>(null);
  const [draftOutlines, setDraftOutlines] = useState<readonly Outline[] | null>(null);
  const seen = useSeenArt((art) => art.outlines);
  const scene = useMemo(() => {
    const reach = reachOf([{ frames: [frame], mirror: false }], "frame");
    const zoom = Math.max(1, Math.floor(fittingZoom(reach, size.width - 60, size.height - 48)));
    return stageScene(reach, zoom, size.width, size.height, size.density);
  }, [frame, size]);
  const boxes = kind ? boxesIn(frame.marks, kind.name) : [];
  const outlines = useMemo(() => (kind?.shape === "outline" ? outlinesOn(frame, kind.name, seen) : []), [frame, kind, seen]);

  useEffect(() => loadPictures([frame, ...ghosts].flatMap(looksOfStill)), [frame, ghosts]);

  const theme = useThemeNow();
  // biome-ignore lint/correctness/useExhaustiveDependencies: painted again when a picture has come, and in other colours
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || size.width === 0) return;
    paint(context, frame, ghosts, scene);
    const inks = stageInks(context.canvas);
    if (path) paintPath(context, frame, path, scene, inks.now);
    const shown = kind ? withDraft(frame, kind, draft, draftOutlines ?? outlines) : frame;
    const placed = { held: "frame", mirror: false } as const;
    paintMarks(context, shown, scene, { kinds, chosen: kind?.name ?? null, outlines: seen }, inks, placed, { box, corner });
  }, [frame, ghosts, scene, size, entries, hidden, kinds, kind, path, box, corner, draft, draftOutlines, outlines, seen, theme]);

  const at = (event: PointerEvent): FramePoint => {
    const bounds = (canvas.current as HTMLCanvasElement).getBoundingClientRect();
    const { density } = size;
    return framePlace(frame, scene, "frame", { x: (event.clientX - bounds.left) * density, y: (event.clientY - bounds.top) * density });
  };
  /** With `anew`, a press inside a box draws another one. */
  const gesture = (place: FramePoint, anew: boolean) =>
    gestureAt(
      boxes.map((rect, k) => ({ id: String(k), rect })),
      place,
      (REACH * size.density) / scene.scale,
      anew,
    );
  /** Whether a place is at the end of what shows the way of a point. */
  const isAtPointer = ({ x, y }: FramePoint, angle: number, place: FramePoint) => {
    const long = (POINTER * size.density) / scene.scale;
    const [across, down] = [x + Math.cos((angle * Math.PI) / 180) * long, y + Math.sin((angle * Math.PI) / 180) * long];
    return Math.hypot(place.x - across, place.y - down) <= ((REACH + 2) * size.density) / scene.scale;
  };
  const down = (event: PointerEvent<HTMLCanvasElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const id = `drag mark ${event.timeStamp}`;
    const place = at(event);
    if (!kind) {
      drag.current = { kind: "origin", id, from: place, done: { x: 0, y: 0 } };
      return;
    }
    byShape(kind, {
      outline() {
        if (!isSettled) return;
        const grip = gripAt(outlines, place, (REACH * size.density) / scene.scale);
        onCorner(grip?.kind === "corner" ? grip : null);
        drag.current = grip
          ? { kind: "corner", of: frame, grip, outlines, isMoved: false }
          : { kind: "box", id, gesture: { kind: "draw", from: place }, drawn: null };
      },
      point() {
        const point = pointIn(frame.marks, kind.name);
        if (point?.angle !== undefined && isAtPointer(point, point.angle, place)) {
          drag.current = { kind: "angle", id };
          return;
        }
        drag.current = { kind: "point", id };
        if (spot) pointTo(spot, inHalves(place), id);
      },
      box() {
        const begun = gesture(place, event.altKey);
        if (begun.kind !== "draw") onBox(Number(begun.id));
        drag.current = { kind: "box", id, gesture: begun, drawn: null };
      },
    });
  };
  const move = (event: PointerEvent) => {
    const place = at(event);
    const now = drag.current;
    if (!now) return;
    if (now.kind === "origin") {
      const total = inHalves({ x: place.x - now.from.x, y: place.y - now.from.y });
      const by = { x: total.x - now.done.x, y: total.y - now.done.y };
      if (by.x === 0 && by.y === 0) return;
      nudge(inScope, by, now.id);
      drag.current = { ...now, done: total };
    } else if (now.kind === "point") {
      if (spot) pointTo(spot, inHalves(place), now.id);
    } else if (now.kind === "angle") {
      const point = kind && pointIn(frame.marks, kind.name);
      // Quarters, which pictures can be turned by, are caught; with Shift any whole degree is.
      if (spot && point) sayUnlessDone(aimPoint(spot, draggedAngle(point, place, event.shiftKey), now.id));
    } else if (now.kind === "corner") {
      if (now.of !== frame) return end();
      const { outlines: next, at: moved } = withCornerAt(now.outlines, now.grip, place);
      drag.current = { ...now, isMoved: true };
      setDraftOutlines(next);
      onCorner(moved);
    } else {
      const rect = rectDuring(now.gesture, place, boundsOf(frame));
      if (now.gesture.kind === "draw") {
        const { from } = now.gesture;
        const far = Math.max(Math.abs(place.x - from.x), Math.abs(place.y - from.y)) * scene.scale;
        if (now.drawn === null && far < MEANT * size.density) return;
        drag.current = { ...now, drawn: rect };
        if (kind?.shape === "outline") setDraftOutlines([...outlines, outlineAround(rect)]);
        else setDraft(rect);
      } else if (spot) boxTo(spot, Number(now.gesture.id), rect, now.id);
    }
  };
  const end = () => {
    setDraft(null);
    setDraftOutlines(null);
    drag.current = null;
  };
  const up = () => {
    const done = drag.current;
    if (done?.kind === "corner" && done.isMoved && done.of === frame && draftOutlines && spot) giveOutlines(spot, draftOutlines);
    if (done?.kind === "box" && done.drawn && spot) {
      if (kind?.shape === "outline") giveOutlines(spot, [...outlines, outlineAround(done.drawn)]);
      else if (drawBox(spot, done.drawn)) onBox(boxes.length);
    }
    end();
  };
  return (
    <canvas
      ref={canvas}
      data-testid="marks-canvas"
      aria-label={account(frame, kind, boxes, outlines)}
      role="img"
      width={Math.round(size.width * size.density)}
      height={Math.round(size.height * size.density)}
      className={`check block h-full w-full touch-none ${kind ? "cursor-crosshair" : "cursor-move"}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={end}
    />
  );
}

/** What the canvas shows, in words. */
function account({ name, origin, marks }: PlayedFrame, kind: MarkKind | null, boxes: readonly Box[], outlines: readonly Outline[]): string {
  if (!kind) return t("{name} with its origin at {x}, {y}", { name, x: origin.x, y: origin.y });
  const point = pointIn(marks, kind.name);
  const places = byShape(kind, {
    box: () => boxes.map(({ x, y, w, h }) => [x, y, w, h].join(", ")),
    point: () =>
      point ? [nameAnd(`${point.x}, ${point.y}`, point.angle !== undefined && t("pointing to {angle}°", { angle: point.angle }))] : [],
    outline: () => outlines.map((polygon) => polygon.map(({ x, y }) => `${x}, ${y}`).join(" ")),
  });
  return places.length === 0
    ? t("{name} without {kind}", { name, kind: kind.name })
    : t("{name} with {kind} at {places}", { name, kind: kind.name, places: places.join("; ") });
}

/** Degrees from a point to a place, whole; those near a quarter turn are it, unless it is `free`. */
function draggedAngle(from: FramePoint, to: FramePoint, free: boolean): number {
  const angle = (Math.round((Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI) + 360) % 360;
  const quarter = Math.round(angle / 90) * 90;
  return !free && Math.abs(angle - quarter) <= CAUGHT ? quarter % 360 : angle;
}

function inHalves({ x, y }: FramePoint): FramePoint {
  return { x: halves(x), y: halves(y) };
}

function boundsOf({ size: { w, h } }: PlayedFrame): Rect {
  return { x: -BEYOND * w, y: -BEYOND * h, w: (2 * BEYOND + 1) * w, h: (2 * BEYOND + 1) * h };
}

/** The frame with what is being drawn on it. */
function withDraft(frame: PlayedFrame, { name, shape }: MarkKind, draft: Rect | null, outlines: readonly Outline[]): PlayedFrame {
  if (shape === "outline") return { ...frame, marks: marksWith(frame.marks, name, { outlines }) };
  return draft ? { ...frame, marks: marksWith(frame.marks, name, { boxes: [...boxesIn(frame.marks, name), draft] }) } : frame;
}

function paint(context: CanvasRenderingContext2D, frame: PlayedFrame, ghosts: readonly PlayedFrame[], scene: StageScene): void {
  const { width, height } = context.canvas;
  const inks = stageInks(context.canvas);
  context.clearRect(0, 0, width, height);
  context.imageSmoothingEnabled = false;
  const box = frameOnStage(frame, scene, { held: "frame" });
  const origin = { x: box.x + Math.round(frame.origin.x * scene.scale), y: box.y + Math.round(frame.origin.y * scene.scale) };
  for (const ghost of ghosts) {
    const drawn = ghostPicture(ghost, inks.before, "outline");
    if (!drawn) continue;
    const { scale } = scene;
    context.globalAlpha = 0.7;
    context.drawImage(
      drawn,
      origin.x - Math.round(ghost.origin.x * scale) - scale,
      origin.y - Math.round(ghost.origin.y * scale) - scale,
      drawn.width * scale,
      drawn.height * scale,
    );
    context.globalAlpha = 1;
  }
  paintFrame(context, frame, scene, "frame", false);
  outline(context, box, inks.ink);
  context.strokeStyle = inks.ink;
  context.setLineDash([6, 4]);
  context.beginPath();
  context.moveTo(0, origin.y + 0.5);
  context.lineTo(width, origin.y + 0.5);
  context.moveTo(origin.x + 0.5, 0);
  context.lineTo(origin.x + 0.5, height);
  context.globalAlpha = 0.6;
  context.stroke();
  context.setLineDash([]);
  context.globalAlpha = 1;
  paintOrigin(context, origin);
}

/** The way of a point through the clip: a line from step to step, a dot at each; steps without it leave a gap. */
function paintPath(
  context: CanvasRenderingContext2D,
  frame: PlayedFrame,
  path: readonly (FramePoint | null)[],
  scene: StageScene,
  ink: string,
): void {
  const box = frameOnStage(frame, scene, { held: "frame" });
  const { scale } = scene;
  const density = Math.max(1, Math.round(devicePixelRatio));
  const at = ({ x, y }: FramePoint) => ({ x: box.x + (frame.origin.x + x) * scale, y: box.y + (frame.origin.y + y) * scale });
  const line = (width: number, style: string) => {
    context.strokeStyle = style;
    context.lineWidth = width * density;
    context.beginPath();
    for (const [k, place] of path.entries()) {
      if (!place) continue;
      const { x, y } = at(place);
      if (k > 0 && path[k - 1]) context.lineTo(x, y);
      else context.moveTo(x, y);
    }
    context.stroke();
  };
  line(3, "black");
  line(1, ink);
  for (const place of path) {
    if (!place) continue;
    const { x, y } = at(place);
    context.fillStyle = "black";
    context.fillRect(x - 2.5 * density, y - 2.5 * density, 5 * density, 5 * density);
    context.fillStyle = ink;
    context.fillRect(x - 1.5 * density, y - 1.5 * density, 3 * density, 3 * density);
  }
}

function outline(context: CanvasRenderingContext2D, { x, y, w, h }: Rect, ink: string): void {
  context.strokeStyle = ink;
  context.globalAlpha = 0.35;
  context.strokeRect(x - 0.5, y - 0.5, w + 1, h + 1);
  context.globalAlpha = 1;
}
