"use client";

import { useEffect, useMemo, useRef } from "react";
import { looksOfStill } from "../../../preview/draw-frame";
import { useHiddenLayers } from "../../../preview/hidden-layers";
import { frameShown, paintFigure, paintGround } from "../../../preview/paint-stage";
import { timelineOfPlaying, usePlayer, usePlayerClock } from "../../../preview/player-state";
import type { Playing } from "../../../preview/playing";
import { stageInks } from "../../../preview/stage-inks";
import { castOf, fittingZoom, reachOf, stageScene } from "../../../preview/stage-scene";
import { loadPictures, usePictures } from "../../../project/pictures";
import { useElementSize } from "../../../ui/element-size";
import { onThemeChange } from "../../../ui/theme-now";
import { type InStep, type Lane, laneTime } from "./lanes";

export interface ShownLane {
  readonly lane: Lane;
  readonly playing: Playing;
  readonly note: string | null;
}

/** All lanes at one zoom, on one ground line, driven by the player's time. */
export function CompareStage({ lanes, inStep, overlaid }: { lanes: readonly ShownLane[]; inStep: InStep; overlaid: boolean }) {
  return (
    <div className="flex h-full w-full">
      {overlaid ? (
        <LaneCanvas lanes={lanes} all={lanes} inStep={inStep} />
      ) : (
        lanes.map((each, k) => (
          <div key={k} className="relative h-full min-w-0 grow basis-0 not-first:border-l not-first:border-line">
            <LaneCanvas lanes={[each]} all={lanes} inStep={inStep} />
            <p className="pointer-events-none absolute inset-x-1.5 top-1.5 flex">
              <span className="truncate rounded-box bg-raised px-1.5 text-small">
                {each.playing.title}
                {inStep === "time" && each.lane.speed !== 1 && ` ${each.lane.speed}×`}
                {each.note && ` · ${each.note}`}
              </span>
            </p>
          </div>
        ))
      )}
    </div>
  );
}

function LaneCanvas({ lanes, all, inStep }: { lanes: readonly ShownLane[]; all: readonly ShownLane[]; inStep: InStep }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(canvas);
  const held = usePlayer((state) => state.held);
  const ground = usePlayer((state) => state.ground);
  // Of all lanes, so that relative sizes are visible.
  const reach = useMemo(
    () =>
      reachOf(
        all.flatMap(({ playing }) => castOf(playing)),
        held,
      ),
    [all, held],
  );
  const scene = useMemo(
    () => stageScene(reach, fittingZoom(reach, size.width - 12, size.height - 32), size.width, size.height, size.density),
    [reach, size],
  );
  useEffect(() => {
    loadPictures(lanes.flatMap(({ playing }) => playing.steps.flatMap(({ frame }) => (frame ? looksOfStill(frame) : []))));
  }, [lanes]);
  useEffect(() => {
    const draw = () => {
      const context = canvas.current?.getContext("2d");
      const [lead] = all;
      if (!context || !lead || context.canvas.width === 0) return;
      const look = usePlayer.getState();
      const inks = stageInks(context.canvas);
      const { elapsed } = usePlayerClock.getState();
      paintGround(context, scene, look);
      const told: string[] = [];
      for (const [k, { lane, playing }] of lanes.entries()) {
        const t = laneTime(elapsed, lane, timelineOfPlaying(playing), inStep, timelineOfPlaying(lead.playing));
        context.globalAlpha = k === 0 ? 1 : 0.5;
        // Ghosts and crosses of several overlaid clips would hide what is compared.
        const plain = lanes.length > 1 && k > 0 ? { ...look, origin: false, ghostsBefore: 0, ghostsAfter: 0 } : look;
        paintFigure(context, playing, t, scene, plain, inks);
        told.push(`${frameShown(playing, t)?.name ?? ""}@${t}`);
      }
      context.globalAlpha = 1;
      // What was drawn and for which time: read back by the bench.
      context.canvas.dataset.drawn = told.join(" ");
    };
    draw();
    // Drawn when the player's time moves, and so in the same picture of the display as the player itself.
    const stops = [
      onThemeChange(draw),
      usePlayerClock.subscribe(draw),
      usePlayer.subscribe(draw),
      usePictures.subscribe(draw),
      useHiddenLayers.subscribe(draw),
    ];
    return () => {
      for (const stop of stops) stop();
    };
  }, [lanes, all, inStep, scene]);
  return (
    <canvas
      ref={canvas}
      data-testid="lane"
      role="img"
      aria-label={lanes.map(({ playing, note }) => `${playing.title}${note ? ` ${note}` : ""}`).join(" over ")}
      width={Math.round(size.width * size.density)}
      height={Math.round(size.height * size.density)}
      className={`block h-full w-full ${ground === "flat" ? "bg-flat" : "check"}`}
    />
  );
}
