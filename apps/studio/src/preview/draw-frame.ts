/** Draws a frame as a game shows it: upright, in its place within its untrimmed size, at its source's scale. */

import { type FramePlace, frameLook, isNearest, type Look, layerLooks, type Stock } from "@caravan/core/art";
import {
  type Blend,
  drawnSize,
  type Frame,
  frameSize,
  type Rect,
  type Size,
  type Source,
  type Spacing,
  scaleOf,
} from "@caravan/core/model";
import { type Coverage, clearPixels, scaled } from "@caravan/core/raster";
import { pictureNow } from "../project/pictures";
import { t } from "../ui/words";
import { type HiddenLayers, useHiddenLayers } from "./hidden-layers";

/** One of the layers that a still is drawn from. */
export interface StillLayer {
  /** Null for the source's own picture. */
  readonly name: string | null;
  readonly look: Look;
  readonly blend: Blend;
}

/** A frame and what it is drawn from. */
export interface Still {
  /** Its figure, without light and shade. */
  readonly look: Look;
  /** The lowest first. */
  readonly layers: readonly StillLayer[];
  /** Its rectangle on the picture, as stored. */
  readonly rect: Rect;
  readonly turned: boolean | "counter";
  /** Untrimmed and upright, in project pixels. */
  readonly size: Size;
  /** Its untrimmed, upright size in art pixels, and the position of the drawn part. */
  readonly drawn: Size;
  readonly inset: Spacing;
  /** Project pixels for each pixel of the art. */
  readonly scale: number;
}

/** What a still is drawn from. */
export interface Drawable {
  readonly bitmap: ImageBitmap;
  readonly coverage: Pick<Coverage, "soft">;
}

const NO_INSET: Spacing = { x: 0, y: 0 };

export function stillOf(stock: Stock, source: Source, frame: FramePlace & Pick<Frame, "picture" | "pieces">): Still {
  const look = frameLook(stock, source, frame);
  return {
    look,
    layers: frame.pieces ? [{ name: null, look, blend: "normal" }] : layerLooks(stock, source, frame.picture),
    rect: frame.rect,
    turned: frame.turned ?? false,
    size: frameSize(source, frame),
    drawn: drawnSize(frame),
    inset: frame.inset ?? NO_INSET,
    scale: scaleOf(source),
  };
}

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** All looks needed to draw a still and to measure its drawing. */
export function looksOfStill({ look, layers }: Pick<Still, "look" | "layers">): Look[] {
  return [...new Set([look, ...layers.map((layer) => layer.look)])];
}

/** The canvas operation for a layer's blend mode. */
const OPERATIONS: Readonly<Record<Blend, GlobalCompositeOperation>> = { normal: "source-over", add: "lighter", multiply: "multiply" };

/** The visible layers of a still. */
export function shownLayers(
  { layers }: Pick<Still, "layers">,
  hidden: HiddenLayers = useHiddenLayers.getState().hidden,
): readonly StillLayer[] {
  return hidden.size === 0 ? layers : layers.filter(({ name }) => !hidden.has(name));
}

/**
 * Draws the visible layers of a still over the canvas, as a game does, with its untrimmed top-left corner at (x, y). Layers whose pictures
 * are not loaded yet are left out.
 */
export function paintStill(context: Context, still: Still, x: number, y: number, zoom: number): void {
  const before = context.globalCompositeOperation;
  for (const { look, blend } of shownLayers(still)) {
    const picture = pictureNow(look);
    if (!picture) continue;
    if (blend !== "normal") context.globalCompositeOperation = OPERATIONS[blend];
    drawStill(context, picture, still, x, y, zoom);
    context.globalCompositeOperation = before;
  }
}

/** Draws a still from one picture with the untrimmed frame's top-left corner at (x, y), each project pixel `zoom` large. */
export function drawStill(context: Context, picture: Drawable, still: Still, x: number, y: number, zoom: number): void {
  if (Number.isInteger(still.scale)) drawStored(context, picture.bitmap, still, x, y, zoom * still.scale);
  else context.drawImage(scaledStill(picture, still), x, y, still.size.w * zoom, still.size.h * zoom);
}

/** Straight from the picture, each pixel of the art `scale` large. */
function drawStored(
  context: Context,
  bitmap: ImageBitmap,
  { rect, turned, inset }: Pick<Still, "rect" | "turned" | "inset">,
  x: number,
  y: number,
  scale: number,
): void {
  const left = x + inset.x * scale;
  const top = y + inset.y * scale;
  const w = rect.w * scale;
  const h = rect.h * scale;
  if (!turned) {
    context.drawImage(bitmap, rect.x, rect.y, rect.w, rect.h, left, top, w, h);
    return;
  }
  context.save();
  if (turned === "counter") {
    // Stored rotated counter-clockwise, so it is turned on: its left edge becomes the top.
    context.translate(left + h, top);
    context.rotate(Math.PI / 2);
  } else {
    // Stored rotated clockwise, so it is turned back: its right edge becomes the top.
    context.translate(left, top + w);
    context.rotate(-Math.PI / 2);
  }
  context.drawImage(bitmap, rect.x, rect.y, rect.w, rect.h, 0, 0, w, h);
  context.restore();
}

/** Stills at a broken scale, by what they are drawn from; made once each. */
const made = new WeakMap<ImageBitmap, Map<string, OffscreenCanvas>>();
/** Stills kept for one picture. */
const MOST = 2000;

/** A frame in project pixels, scaled exactly as in a delivery. */
function scaledStill({ bitmap, coverage }: Drawable, still: Still): OffscreenCanvas {
  const { rect, turned, inset, drawn: untrimmed, scale } = still;
  const known = made.get(bitmap) ?? new Map<string, OffscreenCanvas>();
  made.set(bitmap, known);
  const key = `${rect.x} ${rect.y} ${rect.w} ${rect.h} ${turned} ${untrimmed.w} ${untrimmed.h} ${inset.x} ${inset.y} ${scale}`;
  const found = known.get(key);
  if (found) return found;
  const { w, h } = untrimmed;
  const drawn = canvasContext(w, h);
  drawStored(drawn, bitmap, still, 0, 0, 1);
  const art = { ...clearPixels(w, h), bytes: new Uint8Array(drawn.getImageData(0, 0, w, h).data.buffer) };
  const { width, height, bytes } = scaled(art, scale, isNearest(scale, coverage.soft === true));
  const context = canvasContext(width, height);
  context.putImageData(new ImageData(new Uint8ClampedArray(bytes), width, height), 0, 0);
  if (known.size >= MOST) known.clear();
  known.set(key, context.canvas);
  return context.canvas;
}

function canvasContext(width: number, height: number): OffscreenCanvasRenderingContext2D {
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error(t("This browser provides no canvas to draw on."));
  context.imageSmoothingEnabled = false;
  return context;
}
