/** Drawing a frame as a game shows it, from the picture it is stored on: upright, at its place in its untrimmed size. */
import { type Frame, frameLook, frameSize, type Look, type Rect, type Size, type Source, type Spacing } from "@caravan/core/model";

/** A frame and the picture that it is on. */
export interface Still {
  readonly look: Look;
  /** Where it lies on the picture, as stored. */
  readonly rect: Rect;
  readonly turned: boolean;
  /** Untrimmed and upright. */
  readonly size: Size;
  readonly inset: Spacing;
}

const NO_INSET: Spacing = { x: 0, y: 0 };

export function stillOf(source: Source, frame: Frame): Still {
  return {
    look: frameLook(source, frame),
    rect: frame.rect,
    turned: frame.turned === true,
    size: frameSize(frame),
    inset: frame.inset ?? NO_INSET,
  };
}

/** Draws so that the untrimmed frame's top-left corner is at (x, y), each of its pixels `scale` large. */
export function drawStill(
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  bitmap: CanvasImageSource,
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
  // Stored rotated by 90° clockwise, so it is turned back: its right edge becomes the top.
  context.save();
  context.translate(left, top + w);
  context.rotate(-Math.PI / 2);
  context.drawImage(bitmap, rect.x, rect.y, rect.w, rect.h, 0, 0, w, h);
  context.restore();
}
