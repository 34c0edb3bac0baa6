/** Drawing zones and platforms on the stage. */
import { setStage } from "@caravan/core/edit";
import { type Area, freeName, type Stage } from "@caravan/core/model";
import { type PointerEvent, useRef } from "react";
import { create } from "zustand";
import { act } from "../../project/act";
import { worldPoint } from "./world-point";

interface Drawing {
  /** What the next drag on the stage draws; null while the pointer leads the figure. */
  readonly drawing: "zone" | "platform" | null;
  /** The zone that is worked on, by name. */
  readonly chosen: string | null;
}

export const useDrawing = create<Drawing>(() => ({ drawing: null, chosen: null }));

/** Areas narrower or lower than this, in px of the game, are a click and not a drag. */
const LEAST = 3;

/** What a drag on the stage does while something is to be drawn. */
export function useDrawnArea(canvas: React.RefObject<HTMLCanvasElement | null>, stage: Stage, scale: number) {
  const from = useRef<{ x: number; y: number } | null>(null);
  const pointOf = (event: PointerEvent<HTMLCanvasElement>) => {
    const { x, y } = worldPoint(event, canvas.current, stage, scale);
    return { x: Math.round(x), y: Math.round(y) };
  };
  return {
    onPointerDown: (event: PointerEvent<HTMLCanvasElement>) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = pointOf(event);
    },
    onPointerMove: () => {},
    onPointerUp: (event: PointerEvent<HTMLCanvasElement>) => {
      const start = from.current;
      from.current = null;
      if (!start) return;
      const end = pointOf(event);
      const area: Area = {
        x: Math.min(start.x, end.x),
        y: Math.min(start.y, end.y),
        w: Math.abs(end.x - start.x),
        h: Math.abs(end.y - start.y),
      };
      if (area.w < LEAST || area.h < LEAST) return;
      const { drawing } = useDrawing.getState();
      if (drawing) putArea(stage, drawing, area);
      useDrawing.setState({ drawing: null });
    },
    onPointerCancel: () => {
      from.current = null;
    },
  };
}

/** Puts a zone or a platform on the stage. */
export function putArea(stage: Stage, what: "zone" | "platform", area: Area): void {
  if (what === "platform") act(setStage, stage.name, { platforms: [...stage.platforms, area] });
  if (what === "zone") {
    const name = freeName("zone", new Set(stage.zones.map((each) => each.name)), " ");
    if (act(setStage, stage.name, { zones: [...stage.zones, { name, area, on: "entering" }] })) useDrawing.setState({ chosen: name });
  }
}
