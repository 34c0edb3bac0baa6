"use client";

import { halves } from "@caravan/core/marks";
import type { FramePoint, Rect } from "@caravan/core/model";
import { type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import { ghostPicture } from "../../../preview/ghosts";
import { paintFrame, paintOrigin, stageInks } from "../../../preview/paint-stage";
import type { PlayedFrame } from "../../../preview/playing";
import { fittingZoom, frameOnStage, reachOf, type StageScene, stageScene } from "../../../preview/stage-scene";
import { useCanvasSize } from "../../../preview/use-canvas-size";
import { loadPictures, pictureNow, usePictures } from "../../../project/pictures";

interface Props {
  readonly frame: PlayedFrame;
  /** The frames before and after it, which stand on the same origin. */
  readonly ghosts: readonly PlayedFrame[];
  /** The frames whose origins move with a drag, told what by. */
  readonly onMove: (by: FramePoint, gesture: string) => void;
}

/**
 * One frame large, held still, with its origin and the ground line through it. The origin is dragged, in half pixels; frames around
 * it show how steadily they stand.
 */
export function OriginCanvas({ frame, ghosts, onMove }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useCanvasSize(canvas);
  const entries = usePictures((state) => state.entries);
  const [drag, setDrag] = useState<{ readonly gesture: string; readonly done: FramePoint; readonly x: number; readonly y: number } | null>(
    null,
  );
  const scene = useMemo(() => {
    const reach = reachOf([{ frames: [frame], mirror: false }], "frame");
    const zoom = Math.max(1, Math.floor(fittingZoom(reach, size.width - 60, size.height - 48)));
    return stageScene(reach, zoom, size.width, size.height, size.density);
  }, [frame, size]);

  useEffect(() => loadPictures([frame, ...ghosts].map(({ look }) => look)), [frame, ghosts]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: painted again when a picture has come
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (context && size.width > 0) paint(context, frame, ghosts, scene);
  }, [frame, ghosts, scene, size, entries]);

  const move = (event: PointerEvent) => {
    if (!drag) return;
    const perPixel = scene.scale / size.density;
    const total = { x: halves((event.clientX - drag.x) / perPixel), y: halves((event.clientY - drag.y) / perPixel) };
    const by = { x: total.x - drag.done.x, y: total.y - drag.done.y };
    if (by.x === 0 && by.y === 0) return;
    onMove(by, drag.gesture);
    setDrag({ ...drag, done: total });
  };
  return (
    <canvas
      ref={canvas}
      data-testid="origin-canvas"
      aria-label={`${frame.name} with its origin at ${frame.origin.x}, ${frame.origin.y}`}
      role="img"
      width={Math.round(size.width * size.density)}
      height={Math.round(size.height * size.density)}
      className="check block h-full w-full cursor-move touch-none"
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ gesture: `drag origin ${event.timeStamp}`, done: { x: 0, y: 0 }, x: event.clientX, y: event.clientY });
      }}
      onPointerMove={move}
      onPointerUp={() => setDrag(null)}
      onPointerCancel={() => setDrag(null)}
    />
  );
}

function paint(context: CanvasRenderingContext2D, frame: PlayedFrame, ghosts: readonly PlayedFrame[], scene: StageScene): void {
  const { width, height } = context.canvas;
  const inks = stageInks(context.canvas);
  context.clearRect(0, 0, width, height);
  context.imageSmoothingEnabled = false;
  const box = frameOnStage(frame, scene, { held: "frame" });
  const origin = { x: box.x + Math.round(frame.origin.x * scene.scale), y: box.y + Math.round(frame.origin.y * scene.scale) };
  for (const ghost of ghosts) {
    const picture = pictureNow(ghost.look);
    if (!picture) continue;
    const drawn = ghostPicture(ghost, picture.bitmap, inks.before, "outline");
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

function outline(context: CanvasRenderingContext2D, { x, y, w, h }: Rect, ink: string): void {
  context.strokeStyle = ink;
  context.globalAlpha = 0.35;
  context.strokeRect(x - 0.5, y - 0.5, w + 1, h + 1);
  context.globalAlpha = 1;
}
