import type { Frame } from "../model";
import { clearPixels, crop, type Pixels, paste, turnCounterClockwise } from "./pixels";

/** A frame as a game sees it: upright, untrimmed. `picture` is the one that it is on. Cost: O(pixels of the frame). */
export function framePixels(picture: Pixels, frame: Pick<Frame, "rect" | "turned" | "size" | "inset">): Pixels {
  const stored = crop(picture, frame.rect);
  const upright = frame.turned ? turnCounterClockwise(stored) : stored;
  if (!frame.size) return upright;
  const whole = clearPixels(frame.size.w, frame.size.h);
  const { x, y } = frame.inset ?? { x: 0, y: 0 };
  paste(whole, upright, { x: 0, y: 0, w: upright.width, h: upright.height }, x, y);
  return whole;
}
