import type { Clip, Micros } from "@caravan/core/model";
import { written } from "../../ui/number-field";

/** The time of all steps once through. */
export function totalOf(clip: Clip): Micros {
  return clip.steps.reduce((sum, step) => sum + step.duration, 0);
}

/** `0.80 s`, with as many decimals as it needs, two at least. */
export function secondsInWords(micros: Micros): string {
  const seconds = micros / 1_000_000;
  const short = seconds.toFixed(2);
  return `${Number(short) === seconds ? short : written(seconds, 3)} s`;
}
