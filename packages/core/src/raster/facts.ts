import { pixelSizeOf } from "./pixel-size";
import type { Pixels } from "./pixels";

/** What a person wants to know about a picture first. */
export interface PictureFacts {
  /** Distinct colours, alpha counted, all clear pixels as one; counting stops above `COLOUR_LIMIT`. */
  readonly colours: number;
  /** `opaque` if no pixel has alpha below 255, `soft` if some are half-transparent, otherwise `clear`. */
  readonly ground: "opaque" | "clear" | "soft";
  /** How large the art's own pixels are: more than 1 for pixel art that was saved enlarged. */
  readonly pixel: number;
}

/** Above this a picture is painted rather than drawn in a palette; the exact number says nothing more. */
export const COLOUR_LIMIT = 4096;

/** Cost: O(pixels). */
export function factsOf(pixels: Pixels): PictureFacts {
  const { bytes } = pixels;
  const seen = new Set<number>();
  let opaque = true;
  let soft = false;
  let last = -1;
  for (let k = 0; k < bytes.length; k += 4) {
    const alpha = bytes[k + 3] as number;
    if (alpha !== 255) {
      opaque = false;
      if (alpha !== 0) soft = true;
    }
    if (seen.size > COLOUR_LIMIT) continue;
    // Multiplied, not shifted: a shift by 24 would make a negative number of it.
    const colour =
      alpha === 0 ? 0 : (bytes[k] as number) + (bytes[k + 1] as number) * 0x100 + (bytes[k + 2] as number) * 0x10000 + alpha * 0x1000000;
    if (colour === last) continue;
    last = colour;
    seen.add(colour);
  }
  return { colours: seen.size, ground: opaque ? "opaque" : soft ? "soft" : "clear", pixel: pixelSizeOf(pixels) };
}
