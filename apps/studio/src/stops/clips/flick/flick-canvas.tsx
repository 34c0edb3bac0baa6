"use client";

import { useEffect, useMemo, useRef } from "react";
import { useHiddenLayers } from "../../../preview/hidden-layers";
import { paintFrame, paintOrigin } from "../../../preview/paint-stage";
import { usePlayer } from "../../../preview/player-state";
import type { PlayedFrame } from "../../../preview/playing";
import { fittingZoom, reachOf, stageScene } from "../../../preview/stage-scene";
import { usePictures } from "../../../project/pictures";
import { useElementSize } from "../../../ui/element-size";
import { nameAnd, t } from "../../../ui/words";
import type { Compared } from "./compare-frames";

/** Draws one of two frames at their shared place, with the differing pixels hatched on top. */
export function FlickCanvas({
  shown,
  both,
  compared,
  marked,
}: {
  shown: PlayedFrame;
  both: readonly PlayedFrame[];
  compared: Compared | null;
  marked: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useElementSize(canvas);
  const held = usePlayer((state) => state.held);
  const entries = usePictures((state) => state.entries);
  const hidden = useHiddenLayers((state) => state.hidden);
  const reach = useMemo(() => reachOf([{ frames: both, mirror: false }], held), [both, held]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: painted again when a picture has come
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || size.width === 0) return;
    const zoom = Math.max(1, Math.floor(fittingZoom(reach, size.width - 40, size.height - 40)));
    const scene = stageScene(reach, zoom, size.width, size.height, size.density);
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    context.canvas.dataset.frame = shown.name;
    paintFrame(context, shown, scene, held, false);
    if (marked && compared) {
      context.fillStyle = hatch(context);
      const left = scene.standing.x - Math.round(reach.left) * scene.scale;
      const top = scene.standing.y - Math.round(reach.up) * scene.scale;
      for (let y = 0; y < compared.height; y++)
        for (let x = 0; x < compared.width; x++)
          if (compared.mask[y * compared.width + x])
            context.fillRect(left + x * scene.scale, top + y * scene.scale, scene.scale, scene.scale);
    }
    paintOrigin(context, scene.standing);
  }, [shown, reach, compared, marked, held, size, entries, hidden]);
  return (
    <canvas
      ref={canvas}
      data-testid="flick"
      role="img"
      aria-label={nameAnd(shown.name, compared && t("{count} pixels differ", { count: compared.count }))}
      width={Math.round(size.width * size.density)}
      height={Math.round(size.height * size.density)}
      className="check block h-full w-full"
    />
  );
}

/** Stripes in two tones, seen on dark and on light art. */
function hatch(context: CanvasRenderingContext2D): CanvasPattern | string {
  const tile = document.createElement("canvas");
  tile.width = 4;
  tile.height = 4;
  const paint = tile.getContext("2d") as CanvasRenderingContext2D;
  for (let k = 0; k < 4; k++) {
    paint.fillStyle = "rgb(255 255 255 / 0.85)";
    paint.fillRect(k, k, 1, 1);
    paint.fillStyle = "rgb(168 65 46 / 0.95)";
    paint.fillRect((k + 2) % 4, k, 1, 1);
    paint.fillRect((k + 1) % 4, k, 1, 1);
  }
  return context.createPattern(tile, "repeat") ?? "rgb(168 65 46 / 0.7)";
}
