import type { Clip, Micros } from "@caravan/core/model";
import { written } from "../../ui/number-field";

/** Summed once per list of steps, which never changes: ribbons ask at every drawing. */
const totals = new WeakMap<Clip["steps"], Micros>();

/** The time of all steps once through. */
export function totalOf({ steps }: Clip): Micros {
  const known = totals.get(steps);
  if (known !== undefined) return known;
  const total = steps.reduce((sum, step) => sum + step.duration, 0);
  totals.set(steps, total);
  return total;
}

/** `0.80 s`, with as many decimals as it needs, two at least. */
export function secondsInWords(micros: Micros): string {
  const seconds = micros / 1_000_000;
  const short = seconds.toFixed(2);
  return `${Number(short) === seconds ? short : written(seconds, 3)} s`;
}
