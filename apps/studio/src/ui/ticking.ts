/** One shared beat for all small animations of a screen, so that those of one movement stay in step. */
import { useSyncExternalStore } from "react";

const BEAT = 100; // ms

let beats = 0;
let timer: ReturnType<typeof setInterval> | undefined;
const listeners = new Set<() => void>();

function listen(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(() => {
    beats++;
    for (const each of listeners) each();
  }, BEAT);
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
}

const still = () => () => {};

/** Beats so far, ten per second; 0 if there is nothing to move, or with reduced motion. */
export function useBeat(moves: boolean): number {
  const moving = moves && typeof matchMedia !== "undefined" && !matchMedia("(prefers-reduced-motion: reduce)").matches;
  return useSyncExternalStore(
    moving ? listen : still,
    () => (moving ? beats : 0),
    () => 0,
  );
}
