/** Lays the parts of an animation on one canvas. */
import { clearPixels, lay, type Pixels } from "../raster";
import { t } from "../words";

/** What becomes of a part's rectangle when its time is over: it stays, is cleared, or is as it was before. */
export type Afterwards = "stays" | "cleared" | "reverted";

/** Where a part of an animation is laid, and how. */
export interface Laid {
  readonly x: number;
  readonly y: number;
  /** Over what is there, by its alpha; otherwise in place of it. */
  readonly over: boolean;
  readonly afterwards: Afterwards;
}

/** Starts with a clear canvas; each call lays the next part and returns a copy of the whole canvas while that shows. */
export function composing(width: number, height: number): (part: Pixels, laid: Laid) => Pixels {
  const canvas = clearPixels(width, height);
  let endLast = () => {};
  return (part, { x, y, over, afterwards }) => {
    endLast();
    const before = afterwards === "reverted" ? canvas.bytes.slice() : null;
    lay(canvas, part, x, y, over);
    endLast = () => {
      if (before) canvas.bytes.set(before);
      else if (afterwards === "cleared")
        for (let row = y; row < y + part.height; row++) canvas.bytes.fill(0, (row * width + x) * 4, (row * width + x + part.width) * 4);
    };
    return { width, height, bytes: canvas.bytes.slice() };
  };
}

/** What is wrong with a part's rectangle, in words, or null. */
export function whyOutside(part: { x: number; y: number; w: number; h: number }, width: number, height: number): string | null {
  const { x, y, w, h } = part;
  if (w > 0 && h > 0 && x + w <= width && y + h <= height) return null;
  return t("It lies at {x}, {y} with {w} × {h} px, outside the {width} × {height} px picture.", { x, y, w, h, width, height });
}
