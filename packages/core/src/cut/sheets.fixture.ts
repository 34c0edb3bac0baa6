/** Generated sheets for tests of suggestions: seeded, of varied cells, spaces, fillings and untidiness. */

import type { Size, Spacing } from "../model";
import { randomFrom } from "../random.fixture";
import { clearPixels, type Pixels, paste } from "../raster";

export interface KnownSheet {
  readonly pixels: Pixels;
  readonly cell: Size;
  readonly margin: Spacing;
  readonly gap: Spacing;
  readonly columns: number;
  readonly rows: number;
}

const CELLS = [16, 20, 24, 30, 32, 36, 40, 48, 50, 56, 64, 72, 80, 96, 37, 53];

/** Sheet number `seed`: figures with a swinging leg and a bobbing head, some rows short, some with sparks around them. */
export function knownSheet(seed: number): KnownSheet {
  const random = randomFrom(seed);
  const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)] as Value;
  const w = pick(CELLS);
  const h = random() < 0.5 ? w : pick(CELLS);
  const margin = pick([0, 0, 0, 0, 1, 2, 4, 8]);
  const gap = pick([0, 0, 0, 0, 1, 2, 4, 8]);
  const columns = 2 + Math.floor(random() * 11);
  const rows = 1 + Math.floor(random() * 8);
  const closed = random() < 0.7; // the margin is also left at the end
  const over = random() < 0.15 ? 1 + Math.floor(random() * (w - 1)) : 0; // px left over at the right
  const width = margin + columns * w + (columns - 1) * gap + (closed ? margin : 0) + over;
  const height = margin + rows * h + (rows - 1) * gap + (closed ? margin : 0);
  const pixels = clearPixels(width, height);
  const sparse = random() < 0.4;
  const sparks = random() < 0.4;
  for (let row = 0; row < rows; row++) {
    const frames = sparse ? Math.max(1, Math.ceil(columns * (0.3 + random() * 0.7))) : columns;
    const figure = { wide: 0.3 + random() * 0.55, tall: 0.55 + random() * 0.42, hue: random() * 200 };
    for (let column = 0; column < frames; column++)
      drawFigure(pixels, margin + column * (w + gap), margin + row * (h + gap), { w, h }, figure, column / frames, sparks, random);
  }
  return { pixels, cell: { w, h }, margin: { x: margin, y: margin }, gap: { x: gap, y: gap }, columns, rows };
}

function drawFigure(
  pixels: Pixels,
  left: number,
  top: number,
  { w, h }: Size,
  figure: { wide: number; tall: number; hue: number },
  phase: number,
  sparks: boolean,
  random: () => number,
): void {
  const dot = (x: number, y: number, shade: number) => {
    if (x < 0 || y < 0 || x >= w || y >= h) return;
    pixels.bytes.set([figure.hue, shade, 255 - shade, 255], ((top + Math.floor(y)) * pixels.width + left + Math.floor(x)) * 4);
  };
  const swing = Math.sin(phase * Math.PI * 2);
  const tall = Math.floor(figure.tall * h - Math.abs(swing) * 2);
  const half = (figure.wide * w) / 2;
  for (let k = 0; k < tall; k++) {
    const y = h - 1 - k;
    const share = k / tall;
    // Legs below, a trunk, a head.
    const reach = share < 0.35 ? half * 0.7 : share < 0.7 ? half : half * 0.65;
    for (let x = Math.ceil(w / 2 - reach); x < w / 2 + reach; x++) {
      const between = share < 0.3 && Math.abs(x - w / 2 - swing * half * 0.4) < Math.max(1, half * 0.15);
      if (!between) dot(x, y, (k * 7) % 256);
    }
  }
  if (sparks && random() < 0.5) for (let k = 0; k < 3; k++) dot(random() * w, random() * h * 0.4, 250);
}

/**
 * Sheet number `seed` of cells that are drawn all over: tiles of unlike textures, or one texture that moves from cell to cell; strips both ways
 * and whole grids.
 */
