import { scaledSide } from "../model";
import { clearPixels, type Pixels } from "./pixels";

/**
 * Scales a picture; pixel (x, y) covers x / scale ≤ … < (x + 1) / scale of the original, so that pictures with one origin stay aligned.
 * Whole factors repeat pixels exactly; others average the covered pixels, with colours weighted by alpha, so that transparent pixels add no
 * colour. With `crisp` they take the pixel under the centre instead, so that no new colour appears. A partial pixel at the right or bottom
 * becomes a whole one. Cost: O(pixels of both).
 */
export function scaled(pixels: Pixels, scale: number, crisp = false): Pixels {
  if (scale === 1) return pixels;
  if (Number.isInteger(scale)) return repeated(pixels, scale);
  return crisp ? nearest(pixels, scale) : averaged(pixels, scale);
}

function nearest({ width, height, bytes }: Pixels, scale: number): Pixels {
  const out = clearPixels(scaledSide(width, scale), scaledSide(height, scale));
  for (let y = 0; y < out.height; y++) {
    const v = Math.min(height - 1, Math.floor((y + 0.5) / scale));
    for (let x = 0; x < out.width; x++) {
      const at = (v * width + Math.min(width - 1, Math.floor((x + 0.5) / scale))) * 4;
      out.bytes.set(bytes.subarray(at, at + 4), (y * out.width + x) * 4);
    }
  }
  return out;
}

function repeated({ width, height, bytes }: Pixels, times: number): Pixels {
  const out = clearPixels(width * times, height * times);
  const from = new Uint32Array(bytes.slice().buffer);
  const to = new Uint32Array(out.bytes.buffer);
  for (let y = 0; y < height; y++) {
    const first = y * times * out.width;
    for (let x = 0; x < width; x++) to.fill(from[y * width + x] as number, first + x * times, first + (x + 1) * times);
    for (let row = 1; row < times; row++) to.copyWithin(first + row * out.width, first, first + out.width);
  }
  return out;
}

function averaged({ width, height, bytes }: Pixels, scale: number): Pixels {
  const out = clearPixels(scaledSide(width, scale), scaledSide(height, scale));
  for (let y = 0; y < out.height; y++) {
    const top = y / scale;
    const bottom = Math.min(height, (y + 1) / scale);
    for (let x = 0; x < out.width; x++) {
      const left = x / scale;
      const right = Math.min(width, (x + 1) / scale);
      let [r, g, b, alpha] = [0, 0, 0, 0];
      for (let v = Math.floor(top); v < bottom; v++) {
        const tall = Math.min(bottom, v + 1) - Math.max(top, v);
        for (let u = Math.floor(left); u < right; u++) {
          const at = (v * width + u) * 4;
          const weight = tall * (Math.min(right, u + 1) - Math.max(left, u)) * (bytes[at + 3] as number);
          r += weight * (bytes[at] as number);
          g += weight * (bytes[at + 1] as number);
          b += weight * (bytes[at + 2] as number);
          alpha += weight;
        }
      }
      if (alpha === 0) continue;
      // A cut-off pixel at the edge covers less; what it covers counts in full, or edges would fade.
      const area = (bottom - top) * (right - left);
      out.bytes.set(
        [Math.round(r / alpha), Math.round(g / alpha), Math.round(b / alpha), Math.round(alpha / area)],
        (y * out.width + x) * 4,
      );
    }
  }
  return out;
}
