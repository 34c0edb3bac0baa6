/** The stage of the page: as large as fits in whole steps, or as chosen, on a chosen backdrop. */
import type { Delivery } from "./delivery";
import { drawFrame, drawMarks, frameNamed, type Reach } from "./draw";
import type { Shown } from "./playing";

export const GROUNDS = [
  ["sand", "sand"],
  ["night", "night"],
  ["white", "white"],
  ["checked", "chequered"],
] as const;
export type Ground = (typeof GROUNDS)[number][0];

export interface Look {
  readonly ground: Ground;
  /** Pixels of the screen for one of the art; null for as many as fit. */
  readonly zoom: number | null;
  readonly marks: boolean;
  readonly origin: boolean;
}

const COLOURS = { sand: "#ead9b8", night: "#1d1b24", white: "#ffffff" } as const;
/** Room around the figure, in pixels of the screen. */
const AIR = 16;

/** The largest whole number of screen pixels at which all of it fits; at least 1. */
export function fittingZoom({ side, above, below }: Reach, width: number, height: number): number {
  return Math.max(1, Math.floor(Math.min((width - AIR) / (side * 2), (height - AIR) / (above + below))));
}

/** Draws what shows on the whole canvas; answers the zoom it is seen at. */
export function drawStage(canvas: HTMLCanvasElement, delivery: Delivery, shown: Shown, reach: Reach, look: Look): number {
  const dense = devicePixelRatio || 1;
  const { width, height } = fitted(canvas, dense);
  const context = canvas.getContext("2d") as CanvasRenderingContext2D;
  const zoom = look.zoom === null ? fittingZoom(reach, width, height) : look.zoom * dense;
  context.resetTransform();
  drawGround(context, look.ground, width, height, dense);
  // The origin is placed so that the figure's whole reach is centred, on a whole screen pixel.
  const y = Math.round(height / 2 + ((reach.above - reach.below) / 2) * zoom);
  context.setTransform(zoom, 0, 0, zoom, Math.round(width / 2), y);
  const line = dense / zoom;
  if (look.origin) {
    context.fillStyle = "#d4811e";
    context.fillRect(-width, -line / 2, width * 2, line);
  }
  if (shown.visible && shown.frame !== null) {
    const parts = (front: boolean) => {
      for (const part of shown.parts) if (part.front === front) drawFrame(context, delivery, { ...part, angle: part.angle ?? 0 });
    };
    parts(false);
    drawFrame(context, delivery, { frame: shown.frame, mirror: shown.mirror, x: 0, y: 0, angle: 0 });
    parts(true);
    const told = frameNamed(delivery.atlas, shown.frame);
    if (look.marks && told) drawMarks(context, told, shown.mirror, line);
  }
  if (look.origin) {
    context.fillStyle = "#d4811e";
    context.fillRect(-line / 2, -line * 7, line, line * 14);
  }
  return zoom / dense;
}

/** Aligns the canvas to whole screen pixels: otherwise every art pixel would be smeared over two. */
function fitted(canvas: HTMLCanvasElement, dense: number): { width: number; height: number } {
  const around = (canvas.parentElement as HTMLElement).getBoundingClientRect();
  const [left, top] = [Math.ceil(around.left * dense), Math.ceil(around.top * dense)];
  const width = Math.max(1, Math.floor(around.right * dense) - left);
  const height = Math.max(1, Math.floor(around.bottom * dense) - top);
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  Object.assign(canvas.style, {
    left: `${left / dense - around.left}px`,
    top: `${top / dense - around.top}px`,
    width: `${width / dense}px`,
    height: `${height / dense}px`,
  });
  return { width, height };
}

function drawGround(context: CanvasRenderingContext2D, ground: Ground, width: number, height: number, dense: number): void {
  context.fillStyle = ground === "checked" ? "#f4f1ea" : COLOURS[ground];
  context.fillRect(0, 0, width, height);
  if (ground !== "checked") return;
  const side = Math.round(12 * dense);
  context.fillStyle = "#ddd6c8";
  for (let y = 0; y * side < height; y++) for (let x = y % 2; x * side < width; x += 2) context.fillRect(x * side, y * side, side, side);
}
