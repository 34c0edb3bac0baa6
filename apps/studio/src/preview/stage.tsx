"use client";

import { angleOf, facingToward } from "@caravan/core/facing";
import type { FramePoint } from "@caravan/core/model";
import { timeAt } from "@caravan/core/playback";
import { type PointerEvent, useEffect, useMemo, useRef } from "react";
import { loadPictures, usePictures } from "../project/pictures";
import { useElementSize } from "../ui/element-size";
import { usePinch } from "../ui/pinch";
import { onThemeChange, themeNow } from "../ui/theme-now";
import { useWheelSteps } from "../ui/wheel-steps";
import type { Clock } from "./clock";
import { looksOfStill } from "./draw-frame";
import { useHiddenLayers } from "./hidden-layers";
import type { ShownMarks } from "./marks-scene";
import { frameShown, hangingAt, paintFigure, paintGround } from "./paint-stage";
import { timelineOfPlaying, usePlayer } from "./player-state";
import type { Playing } from "./playing";
import { stageInks } from "./stage-inks";
import { castOf, fittingZoom, reachOf, reachWithParts, type StageScene, stageScene } from "./stage-scene";

/** Radius around the figure's centre, in CSS pixels, in which the pointer gives no direction. */
const NO_DIRECTION = 8;

/**
 * Draws what is playing at a clock's time, whenever that changes the picture. An action turns toward the pointer. Dragging moves the
 * figure; on touch, one finger turns an action and two move it. The player's reading below describes the canvas.
 */
export function Stage({
  playing,
  clock,
  marks,
  onZoom,
  onWheelZoom,
  onDoubleClick,
  onColour,
}: {
  playing: Playing | null;
  clock: Clock;
  /** Boxes and points over the figure. */
  marks: ShownMarks | null;
  onZoom: (shown: number) => void;
  /** The wheel, or two fingers, ask for the next zoom in a direction. */
  onWheelZoom: (direction: 1 | -1) => void;
  onDoubleClick: () => void;
  /** Set while a colour is being picked from the art. */
  onColour: ((colour: string) => void) | null;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(canvas);
  const held = usePlayer((state) => state.held);
  const zoom = usePlayer((state) => state.zoom);
  const ground = usePlayer((state) => state.ground);
  const reach = useMemo(() => reachWithParts(reachOf(castOf(playing), held), playing), [playing, held]);
  const shownZoom = zoom ?? fittingZoom(reach, size.width - 16, size.height - 24);
  const pan = usePlayer((state) => state.pan);
  const scene = useMemo(
    () => moved(stageScene(reach, shownZoom, size.width, size.height, size.density), pan, size.density),
    [reach, shownZoom, size, pan],
  );
  /** Where a drag began, and how far the figure had been moved until then. */
  const drag = useRef<{ readonly from: FramePoint; readonly pan: FramePoint; readonly meant: boolean } | null>(null);

  useEffect(() => onZoom(shownZoom), [onZoom, shownZoom]);
  useWheelSteps(canvas, onWheelZoom);
  usePinch(canvas, {
    onZoom: onWheelZoom,
    onPan: (dx, dy) => usePlayer.setState(({ pan: { x, y } }) => ({ pan: { x: x + dx, y: y + dy } })),
  });

  useEffect(() => {
    const hanging = (playing?.turning?.poses ?? (playing ? [playing] : [])).flatMap((pose) => pose.hanging?.frames ?? []);
    loadPictures([...castOf(playing).flatMap(({ frames }) => frames.flatMap((frame) => frame ?? [])), ...hanging].flatMap(looksOfStill));
  }, [playing]);

  useEffect(() => {
    let request = 0;
    let painted: readonly unknown[] = [];
    const draw = () => {
      cancelAnimationFrame(request);
      request = 0;
      const context = canvas.current?.getContext("2d");
      const seen = allThatIsSeen(playing, clock.getState().elapsed, scene, marks);
      if (!context || seen.every((each, k) => each === painted[k])) return;
      paint(context, playing, clock.getState().elapsed, scene, marks);
      painted = seen;
    };
    const soon = () => {
      if (request === 0) request = requestAnimationFrame(draw);
    };
    soon();
    // Drawn at once when time moves, in the same display frame as everything else that follows the clock.
    const stops = [
      onThemeChange(soon),
      clock.subscribe(draw),
      usePlayer.subscribe(soon),
      usePictures.subscribe(soon),
      useHiddenLayers.subscribe(soon),
    ];
    return () => {
      cancelAnimationFrame(request);
      for (const stop of stops) stop();
    };
  }, [playing, clock, scene, marks]);

  const turn = (event: PointerEvent<HTMLCanvasElement>) => {
    if (drag.current) {
      const { from, pan: before, meant } = drag.current;
      const by = { x: event.clientX - from.x, y: event.clientY - from.y };
      if (!meant && Math.hypot(by.x, by.y) < MEANT) return;
      drag.current = { from, pan: before, meant: true };
      usePlayer.setState({ pan: { x: before.x + by.x, y: before.y + by.y } });
      return;
    }
    const turning = playing?.turning;
    if (!turning || onColour) return;
    const box = event.currentTarget.getBoundingClientRect();
    const middle = middleOf(scene, reach);
    const dx = event.clientX - box.left - middle.x / size.density;
    const dy = event.clientY - box.top - middle.y / size.density;
    const angle = Math.hypot(dx, dy) < NO_DIRECTION ? null : angleOf(dx, dy);
    if (angle === null) return;
    const facing = facingToward(angle, turning.ways, usePlayer.getState().facing);
    if (facing !== usePlayer.getState().facing) usePlayer.setState({ facing });
  };

  return (
    <canvas
      ref={canvas}
      data-testid="stage"
      aria-hidden
      width={Math.round(size.width * size.density)}
      height={Math.round(size.height * size.density)}
      className={`block h-full w-full touch-none ${ground === "flat" ? "bg-flat" : "check"} ${onColour ? "cursor-crosshair" : "active:cursor-grabbing"}`}
      onPointerDown={(event) => {
        if (event.button !== 0 || onColour || (event.pointerType === "touch" && playing?.turning)) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { from: { x: event.clientX, y: event.clientY }, pan, meant: false };
      }}
      onPointerMove={turn}
      onPointerUp={() => {
        drag.current = null;
      }}
      onPointerCancel={() => {
        drag.current = null;
      }}
      onDoubleClick={() => !onColour && onDoubleClick()}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const at = [event.clientX - box.left, event.clientY - box.top].map((each) => Math.floor(each * size.density));
        const context = event.currentTarget.getContext("2d");
        const [red = 0, green = 0, blue = 0, alpha = 0] = context?.getImageData(at[0] as number, at[1] as number, 1, 1).data ?? [];
        if (onColour && alpha > 0) onColour(`#${[red, green, blue].map((each) => each.toString(16).padStart(2, "0")).join("")}`);
      }}
    />
  );
}

