import type { Pixels } from "../raster";

/** One complete picture of an animation: the canvas while it shows. */
export interface AnimationFrame {
  readonly pixels: Pixels;
  /** Milliseconds. */
  readonly ms: number;
}

/** A file with pictures that follow each other in time. */
export interface Animation {
  readonly width: number;
  readonly height: number;
  /** How many pictures the file says it has, damaged ones too. */
  readonly count: number;
  /** How often it plays; 0: forever. */
  readonly plays: number;
  /** Composes the pictures in order; damaged ones are left out and reported to `onDamage` by their number from 0. */
  frames(onDamage: (index: number, why: string) => void): Generator<AnimationFrame>;
}

/** As `Animation`, of a kind whose pictures take a while to decode. */
export interface AwaitedAnimation extends Omit<Animation, "frames"> {
  frames(onDamage: (index: number, why: string) => void): AsyncGenerator<AnimationFrame>;
}

/** Files use 0 for "as quickly as possible"; nobody means that for art, and browsers show such frames for about this long. */
export const UNSAID_DELAY = 100; // ms
