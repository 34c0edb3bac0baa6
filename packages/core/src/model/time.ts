import { t } from "../words";
import { CaravanError } from "./error";

/** Whole microseconds: the only unit of time inside the core. */
export type Micros = number;

/** One hour: no step of a sprite animation is meant to be longer, so a longer one is a slip of the hand. */
export const LONGEST_STEP: Micros = 3_600_000_000;

/** Milliseconds as files and people write them, to the nearest whole microsecond. */
export function microsFromMs(ms: number): Micros {
  return Math.round(ms * 1000);
}

/** Whole microseconds as milliseconds with at most three decimals. */
export function msFromMicros(micros: Micros): number {
  return micros / 1000;
}

/** A duration typed by a person or read from a file. Throws `bad-duration` unless it is above zero and at most an hour. */
export function checkedDuration(micros: number, where: string): Micros {
  const whole = Math.round(micros);
  if (!Number.isFinite(micros) || whole < 1 || whole > LONGEST_STEP)
    throw new CaravanError(
      "bad-duration",
      where,
      t("A step must last more than 0 ms and at most one hour."),
      t("Type a time such as 100 ms."),
    );
  return whole;
}

/**
 * The tick nearest to a time in microseconds, of a clock with this many per second. What begins then begins at this tick, so that rounding
 * never adds up.
 */
export function tickAt(micros: Micros, ticksPerSecond: number): number {
  return Math.round((micros * ticksPerSecond) / 1_000_000);
}
