/** Makes the atlases that generated descriptions describe: packed ones, and plain grids. */
import type { Rect, Size } from "../../model";
import type { Random } from "../../random.fixture";
import { type Coverage, clearPixels, coverageOf } from "../../raster";

export interface KnownFrame {
  readonly name: string;
  readonly clip: string;
  /** Its place in its clip. */
  readonly number: number;
  readonly rect: Rect;
  readonly turned: boolean;
  readonly inset: { readonly x: number; readonly y: number };
  readonly size: Size;
  /** In pixels from the untrimmed top left corner. */
  readonly origin: { readonly x: number; readonly y: number };
  readonly ms: number;
}

export interface KnownAtlas {
  readonly width: number;
  readonly height: number;
  readonly frames: readonly KnownFrame[];
  /** Size of the cells, of an atlas that is a plain grid; null of a packed one. */
  readonly grid: { readonly cell: Size; readonly columns: number } | null;
  /** Whether its frames are unordered. */
  readonly mixed: boolean;
  readonly coverage: Coverage;
}

const CLIP_NAMES = ["walk", "strike", "idle", "jump", "rest", "carry", "kneel", "bow", "drink", "look"];

export function atlasOf(random: Random, grid: boolean): KnownAtlas {
  const pick = picker(random);
  const whole = { w: pick([24, 32, 40, 48]), h: pick([32, 40, 48, 56]) };
  const names = shuffled(CLIP_NAMES, random).slice(0, 2 + Math.floor(random() * 3));
  const trims = random() < 0.7;
  const figures = names.flatMap((clip) => {
    const count = 3 + Math.floor(random() * 4);
    const ms = pick([60, 80, 100, 120, 150]);
    return Array.from({ length: count }, (_, number) => {
      const w = Math.max(6, Math.round(whole.w * (0.35 + random() * 0.6)));
      const h = Math.max(8, Math.round(whole.h * (0.55 + random() * 0.4)));
      // Figures stand near the ground.
      const inset = {
        x: Math.floor((whole.w - w) * (0.3 + random() * 0.4)),
        y: Math.max(0, whole.h - h - (random() < 0.8 ? 0 : Math.floor(random() * 3))),
      };
      return { clip, number, w, h, inset, ms };
    });
  });
  if (grid) {
    const columns = 4 + Math.floor(random() * 4);
    const rows = Math.ceil(figures.length / columns);
    const frames = figures.map(({ clip, number, w, h, inset, ms }, k): KnownFrame & { drawn: Rect } => {
      const rect = { x: (k % columns) * whole.w, y: Math.floor(k / columns) * whole.h, ...whole };
      return {
        name: `${clip}_${number}`,
        clip,
        number,
        rect,
        turned: false,
        inset: { x: 0, y: 0 },
        size: whole,
        origin: { x: whole.w / 2, y: whole.h },
        ms,
        drawn: { x: rect.x + inset.x, y: rect.y + inset.y, w, h },
      };
    });
    const [width, height] = [columns * whole.w, rows * whole.h];
    return {
      width,
      height,
      frames,
      mixed: false,
      grid: { cell: whole, columns },
      coverage: drawn(
        width,
        height,
        frames.map((frame) => frame.drawn),
      ),
    };
  }
  const gap = pick([1, 2, 2, 4]);
  const width = 160 + 16 * Math.floor(random() * 4);
  let x = gap;
  let y = gap;
  let row = 0;
  const turns = random() < 0.25;
  const mixed = random() < 0.4;
  const frames = figures.map(({ clip, number, w, h, inset, ms }): KnownFrame => {
    const turned = turns && random() < 0.4;
    const stored = turned ? { w: h, h: w } : { w, h };
    if (x + stored.w + gap > width) {
      x = gap;
      y += row + gap;
      row = 0;
    }
    const rect = { x, y, ...stored };
    x += stored.w + gap;
    row = Math.max(row, stored.h);
    const size = trims ? whole : { w, h };
    return {
      name: `${clip}_${number}`,
      clip,
      number,
      rect,
      turned,
      inset: trims ? inset : { x: 0, y: 0 },
      size,
      origin: { x: Math.round(size.w) / 2, y: size.h },
      ms,
    };
  });
  const height = Math.ceil((y + row + gap) / 8) * 8;
  return {
    width,
    height,
    frames: mixed ? shuffled(frames, random) : frames,
    mixed,
    grid: null,
    coverage: drawn(
      width,
      height,
      frames.map(({ rect }) => rect),
    ),
  };
}

function drawn(width: number, height: number, rects: readonly Rect[]): Coverage {
  const pixels = clearPixels(width, height);
  for (const { x, y, w, h } of rects)
    for (let row = 0; row < h; row++)
      for (let column = 0; column < w; column++) {
        const dx = (column + 0.5) / w - 0.5;
        const dy = (row + 0.5) / h - 0.5;
        if (dx * dx + dy * dy <= 0.3) pixels.bytes[((y + row) * width + x + column) * 4 + 3] = 255;
      }
  return coverageOf(pixels);
}

export const picker =
  (random: Random) =>
  <T>(list: readonly T[]): T =>
    list[Math.floor(random() * list.length)] as T;

function shuffled<T>(list: readonly T[], random: Random): T[] {
  const out = [...list];
  for (let k = out.length - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [out[k], out[other]] = [out[other] as T, out[k] as T];
  }
  return out;
}
