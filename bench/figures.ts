/** Timing for people: the median of some runs, and how it compares to a baseline measured in the same process. */
import { performance } from "node:perf_hooks";

export interface Figure {
  readonly name: string;
  readonly ms: number;
  /** The baseline, and how many times as long this takes. */
  readonly against?: { readonly name: string; readonly ms: number };
  readonly note?: string;
}

/** The median of `runs` runs, after one that warms up. */
export function median(work: () => unknown, runs = 7): number {
  work();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return times.toSorted((a, b) => a - b)[runs >> 1] as number;
}

export function print(figures: readonly Figure[]): void {
  const width = Math.max(...figures.map(({ name }) => name.length));
  for (const { name, ms, against, note } of figures) {
    const ratio = against ? `  ${(ms / against.ms).toFixed(2)} × ${against.name} (${against.ms.toFixed(1)} ms)` : "";
    console.log(`${name.padEnd(width)}  ${ms.toFixed(1).padStart(8)} ms${ratio}${note ? `  ${note}` : ""}`);
  }
}
