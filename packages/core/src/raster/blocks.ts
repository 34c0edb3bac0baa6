/**
 * Finds a colour that fills the cells of a sheet: solid blocks with clear space between them, each with a figure in front of one colour.
 *
 * Sheets often have one colour behind the cells and another between them, and once that is cleared, the blocks are left. Pixels at the edges of
 * most blocks, and a good part of their area, must have the very same colour. A frame drawn around each is not enough of it; a coloured square
 * behind an icon is, so that this is an offer only. Cost: O(pixels of the blocks), and next to nothing for other sheets.
 */
import type { Colour, Rect } from "../model";
import { hexOf } from "./colour";
import { type Coverage, countDrawn, isDrawn } from "./coverage";
import { type Pixels, pixelWords } from "./pixels";

const LEAST_SIDE = 8; // px
/** The fraction of everything drawn that lies in blocks. */
const IN_BLOCKS = 0.95;
/** The fraction of a block's outermost pixels with its colour; figures stand at the edges of some. */
const AT_THE_EDGE = 0.7;
/** The fraction of the blocks that have the same colour, and of those that hold more than it. */
const OF_THE_BLOCKS = 0.9;
const WITH_FIGURES = 0.5;
/** The least fraction of a block's area that the colour fills. */
const LEAST_FILL = 0.3;
/** Corners of drawings that are no blocks: sheets of figures without a ground have hundreds. */
const MOST_OTHERS = 50;

/** The colour, or null if the sheet has no such blocks. `coverage` is that of `pixels`. */
export function findBlocks(pixels: Pixels, coverage: Coverage): Colour | null {
  const blocks = blocksOf(coverage);
  if (blocks.length < 2) return null;
  const all = countDrawn(coverage, { x: 0, y: 0, w: coverage.width, h: coverage.height });
  if (blocks.reduce((sum, { w, h }) => sum + w * h, 0) < all * IN_BLOCKS) return null;
  const words = pixelWords(pixels.bytes);
  const colours = blocks.map((block) => edgeColour(words, pixels.width, block));
  const colour = commonest(colours.filter((each) => each !== null));
  if (colour === null || colour >>> 24 !== 255) return null;
  const alike = blocks.filter((_, k) => colours[k] === colour);
  if (alike.length < blocks.length * OF_THE_BLOCKS) return null;
  const shares = alike.map((block) => count(words, pixels.width, block, colour) / (block.w * block.h));
  const filled = shares.filter((share) => share >= LEAST_FILL).length;
  const withFigures = shares.filter((share) => share < 1).length;
  if (filled < alike.length * OF_THE_BLOCKS || withFigures < alike.length * WITH_FIGURES) return null;
  return hexOf([colour & 255, (colour >>> 8) & 255, (colour >>> 16) & 255]);
}

/** Solid rectangles with nothing drawn beside them; none if much else is drawn. */
function blocksOf(coverage: Coverage): Rect[] {
  const { width, height, bits } = coverage;
  const stride = Math.ceil(width / 32);
  const blocks: Rect[] = [];
  let others = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (x % 32 === 0 && bits[y * stride + x / 32] === 0) x += 31;
      else if (isDrawn(coverage, x, y)) {
        const left = x;
        while (x < width && isDrawn(coverage, x, y)) x++;
        if (y > 0 && isDrawn(coverage, left, y - 1)) continue;
        const block = blockAt(coverage, left, y, x - left);
        if (block) blocks.push(block);
        else if (++others > MOST_OTHERS) return [];
      }
    }
  return blocks;
}

function blockAt(coverage: Coverage, x: number, y: number, w: number): Rect | null {
  const { width, height } = coverage;
  let bottom = y + 1;
  while (bottom < height && isDrawn(coverage, x, bottom)) bottom++;
  const h = bottom - y;
  if (w < LEAST_SIDE || h < LEAST_SIDE || countDrawn(coverage, { x, y, w, h }) < w * h) return null;
  const [left, top] = [Math.max(0, x - 1), Math.max(0, y - 1)];
  const around = { x: left, y: top, w: Math.min(width, x + w + 1) - left, h: Math.min(height, bottom + 1) - top };
  return countDrawn(coverage, around) === w * h ? { x, y, w, h } : null;
}

/** The colour of most of the outermost pixels, as a word of RGBA; null if they differ. */
function edgeColour(words: Uint32Array, width: number, { x, y, w, h }: Rect): number | null {
  const edge: number[] = [];
  const add = (column: number, row: number) => edge.push(words[row * width + column] as number);
  for (let column = x; column < x + w; column++) {
    add(column, y);
    add(column, y + h - 1);
  }
  for (let row = y + 1; row < y + h - 1; row++) {
    add(x, row);
    add(x + w - 1, row);
  }
  const colour = commonest(edge);
  return edge.filter((each) => each === colour).length >= edge.length * AT_THE_EDGE ? colour : null;
}

function count(words: Uint32Array, width: number, { x, y, w, h }: Rect, colour: number): number {
  let found = 0;
  for (let row = y; row < y + h; row++) for (let k = row * width + x; k < row * width + x + w; k++) if (words[k] === colour) found++;
  return found;
}

function commonest(values: readonly number[]): number | null {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
