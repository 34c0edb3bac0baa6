/** Typical sheets and frames to measure. Seeded, the same every time. */
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { seeded } from "../examples/draw/canvas";

/** A sheet of `cells` × `cells` blobs in a palette, some cells left empty. */
export function sheet(side: number, cells: number): Pixels {
  const random = seeded(5);
  const pixels = clearPixels(side, side);
  const cell = Math.floor(side / cells);
  for (let row = 0; row < cells; row++)
    for (let column = 0; column < cells; column++) {
      if (random() < 0.1) continue;
      const hue = random() * 200;
      const radius = cell * (0.25 + random() * 0.2);
      for (let y = 0; y < cell; y++)
        for (let x = 0; x < cell; x++) {
          const far = Math.hypot(x - cell / 2, y - cell / 2);
          if (far > radius) continue;
          const at = ((row * cell + y) * side + column * cell + x) * 4;
          pixels.bytes.set([hue, Math.floor(far / 4) * 16, 40 + (column % 8) * 20, 255], at);
        }
    }
  return pixels;
}

/** A sheet of walking figures in a grid, every row another figure, no two frames alike. */
export function walkers(columns: number, rows: number, cell: number, seed: number): Pixels {
  const random = seeded(seed + 100);
  const pixels = clearPixels(columns * cell, rows * cell);
  const paint = (x: number, y: number, colour: readonly [number, number, number]) => {
    pixels.bytes.set([...colour, 255], (Math.floor(y) * pixels.width + Math.floor(x)) * 4);
  };
  for (let row = 0; row < rows; row++) {
    const [broad, tall] = [cell * (0.1 + random() * 0.12), cell * (0.45 + random() * 0.35)];
    const colours = Array.from({ length: 5 }, () => [40 + random() * 200, 40 + random() * 200, 40 + random() * 200] as const);
    for (let column = 0; column < columns; column++) {
      const phase = ((column % 8) / 8) * Math.PI * 2;
      const [left, foot] = [column * cell + cell / 2, (row + 1) * cell - 3];
      const leg = Math.sin(phase) * broad * 0.8;
      for (let y = 0; y < tall; y++) {
        const part = y / tall;
        const half = part < 0.35 ? broad * 0.35 : broad * (0.7 + 0.3 * Math.sin(part * 5 + phase));
        for (let x = -half; x < half; x++) {
          const sway = part < 0.35 ? (x < 0 ? leg : -leg) * (1 - part / 0.35) : Math.cos(phase) * part * 2;
          paint(left + x + sway, foot - y, colours[(Math.floor(part * 4) + (Math.floor(x + column) % 3 === 0 ? 1 : 0)) % 5] as never);
        }
      }
      // A clasp that is elsewhere on every frame.
      paint(left - 3 + (column % 7), foot - tall * 0.5 - Math.floor(column / 7), [255, 255, 255]);
    }
  }
  return pixels;
}
