/**
 * A clock that runs independently of whatever paints it. Each running stage has one; several painters can follow the same clock within
 * one display frame.
 */

import type { Micros } from "@caravan/core/model";
import { AT_START, advanced, isOver, movedTo, type Playhead, type Timeline, timeAt } from "@caravan/core/playback";
import { useEffect } from "react";
import { create, type StoreApi, type UseBoundStore } from "zustand";

export interface ClockState extends Playhead {
  readonly running: boolean;
}

export type Clock = UseBoundStore<StoreApi<ClockState>>;

export function makeClock(running: boolean): Clock {
  return create<ClockState>(() => ({ ...AT_START, running }));
}

export function seek(clock: Clock, at: Micros): void {
  clock.setState((state) => movedTo(state, at));
}

export function pause(clock: Clock): void {
  clock.setState({ running: false });
}

/** Pauses or continues; an ended clip restarts. */
export function togglePlaying(clock: Clock, timeline: Timeline | null): void {
  const state = clock.getState();
  if (state.running && timeline && isOver(timeline, state)) seek(clock, 0);
  else clock.setState({ running: !state.running });
}

/** Pauses and moves to the start of the next or previous step; before the first comes the last of the pass. */
export function stepBy(clock: Clock, timeline: Timeline, direction: 1 | -1): void {
  pause(clock);
  const now = timeAt(clock.getState());
  const span = timeline.spanAt(Math.min(now, Number.isFinite(timeline.end) ? timeline.end - 1 : now));
  if (direction === 1) seek(clock, span.until >= timeline.end ? 0 : span.until);
  else if (now > 0 && span.at > 0) seek(clock, timeline.spanAt(span.at - 1).at);
  else seek(clock, timeline.spanAt(timeline.firstPass - 1).at);
}

/** Advances a clock at every display refresh while it runs and its timeline has not ended. */
export function useTicking(clock: Clock, timeline: Timeline | null): void {
  useEffect(() => {
    if (!timeline) return;
    let last: number | null = null;
    let request = 0;
    const goesOn = () => clock.getState().running && !isOver(timeline, clock.getState());
    const tick = (now: number) => {
      request = 0;
      const since = last;
      last = goesOn() ? now : null;
      // Time is real time: after a stall it catches up.
      if (last !== null && since !== null) clock.setState((state) => advanced(state, Math.max(0, now - since) * 1000));
      soon();
    };
    // While nothing moves no refresh is requested, so that a still page uses no power.
    const soon = () => {
      if (request === 0 && (goesOn() || last !== null)) request = requestAnimationFrame(tick);
    };
    soon();
    const stop = clock.subscribe(soon);
    return () => {
      cancelAnimationFrame(request);
      stop();
    };
  }, [clock, timeline]);
}
