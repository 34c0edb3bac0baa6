/**
 * `npm run bench:packing`: measures how full packed pages are and how long packing takes, against the area bound and plain greedy
 * placement.
 */
import { packPages } from "@caravan/core/pack";
import { type Size, USUAL_PACKING } from "../packages/core/src/model";
import { fullestPage } from "../packages/core/src/pack/fixed-page";
import { PACKING_SETS } from "./packing-sets";

const OPTIONS = { ...USUAL_PACKING, paddingPx: 0, maxPx: 16_384 };
const SEEDS = [1, 2, 3];

const area = (items: readonly Size[]) => items.reduce((sum, { w, h }) => sum + w * h, 0);
const percent = (share: number) => `${(100 * share).toFixed(2)} %`;

/** One width, one order, no search: what a simple packer does. */
function greedy(items: readonly Size[]): number {
  const side = Math.ceil(Math.sqrt(area(items)) * 1.02);
  for (let h = side; ; h += Math.max(1, Math.round(side / 200))) {
    const layout = fullestPage(items, { w: side, h }, false, 0);
    if (layout.placed === items.length) return area(items) / (layout.usedW * layout.usedH);
  }
}

for (const [count, efforts] of [
  [100, ["normal", "high"]],
  [400, ["normal", "high"]],
  [2000, ["normal"]],
  [10_000, ["normal"]],
] as const)
  for (const effort of efforts) {
    console.log(`\n${count} frames, effort ${effort}: filled, of the area bound (100 %)`);
    const shares: number[] = [];
    for (const { name, make, known } of PACKING_SETS) {
      let ms = 0;
      const own = SEEDS.map((seed) => {
        const items = make(count, seed);
        const started = performance.now();
        const packed = packPages(items, { ...OPTIONS, effort });
        ms += performance.now() - started;
        if (packed.kind !== "placed") throw new Error("All of these fit.");
        return area(items) / packed.pages.reduce((sum, { w, h }) => sum + w * h, 0);
      });
      if (!known) shares.push(...own);
      const plain = count <= 400 ? `  plain greedy ${percent(greedy(make(count, SEEDS[0] as number)))}` : "";
      console.log(`  ${name.padEnd(34)} ${own.map(percent).join("  ")}  ${(ms / SEEDS.length).toFixed(0).padStart(6)} ms${plain}`);
    }
    shares.sort((a, b) => a - b);
    console.log(
      `  median ${percent(shares[shares.length >> 1] as number)}, least ${percent(shares[0] as number)} (sets whose optimum is known left out)`,
    );
  }