export function fullSheet(seed: number): KnownSheet {
  const random = randomFrom(seed + 7_000_000);
  const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)] as Value;
  const w = pick([16, 16, 32, 32, 24, 48, 64, 20, 40]);
  const h = random() < 0.75 ? w : pick([16, 24, 32, 48, 64]);
  const shape = random();
  const columns = shape < 0.35 ? 1 : 2 + Math.floor(random() * 11);
  const rows = shape >= 0.35 && shape < 0.65 ? 1 : shape < 0.35 ? 3 + Math.floor(random() * 12) : 2 + Math.floor(random() * 7);
  const pixels = clearPixels(columns * w, rows * h);
  const moves = random() < 0.5;
  const noise = random() < 0.4 ? 12 : 0;
  // Smooth random tones on a lattice that wraps around the cell: seamless, without a period of its own.
  const texture = () => {
    const [base, other] = [
      [random() * 200, random() * 200, random() * 200],
      [random() * 255, random() * 255, random() * 255],
    ];
    const side = 3 + Math.floor(random() * 4);
    const tones = Array.from({ length: side * side }, () => random());
    const tone = (x: number, y: number) => tones[(((y % side) + side) % side) * side + (((x % side) + side) % side)] as number;
    return (x: number, y: number, phase: number) => {
      const [u, v] = [(x / w + phase) * side, (y / h) * side];
      const [left, top] = [Math.floor(u), Math.floor(v)];
      const [a, b] = [u - left, v - top];
      const above = tone(left, top) * (1 - a) + tone(left + 1, top) * a;
      const below = tone(left, top + 1) * (1 - a) + tone(left + 1, top + 1) * a;
      const share = above * (1 - b) + below * b;
      return base.map((value, k) => value + ((other[k] as number) - value) * share);
    };
  };
  const one = texture();
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const own = moves ? one : texture();
      const phase = moves ? (row * columns + column) / (rows * columns) : 0;
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++) {
          const colour = own(x, y, phase).map((value) => Math.max(0, Math.min(255, value + (random() - 0.5) * noise)));
          pixels.bytes.set([...colour.map(Math.round), 255], ((row * h + y) * pixels.width + column * w + x) * 4);
        }
    }
  return { pixels, cell: { w, h }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, columns, rows };
}

/**
 * Sheet number `seed` of figures of unlike sizes, packed in rows as closely as people do by hand: no grid fits. Gives their number too.
 */
export function unevenSheet(seed: number): { readonly pixels: Pixels; readonly figures: number } {
  const random = randomFrom(seed + 3_000_000);
  const base = 24 + Math.floor(random() * 40);
  const rows = Array.from({ length: 1 + Math.floor(random() * 4) }, () =>
    Array.from({ length: 3 + Math.floor(random() * 6) }, () => ({
      w: Math.round(base * (0.55 + random() * 0.9)),
      h: Math.round(base * (0.8 + random() * 0.5)),
    })),
  );
  const space = () => 14 + Math.floor(random() * 12);
  const placed: { x: number; y: number; w: number; h: number }[] = [];
  let y = space();
  let width = 0;
  for (const row of rows) {
    const tall = Math.max(...row.map(({ h }) => h));
    let x = space();
    for (const { w, h } of row) {
      placed.push({ x, y: y + tall - h, w, h });
      x += w + space();
    }
    width = Math.max(width, x);
    y += tall + space();
  }
  const pixels = clearPixels(width, y);
  for (const { x, y: top, w, h } of placed)
    drawFigure(pixels, x, top, { w, h }, { wide: 0.95, tall: 0.95, hue: random() * 200 }, random(), false, random);
  return { pixels, figures: placed.length };
}

/**
 * Sheet number `seed` of figures in cells that are framed: by lines between them, with or without some around the sheet, or by a box around
 * each; some last rows are short. Behind lines the ground is clear or opaque.
 */
export function framedSheet(seed: number): KnownSheet {
  const random = randomFrom(seed + 11_000_000);
  const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)] as Value;
  const w = pick(CELLS);
  const h = random() < 0.5 ? w : pick(CELLS);
  const columns = 3 + Math.floor(random() * 8);
  const rows = 2 + Math.floor(random() * 5);
  const thick = pick([1, 1, 1, 2, 3]);
  const boxes = random() < 0.4;
  const apart = boxes ? 1 + Math.floor(random() * 6) : 0; // px between boxes
  const around = boxes || random() < 0.5;
  const gap = boxes ? 2 * thick + apart : thick;
  const margin = boxes ? thick + Math.floor(random() * 5) : around ? thick : 0;
  const shortRow = boxes && random() < 0.5 ? 1 + Math.floor(random() * columns) : columns;
  const width = 2 * margin + columns * (w + gap) - gap;
  const height = 2 * margin + rows * (h + gap) - gap;
  const pixels = clearPixels(width, height);
  const ground = !boxes && random() < 0.5 ? [random() * 255, random() * 255, random() * 255, 255] : [0, 0, 0, 0];
  const line = [random() * 255, 255, random() * 255, 255];
  const paint = (left: number, top: number, wide: number, tall: number, colour: readonly number[]) => {
    for (let y = Math.max(0, top); y < Math.min(height, top + tall); y++)
      for (let x = Math.max(0, left); x < Math.min(width, left + wide); x++) pixels.bytes.set(colour, (y * width + x) * 4);
  };
  paint(0, 0, width, height, boxes ? ground : line);
  const figure = { wide: 0.3 + random() * 0.5, tall: 0.5 + random() * 0.4, hue: random() * 200 };
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < (row === rows - 1 ? shortRow : columns); column++) {
      const [left, top] = [margin + column * (w + gap), margin + row * (h + gap)];
      if (boxes) paint(left - thick, top - thick, w + 2 * thick, h + 2 * thick, line);
      paint(left, top, w, h, ground);
      drawFigure(pixels, left, top, { w, h }, figure, column / columns, false, random);
    }
  return { pixels, cell: { w, h }, margin: { x: margin, y: margin }, gap: { x: gap, y: gap }, columns, rows };
}