/** The scene with its standing point moved, in CSS pixels. */
function moved({ scale, standing }: StageScene, { x, y }: FramePoint, density: number): StageScene {
  return { scale, standing: { x: standing.x + Math.round(x * density), y: standing.y + Math.round(y * density) } };
}

/** A press that moves less than this, in CSS pixels, is a click. */
const MEANT = 4;

/** The figure's centre on the stage, in device pixels: directions are relative to it, as a person sees them. */
function middleOf({ standing, scale }: StageScene, { up, down }: ReturnType<typeof reachOf>): { x: number; y: number } {
  return { x: standing.x, y: standing.y + ((down - up) * scale) / 2 };
}

/** Everything that a painting depends on: while it is the same the canvas is not repainted, which saves most of the work. */
function allThatIsSeen(playing: Playing | null, elapsed: number, scene: StageScene, marks: ShownMarks | null): readonly unknown[] {
  const timeline = playing && timelineOfPlaying(playing);
  const now = timeAt({ elapsed });
  return [
    playing,
    scene,
    marks,
    usePlayer.getState(),
    useHiddenLayers.getState().hidden,
    usePictures.getState().entries,
    timeline?.spanAt(now).at,
    timeline?.shownAt(now).visible,
    themeNow(),
    playing?.hanging &&
      hangingAt(playing, elapsed)
        .map(({ name, frame, mirror, x, y, front, angle }) => `${name} ${frame.ref} ${mirror} ${x} ${y} ${front} ${angle}`)
        .join("\n"),
  ];
}

function paint(
  context: CanvasRenderingContext2D,
  playing: Playing | null,
  elapsed: number,
  scene: StageScene,
  marks: ShownMarks | null,
): void {
  const look = usePlayer.getState();
  paintGround(context, scene, look);
  context.canvas.dataset.frame = playing ? (frameShown(playing, elapsed)?.name ?? "") : "";
  context.canvas.dataset.parts = playing
    ? hangingAt(playing, elapsed)
        .map(
          ({ name, frame, x, y, front, angle }) =>
            `${name} ${frame.name} ${x},${y} ${front ? "front" : "behind"}${angle ? ` ${angle}°` : ""}`,
        )
        .join("; ")
    : "";
  context.canvas.dataset.facing = playing?.turning?.shown ?? "";
  if (playing && context.canvas.width > 0) paintFigure(context, playing, elapsed, scene, look, stageInks(context.canvas), marks);
}
