/** Draws new zones and platforms on the stage, and moves existing ones. */
import { setStage } from "@caravan/core/edit";
import { type Area, freeName, type Stage } from "@caravan/core/model";
import { type PointerEvent, useRef } from "react";
import { create } from "zustand";
import { act } from "../../project/act";
import { draggedArea, type Grab, grabAt, LEAST_SIDE, stageWith } from "./grab";
import { useSession } from "./session";
import { worldPoint } from "./world-point";

interface Drawing {
  /** What the next drag on the stage draws; null while the pointer leads the figure. */
  readonly drawing: "zone" | "platform" | null;
  /** Whether drags move things on the stage, until that ends. */
  readonly moving: boolean;
  /** What is held, and its current position; the project is updated on release. */
  readonly held: { readonly grab: Grab; readonly area: Area } | null;
  /** The zone that is worked on, by name. */
  readonly chosen: string | null;
}

export const useDrawing = create<Drawing>(() => ({ drawing: null, moving: false, held: null, chosen: null }));

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
      if (area.w < LEAST_SIDE || area.h < LEAST_SIDE) return;
      const { drawing } = useDrawing.getState();
      if (drawing) putArea(stage, drawing, area);
      useDrawing.setState({ drawing: null });
    },
    onPointerCancel: () => {
      from.current = null;
    },
  };
}

/** The distance from an edge, in CSS pixels, at which the pointer takes it. */
const REACH = 6;

/** What a drag on the stage does in moving mode. */
export function useMovedThings(canvas: React.RefObject<HTMLCanvasElement | null>, stage: Stage, scale: number) {
  const pointOf = (event: PointerEvent<HTMLCanvasElement>) => worldPoint(event, canvas.current, stage, scale);
  const letGo = () => useDrawing.setState({ held: null });
  return {
    onPointerDown: (event: PointerEvent<HTMLCanvasElement>) => {
      const { setting } = useSession.getState();
      const grab = event.button === 0 && setting ? grabAt(setting, pointOf(event), REACH / scale) : null;
      if (!grab) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const { list, place, area } = grab;
      useDrawing.setState({ held: { grab, area }, chosen: list === "zones" ? (stage.zones[place]?.name ?? null) : null });
    },
    onPointerMove: (event: PointerEvent<HTMLCanvasElement>) => {
      const { held } = useDrawing.getState();
      if (held) useDrawing.setState({ held: { ...held, area: draggedArea(held.grab, pointOf(event)) } });
    },
    onPointerUp: () => {
      const { held } = useDrawing.getState();
      letGo();
      if (!held) return;
      const { list } = held.grab;
      act(setStage, stage.name, { [list]: stageWith(stage, held.grab, held.area)[list] });
    },
    onPointerCancel: letGo,
    onLostPointerCapture: letGo,
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