/** Sheet number `seed` with a line of text above it, or a short one beside each row, or both. */
export function headedSheet(seed: number): KnownSheet {
  const random = randomFrom(seed + 13_000_000);
  const known = knownSheet(seed);
  const { cell, gap, rows, columns } = known;
  const top = random() < 0.7 ? Math.min(Math.floor(cell.h * 0.7), 8 + Math.floor(random() * 10)) : 0;
  const left = top === 0 || random() < 0.3 ? Math.min(Math.floor(cell.w * 0.7), 10 + Math.floor(random() * 20)) : 0;
  const apart = 2 + Math.floor(random() * 10);
  const start = { x: left && left + apart, y: top && top + apart };
  const { width, height } = known.pixels;
  const pixels = clearPixels(width + start.x, height + start.y);
  paste(pixels, known.pixels, { x: 0, y: 0, w: width, h: height }, start.x, start.y);
  const write = (x: number, y: number, w: number, h: number) => {
    for (let row = y; row < y + h; row++)
      for (let column = x; column < Math.min(x + w, pixels.width); column++)
        if ((column - x) % 6 < 4 && random() < 0.6) pixels.bytes.set([255, 255, 255, 255], (row * pixels.width + column) * 4);
  };
  if (top) write(3, 1, 60 + Math.floor(random() * 80), top - 1);
  const margin = { x: start.x + known.margin.x, y: start.y + known.margin.y };
  if (left)
    for (let row = 0; row < rows; row++)
      write(1, margin.y + row * (cell.h + gap.y) + Math.floor(cell.h / 3), left - 2, Math.min(7, Math.floor(cell.h / 2)));
  return { pixels, cell, margin, gap, columns, rows };
}

/** Sheet number `seed` somewhere on a larger picture: with space after it, as on a picture of a power of two, or unlike space on all sides. */
export function paddedSheet(seed: number): KnownSheet {
  const random = randomFrom(seed + 17_000_000);
  const known = knownSheet(seed);
  const { width, height } = known.pixels;
  const power = (px: number) => 2 ** Math.ceil(Math.log2(px));
  const some = (most: number) => Math.floor(random() * most);
  const around = random() < 0.5;
  const start = around ? { x: some(60), y: some(60) } : { x: 0, y: 0 };
  const size = around
    ? { w: width + start.x + some(80), h: height + start.y + some(80) }
    : { w: random() < 0.3 ? width : power(width), h: random() < 0.3 ? height : power(height) };
  const pixels = clearPixels(size.w, size.h);
  paste(pixels, known.pixels, { x: 0, y: 0, w: width, h: height }, start.x, start.y);
  return { ...known, pixels, margin: { x: known.margin.x + start.x, y: known.margin.y + start.y } };
}

/**
 * Sheet number `seed` whose cells are equal parts of a side that does not divide: figures made to a given size of picture, each a little off the
 * middle of its part, or a sheet of whole cells that was resized.
 */
export function spreadSheet(seed: number): KnownSheet {
  const random = randomFrom(seed + 19_000_000);
  const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)] as Value;
  const made = random() < 0.6;
  const side = () => (made ? pick([256, 512, 512, 640, 768, 1024]) : 180 + Math.floor(random() * 400));
  const width = side();
  const height = random() < 0.5 ? width : side();
  let columns = 0;
  let rows = 0;
  while (columns * rows === 0 || (width % columns === 0 && height % rows === 0)) {
    columns = 3 + Math.floor(random() * 6);
    rows = 1 + Math.floor(random() * 7);
  }
  const pixels = clearPixels(width, height);
  const [w, h] = [Math.floor(width / columns), Math.floor(height / rows)];
  const sparse = random() < 0.3;
  const off = (px: number) => (made ? Math.round((random() - 0.5) * 0.06 * px) : 0);
  for (let row = 0; row < rows; row++) {
    const frames = sparse && row === rows - 1 ? Math.max(1, Math.ceil(columns * random())) : columns;
    const figure = { wide: 0.35 + random() * 0.45, tall: 0.6 + random() * 0.3, hue: random() * 200 };
    for (let column = 0; column < frames; column++) {
      // Room around a figure, so that none reaches into the next part.
      const [left, top] = [Math.round((column * width) / columns), Math.round((row * height) / rows)];
      const inner = { w: Math.floor(w * 0.9), h: Math.floor(h * 0.92) };
      drawFigure(
        pixels,
        left + Math.floor(w * 0.05) + off(w),
        top + Math.floor(h * 0.04) + off(h),
        inner,
        figure,
        column / frames,
        false,
        random,
      );
    }
  }
  const none = { x: 0, y: 0 };
  return { pixels, cell: { w, h }, margin: none, gap: none, columns, rows };
}
