/** Measures how long tracing outlines takes, and how many corners it needs against greedy simplification with the same tolerance. */
import { maskOf, traced } from "@caravan/core/outline";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { seeded } from "../examples/draw/canvas";
import { openProject } from "../packages/cli/src/project";
import { boundaryOf } from "../packages/core/src/outline/boundary";
import { greedyCorners } from "../packages/core/src/outline/greedy.fixture";
import { islandsOf, type Mask } from "../packages/core/src/outline/mask";
import { type Figure, median, print } from "./figures";

const usual = { withinPx: 1, corners: 24, leastPx: 4 } as const;

/** A round figure with limbs and a rough rim. */
function figure(side: number, rough: number, random: () => number): Mask {
  const pixels: Pixels = clearPixels(side, side);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const [dx, dy] = [x - side / 2, y - side / 2];
      const angle = Math.atan2(dy, dx);
      const rim = side * 0.36 * (1 + 0.18 * Math.sin(5 * angle) + 0.05 * Math.sin(17 * angle));
      if (Math.hypot(dx, dy) < rim + (random() - 0.5) * rough) pixels.bytes[(y * side + x) * 4 + 3] = 255;
    }
  return maskOf(pixels, { x: 0, y: 0, w: side, h: side }, 1);
}

/** Every frame of the demo. */
function demoMasks(): Mask[] {
  const { project, art } = openProject("examples/tamarisk-road");
  return project.sources.flatMap((source) =>
    source.frames.flatMap((frame) => {
      if (frame.dropped || frame.empty) return [];
      const { pixels, rect } = art.figure(source, frame);
      return [maskOf(pixels, rect, 1)];
    }),
  );
}

const random = seeded(11);
const demo = demoMasks();
const many = Array.from({ length: 2000 }, (_, k) => demo[k % demo.length] as Mask);
const large = [figure(256, 0, random), figure(256, 8, random)];
const copy = { name: "copying as many masks", ms: median(() => many.map(({ bytes }) => bytes.slice())) };
const corners = (masks: readonly Mask[], withinPx: number) => {
  const mine = masks.flatMap((mask) => traced(mask, { ...usual, withinPx }).polygons.map(({ length }) => length));
  const greedy = masks.flatMap((mask) =>
    islandsOf(mask, usual.leastPx).map((island) => greedyCorners(boundaryOf(island), withinPx).length),
  );
  const sum = (counts: readonly number[]) => counts.reduce((all, each) => all + each, 0);
  return `${(sum(mine) / mine.length).toFixed(1)} corners, greedily ${(sum(greedy) / greedy.length).toFixed(1)} (${(sum(mine) / sum(greedy)).toFixed(2)} ×)`;
};

const figures: Figure[] = [
  ...[0, 1, 2].map((withinPx) => ({
    name: `2,000 frames of the demo, within ${withinPx} px`,
    ms: median(() => many.map((mask) => traced(mask, { ...usual, withinPx })), 3),
    against: copy,
    note: withinPx > 0 ? corners(demo, withinPx) : "",
  })),
  ...large.flatMap((mask, k) =>
    [1, 2].map((withinPx) => ({
      name: `one of 256×256, ${k === 0 ? "smooth" : "rough"}, within ${withinPx} px`,
      ms: median(() => traced(mask, { ...usual, withinPx }), 5),
      note: corners([mask], withinPx),
    })),
  ),
];
console.log("\nOutlines (baseline: copying the masks)");
print(figures);
