/** What is measured: sheets and frames like those that people have. Seeded, the same every time. */
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
