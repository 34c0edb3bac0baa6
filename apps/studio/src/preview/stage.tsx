"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { loadPictures, pictureNow } from "../project/pictures";
import { drawStill } from "./draw-frame";
import { timelineOfPlaying, usePlayer, usePlayhead } from "./player-state";
import type { PlayedFrame, Playing } from "./playing";
import { fittingZoom, frameOnStage, reachOf, stageScene } from "./stage-scene";

/**
 * Draws what is playing, at every refresh of the display. Time is real time: after a stall it catches up.
 * What the canvas shows is told in words beneath it, by the player's reading.
 */
export function Stage({ playing, onZoom }: { playing: Playing | null; onZoom: (shown: number) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0, density: 1 });
  const reach = useMemo(() => reachOf(playing?.steps.map((step) => step.frame) ?? []), [playing]);
  const zoom = usePlayer((state) => state.zoom);
  const ground = usePlayer((state) => state.ground);
  const shownZoom = zoom ?? fittingZoom(reach, size.width - 16, size.height - 24);

  useEffect(() => onZoom(shownZoom), [onZoom, shownZoom]);

  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const measure = new ResizeObserver(() => {
      const { clientWidth: width, clientHeight: height } = element;
      setSize({ width, height, density: devicePixelRatio });
    });
    measure.observe(element);
    return () => measure.disconnect();
  }, []);

  useEffect(() => {
    loadPictures(playing?.steps.flatMap((step) => (step.frame ? [step.frame.look] : [])) ?? []);
  }, [playing]);

  // Another thing to play starts at its beginning; an edit of the same thing goes on where it is.
  const key = playing?.key;
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the change of key that starts over
  useEffect(() => usePlayhead.setState({ elapsed: 0 }), [key]);

  useEffect(() => {
    let last = performance.now();
    let request = 0;
    const tick = (now: number) => {
      const { running, speed } = usePlayer.getState();
      if (running && playing) usePlayhead.setState(({ elapsed }) => ({ elapsed: elapsed + Math.max(0, now - last) * 1000 * speed }));
      last = now;
      request = requestAnimationFrame(tick);
      const context = canvas.current?.getContext("2d");
      if (context) paint(context, playing, size, shownZoom, reach);
    };
    request = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(request);
  }, [playing, size, shownZoom, reach]);

  return (
    <canvas
      ref={canvas}
      data-testid="stage"
      aria-hidden
      width={Math.round(size.width * size.density)}
      height={Math.round(size.height * size.density)}
      className={`block h-full w-full ${ground === "check" ? "check" : "bg-flat"}`}
    />
  );
}

function paint(
  context: CanvasRenderingContext2D,
  playing: Playing | null,
  { width, height, density }: { width: number; height: number; density: number },
  zoom: number,
  reach: ReturnType<typeof reachOf>,
): void {
  context.clearRect(0, 0, width * density, height * density);
  if (!playing || width === 0) return;
  const scene = stageScene(reach, zoom, width, height, density);
  const shown = timelineOfPlaying(playing).shownAt(Math.round(usePlayhead.getState().elapsed));
  const frame = shown.visible ? (playing.steps[shown.step]?.frame ?? null) : null;
  context.canvas.dataset.frame = frame?.name ?? "";
  const { origin } = usePlayer.getState();
  const ink = getComputedStyle(context.canvas).getPropertyValue("color");
  if (origin) paintGround(context, scene.standing.y, width * density, density, ink);
  if (frame) paintFrame(context, frame, frameOnStage(frame, scene), scene.scale);
  if (origin) paintOrigin(context, scene.standing, density);
}

function paintFrame(context: CanvasRenderingContext2D, frame: PlayedFrame, at: { x: number; y: number }, scale: number): void {
  const picture = pictureNow(frame.look);
  if (!picture) return;
  context.imageSmoothingEnabled = false;
  drawStill(context, picture.bitmap, frame, at.x, at.y, scale);
}

function paintGround(context: CanvasRenderingContext2D, y: number, width: number, density: number, ink: string): void {
  context.strokeStyle = ink;
  context.globalAlpha = 0.5;
  context.lineWidth = density;
  context.setLineDash([4 * density, 4 * density]);
  context.beginPath();
  context.moveTo(0, y + density / 2);
  context.lineTo(width, y + density / 2);
  context.stroke();
  context.setLineDash([]);
  context.globalAlpha = 1;
}

/** A cross through the origin, black with a light edge so that it is seen on any art. */
function paintOrigin(context: CanvasRenderingContext2D, { x, y }: { x: number; y: number }, density: number): void {
  const arm = 6 * density;
  const cross = () => {
    context.beginPath();
    context.moveTo(x - arm, y);
    context.lineTo(x + arm, y);
    context.moveTo(x, y - arm);
    context.lineTo(x, y + arm);
    context.stroke();
  };
  context.strokeStyle = "white";
  context.lineWidth = 3 * density;
  cross();
  context.strokeStyle = "black";
  context.lineWidth = density;
  cross();
}
