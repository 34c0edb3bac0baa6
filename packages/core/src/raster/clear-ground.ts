/**
 * Clears an opaque background by its recipe; the given picture is not changed.
 *
 * A pixel is background if each channel is within the tolerance of one of the background's colours. From the edges, only background
 * connected to the picture's border by sides is cleared, so white eyes and teeth stay. The fringe is the background left in half-covered
 * pixels: a pixel beside cleared background whose colour lies between the background's and that of a whole pixel next to it gets that
 * pixel's colour, with its share as alpha (solving c = t·s + (1 − t)·g for t). Specks are cleared last. Cost: O(pixels).
 */
import type { Clearing } from "../model";
import { type Rgb, rgbOf } from "./colour";
import { coverageOf } from "./coverage";
import type { Pixels } from "./pixels";
import { findSpecks } from "./specks";

export function clearGround(pixels: Pixels, { colours, tolerance, from, fringe, specks }: Clearing): Pixels {
  const { width, height } = pixels;
  const bytes = pixels.bytes.slice();
  if (colours.length > 0) clearColours(pixels, bytes, { colours, tolerance, from, fringe });
  const left = { width, height, bytes };
  if (specks) for (const { x, y } of findSpecks(coverageOf(left), specks)) bytes.fill(0, (y * width + x) * 4, (y * width + x) * 4 + 4);
  return left;
}

function clearColours(pixels: Pixels, bytes: Uint8Array, { colours, tolerance, from, fringe }: Omit<Clearing, "specks">): void {
  const grounds = colours.map(rgbOf);
  const cleared = from === "edges" ? groundFromEdges(pixels, grounds, tolerance) : groundEverywhere(pixels, grounds, tolerance);
  if (fringe) clearFringe(bytes, pixels, cleared, grounds);
  for (let k = 0; k < cleared.length; k++) if (cleared[k]) bytes.fill(0, k * 4, k * 4 + 4);
}

/** Which of the ground's colours a pixel has, -1 for none. Wholly clear pixels are ground already. */
function groundAt(bytes: Uint8Array, k: number, grounds: readonly Rgb[], tolerance: number): boolean {
  if (bytes[k * 4 + 3] === 0) return true;
  for (const [red, green, blue] of grounds)
    if (
      Math.abs((bytes[k * 4] as number) - red) <= tolerance &&
      Math.abs((bytes[k * 4 + 1] as number) - green) <= tolerance &&
      Math.abs((bytes[k * 4 + 2] as number) - blue) <= tolerance
    )
      return true;
  return false;
}

function groundEverywhere({ bytes, width, height }: Pixels, grounds: readonly Rgb[], tolerance: number): Uint8Array {
  const cleared = new Uint8Array(width * height);
  for (let k = 0; k < cleared.length; k++) if (groundAt(bytes, k, grounds, tolerance)) cleared[k] = 1;
  return cleared;
}

/** A flood fill by runs from every border pixel (scan-line seed fill after Smith, "Tint Fill", SIGGRAPH 1979). */
function groundFromEdges({ bytes, width, height }: Pixels, grounds: readonly Rgb[], tolerance: number): Uint8Array {
  const cleared = new Uint8Array(width * height);
  const seeds: number[] = [];
  for (let x = 0; x < width; x++) seeds.push(x, (height - 1) * width + x);
  for (let y = 0; y < height; y++) seeds.push(y * width, y * width + width - 1);
  const open = (k: number) => cleared[k] === 0 && groundAt(bytes, k, grounds, tolerance);
  for (let seed = seeds.pop(); seed !== undefined; seed = seeds.pop()) {
    if (!open(seed)) continue;
    const y = Math.floor(seed / width);
    let left = seed;
    let right = seed;
    while (left > y * width && open(left - 1)) left--;
    while (right < y * width + width - 1 && open(right + 1)) right++;
    cleared.fill(1, left, right + 1);
    for (const step of [-width, width]) {
      if (y + Math.sign(step) < 0 || y + Math.sign(step) >= height) continue;
      let inside = false;
      for (let k = left + step; k <= right + step; k++) {
        const here = open(k);
        if (here && !inside) seeds.push(k);
        inside = here;
      }
    }
  }
  return cleared;
}

const WHOLE = 0.94; // share from which a pixel counts as whole
const GONE = 0.12; // share below which nothing of it is kept
const OFF_LINE = 36; // how far a mixed colour may be off the line between its two colours

function clearFringe(bytes: Uint8Array, { width, height }: Pixels, cleared: Uint8Array, grounds: readonly Rgb[]): void {
  const original = bytes.slice();
  const isClear = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height && cleared[y * width + x] === 1;
  const isEdge = (x: number, y: number) =>
    isClear(x - 1, y) ||
    isClear(x + 1, y) ||
    isClear(x, y - 1) ||
    isClear(x, y + 1) ||
    isClear(x - 1, y - 1) ||
    isClear(x + 1, y - 1) ||
    isClear(x - 1, y + 1) ||
    isClear(x + 1, y + 1);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const k = y * width + x;
      if (cleared[k] || !isEdge(x, y)) continue;
      const subject = innerColour(original, width, height, cleared, isEdge, grounds[0] as Rgb, x, y);
      if (!subject) continue;
      const share = Math.min(...grounds.map((ground) => shareOf(colourAt(original, k), subject, ground)));
      if (share >= WHOLE) continue;
      if (share <= GONE) bytes.fill(0, k * 4, k * 4 + 4);
      else bytes.set([...subject, Math.round(share * 255)], k * 4);
    }
}

function colourAt(bytes: Uint8Array, k: number): Rgb {
  return [bytes[k * 4] as number, bytes[k * 4 + 1] as number, bytes[k * 4 + 2] as number];
}

/** The colour of a whole pixel near (x, y): drawn, not beside the background, and the most different from it; null if there is none. */
function innerColour(
  bytes: Uint8Array,
  width: number,
  height: number,
  cleared: Uint8Array,
  isEdge: (x: number, y: number) => boolean,
  ground: Rgb,
  x: number,
  y: number,
): Rgb | null {
  let best: Rgb | null = null;
  let furthest = 0;
  for (let ny = Math.max(0, y - 2); ny <= Math.min(height - 1, y + 2); ny++)
    for (let nx = Math.max(0, x - 2); nx <= Math.min(width - 1, x + 2); nx++) {
      if (cleared[ny * width + nx] || isEdge(nx, ny)) continue;
      const colour = colourAt(bytes, ny * width + nx);
      const far = (colour[0] - ground[0]) ** 2 + (colour[1] - ground[1]) ** 2 + (colour[2] - ground[2]) ** 2;
      if (far > furthest) {
        furthest = far;
        best = colour;
      }
    }
  return best;
}

/** The fraction of `subject` in `mixed`, the rest being `ground`; 1 if it is not a mixture of the two. */
function shareOf(mixed: Rgb, subject: Rgb, ground: Rgb): number {
  const line = [subject[0] - ground[0], subject[1] - ground[1], subject[2] - ground[2]] as const;
  const length = line[0] ** 2 + line[1] ** 2 + line[2] ** 2;
  if (length < 900) return 1; // too similar to tell apart
  const way = [mixed[0] - ground[0], mixed[1] - ground[1], mixed[2] - ground[2]] as const;
  const share = (way[0] * line[0] + way[1] * line[1] + way[2] * line[2]) / length;
  const off = Math.max(...line.map((each, k) => Math.abs((way[k] as number) - share * each)));
  return off > OFF_LINE || share > 1 ? 1 : Math.max(0, share);
}
