/**
 * Paints boxes, points and outlines over a frame. Each kind has its own line pattern and letter, so that they differ without colour;
 * every line has a light or dark edge, so that it shows on any art.
 */
import type { FramePoint, MarkKind, MarkShape } from "@caravan/core/model";
import { type MarkOnStage, marksOnStage, type OnStage, type ShownMarks } from "./marks-scene";
import type { PlayedFrame } from "./playing";
import type { StageInks } from "./stage-inks";
import type { HeldStill, StageScene } from "./stage-scene";

/** Dashes and gaps of each line, in CSS pixels. */
const DASHES: Record<MarkKind["line"], readonly number[]> = {
  solid: [],
  dashes: [7, 4],
  dots: [2, 3],
  "long and short": [11, 3, 3, 3],
};

/** Which of the chosen kind's boxes has handles, and which corner of its outlines is chosen. */
export interface Handles {
  readonly box: number;
  readonly corner: { readonly outline: number; readonly corner: number } | null;
}

const RING = 5; // CSS px, of a point
/** How far from a point the end of its pointer is, in CSS pixels. */
export const POINTER = 26;

export function paintMarks(
  context: CanvasRenderingContext2D,
  frame: PlayedFrame,
  scene: StageScene,
  shown: ShownMarks,
  inks: StageInks,
  placed: { readonly held: HeldStill; readonly mirror: boolean },
  handles: Handles | null = null,
): void {
  const { chosen } = shown;
  for (const mark of marksOnStage(frame, shown, scene, placed)) {
    const stressed = mark.kind.name === chosen;
    const colour = stressed ? inks.now : "white";
    outlined(context, mark, colour, stressed);
    if (stressed && mark.shape === "box" && mark.index === handles?.box) paintHandles(context, mark, inks.now);
    if (stressed && mark.shape === "outline" && handles) paintCorners(context, mark, inks.now, handles.corner);
    paintTag(context, mark, colour);
  }
}

function outlined(context: CanvasRenderingContext2D, mark: MarkOnStage, colour: string, stressed: boolean): void {
  const density = Math.max(1, Math.round(devicePixelRatio));
  const width = (stressed ? 2 : 1) * density;
  // Lines of odd width are centred on pixels, so that none is half covered.
  const half = (width % 2) / 2;
  const line = () => {
    context.beginPath();
    painterOf(mark).trace(context, mark, half, density);
    context.stroke();
  };
  context.strokeStyle = "black";
  context.lineWidth = width + 2 * density;
  line();
  context.strokeStyle = colour;
  context.lineWidth = width;
  context.setLineDash(DASHES[mark.kind.line].map((each) => each * density));
  line();
  context.setLineDash([]);
  painterOf(mark).finish?.(context, mark, density, colour);
}

interface Painter<Mark> {
  /** Adds its outline to the path; `half` puts lines of an odd width into the middle of pixels. */
  trace(context: CanvasRenderingContext2D, mark: Mark, half: number, density: number): void;
  finish?(context: CanvasRenderingContext2D, mark: Mark, density: number, colour: string): void;
  /** The upper left corner of its tag, whose sides are `side` long. */
  tagAt(mark: Mark, side: number, density: number): FramePoint;
}

/** How marks of each shape are painted. */
const PAINTERS: { readonly [Shape in MarkShape]: Painter<OnStage<Shape>> } = {
  box: {
    trace: (context, { rect: { x, y, w, h } }, half) => context.rect(x + half, y + half, w, h),
    tagAt: ({ rect }, side, density) => ({ x: rect.x - 1.5 * density, y: rect.y - side }),
  },
  outline: {
    trace(context, { corners }, half) {
      for (const { x, y } of corners) context.lineTo(x + half, y + half);
      context.closePath();
    },
    tagAt({ corners }, side, density) {
      const top = corners.reduce((best, each) => (each.y < best.y || (each.y === best.y && each.x < best.x) ? each : best));
      return { x: top.x - 1.5 * density, y: top.y - side };
    },
  },
  point: {
    trace: (context, { at }, _half, density) => context.arc(at.x, at.y, RING * density, 0, 2 * Math.PI),
    finish(context, { at, angle }, density, colour) {
      context.fillStyle = "black";
      context.fillRect(at.x - 1.5 * density, at.y - 1.5 * density, 3 * density, 3 * density);
      if (angle !== undefined) paintPointer(context, at, angle, density, colour);
    },
    tagAt({ at, angle }, side, density) {
      // Beside a pointer, not on it.
      const isPointedAt = angle !== undefined && angle > 250;
      return { x: isPointedAt ? at.x - (RING + 2) * density - side : at.x + (RING + 2) * density, y: at.y - side - 2 * density };
    },
  },
};

/** From the ring of a point in its direction; the small square at its end can be dragged. */
function paintPointer(context: CanvasRenderingContext2D, at: FramePoint, angle: number, density: number, colour: string): void {
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const end = { x: at.x + cos * POINTER * density, y: at.y + sin * POINTER * density };
  const line = (width: number, style: string) => {
    context.strokeStyle = style;
    context.lineWidth = width * density;
    context.beginPath();
    context.moveTo(at.x + cos * RING * density, at.y + sin * RING * density);
    context.lineTo(end.x, end.y);
    context.stroke();
  };
  line(4, "black");
  line(2, colour);
  paintHandle(context, end.x, end.y, 7 * density, colour);
}

function painterOf(mark: MarkOnStage): Painter<MarkOnStage> {
  return PAINTERS[mark.shape] as Painter<MarkOnStage>;
}

/** The kind's letter at the box's top-left corner, or beside the point; never mirrored. */
function paintTag(context: CanvasRenderingContext2D, mark: MarkOnStage, colour: string): void {
  const density = devicePixelRatio;
  const side = 13 * density;
  const { x, y } = painterOf(mark).tagAt(mark, side, density);
  context.fillStyle = "black";
  context.fillRect(x, y, side, side);
  context.fillStyle = colour;
  context.font = `bold ${11 * density}px ${getComputedStyle(context.canvas).fontFamily}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  context.fillText(mark.kind.letter, x + side / 2, y + side / 2 + density);
}

/** A small handle on every corner, a larger one on the chosen. */
function paintCorners(
  context: CanvasRenderingContext2D,
  { corners, index }: OnStage<"outline">,
  colour: string,
  chosen: Handles["corner"],
): void {
  for (const [k, { x, y }] of corners.entries())
    paintHandle(context, x, y, (chosen?.outline === index && chosen.corner === k ? 10 : 6) * devicePixelRatio, colour);
}

function paintHandle(context: CanvasRenderingContext2D, x: number, y: number, side: number, colour: string): void {
  context.fillStyle = "black";
  context.fillRect(x - side / 2, y - side / 2, side, side);
  context.fillStyle = colour;
  context.fillRect(x - side / 2 + 1.5, y - side / 2 + 1.5, side - 3, side - 3);
}

function paintHandles(context: CanvasRenderingContext2D, mark: OnStage<"box">, colour: string): void {
  const { x, y, w, h } = mark.rect;
  const side = 7 * devicePixelRatio;
  for (const [cx, cy] of [
    [x, y],
    [x + w, y],
    [x, y + h],
    [x + w, y + h],
  ] as const)
    paintHandle(context, cx, cy, side, colour);
}
