/** Small pictures of few colours, so that tiles repeat. */
import fc from "fast-check";
import { clearPixels, mirrored, type Pixels, paste } from "../raster";

export const COLOURS = [
  [0, 0, 0, 0],
  [9, 9, 9, 0],
  [200, 30, 40, 255],
  [20, 130, 240, 255],
  [20, 130, 240, 128],
] as const;

export const smallPicture = fc
  .record({
    w: fc.integer({ min: 1, max: 13 }),
    h: fc.integer({ min: 1, max: 13 }),
    seed: fc.array(fc.nat(4), { minLength: 4, maxLength: 24 }),
  })
  .map(({ w, h, seed }): Pixels => {
    const made = clearPixels(w, h);
    for (let k = 0; k < w * h; k++) made.bytes.set(COLOURS[seed[(k * 7 + (k >> 3)) % seed.length] ?? 0] ?? [0, 0, 0, 0], k * 4);
    return made;
  });

const upsideDown = (pixels: Pixels): Pixels => {
  const out = clearPixels(pixels.width, pixels.height);
  for (let y = 0; y < pixels.height; y++) paste(out, pixels, { x: 0, y, w: pixels.width, h: 1 }, 0, pixels.height - 1 - y);
  return out;
};

export const turned = (pixels: Pixels, flip: string | undefined): Pixels => {
  const across = flip === "across" || flip === "both" ? mirrored(pixels) : pixels;
  return flip === "down" || flip === "both" ? upsideDown(across) : across;
};
