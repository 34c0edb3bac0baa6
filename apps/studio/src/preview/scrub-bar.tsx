"use client";

import { msFromMicros } from "@caravan/core/model";
import { Slider } from "radix-ui";
import { useMemo } from "react";
import { written } from "../ui/number-field";
import { t } from "../ui/words";
import { pause, seek } from "./clock";
import { timelineOfPlaying, usePlayerClock } from "./player-state";
import type { Playing } from "./playing";

/** A bar for the time of one loop, to drag along, with events marked on it. Dragging pauses. Later loops use the same bar. */
export function ScrubBar({ playing }: { playing: Playing | null }) {
  const timeline = playing && timelineOfPlaying(playing);
  const length = timeline?.firstPass ?? 1;
  const running = usePlayerClock((state) => state.running);
  const at = usePlayerClock(({ elapsed }) => (timeline ? shownTime(roundAt(timeline, elapsed) / 1000, length / 1000, running) : 0));
  const most = Math.max(1, Math.ceil(length / 1000) - 1);
  const marks = useMemo(() => (playing ? eventsOf(playing) : []), [playing]);
  return (
    <div className="relative mx-3 mt-2 h-4">
      {marks.map(({ share, names }) => (
        <span
          key={share}
          aria-hidden
          title={names}
          className="absolute top-0 h-1.5 w-1.5 -translate-x-1/2 rotate-45 bg-lapis"
          style={{ left: `${share * 100}%` }}
        />
      ))}
      <Slider.Root
        value={[at]}
        max={most}
        disabled={!playing}
        onKeyDown={(event) => {
          const by = stepOf(event.key, most);
          if (by === null || !timeline) return;
          event.preventDefault();
          pause(usePlayerClock);
          // The thumb of a running bar lags behind the clock, so the key counts from the clock.
          const now = Math.floor(roundAt(timeline, usePlayerClock.getState().elapsed) / 1000);
          seek(usePlayerClock, Math.min(most, Math.max(0, now + by)) * 1000);
        }}
        onValueChange={([ms = 0]) => {
          pause(usePlayerClock);
          seek(usePlayerClock, ms * 1000);
        }}
        // Contained, and its thumb centred by a margin: otherwise each move of that makes Chromium arrange all layers of the page anew.
        className="absolute inset-x-0 top-1 flex h-3 contain-layout cursor-ew-resize touch-none items-center select-none pointer-coarse:-top-0.5 pointer-coarse:h-6 [&>span:last-child]:-ml-[3px] [&>span:last-child]:transform-none!"
      >
        <Slider.Track className="h-0.5 grow bg-line-strong" />
        <Slider.Thumb
          aria-label={t("Position in the loop")}
          aria-valuetext={t("{at} of {length} ms", { at: written(at, 0), length: written(msFromMicros(length), 0) })}
          className="block h-3 w-1.5 rounded-xs bg-now"
        />
      </Slider.Root>
    </div>
  );
}

/** How far a key moves the time, in ms; null if it does not. */
function stepOf(key: string, most: number): number | null {
  switch (key) {
    case "ArrowLeft":
    case "ArrowDown":
      return -1;
    case "ArrowRight":
    case "ArrowUp":
      return 1;
    case "PageDown":
      return -Math.ceil(most / 10);
    case "PageUp":
      return Math.ceil(most / 10);
    case "Home":
      return -most;
    case "End":
      return most;
    default:
      return null;
  }
}

/** A running thumb moves at most a hundred times per loop: nobody sees more, and it would cost time. */
function shownTime(ms: number, length: number, running: boolean): number {
  const grain = running ? Math.max(1, length / 100, 40) : 1;
  return Math.floor(Math.floor(ms / grain) * grain);
}

/** The position of a time in its loop. */
function roundAt({ firstPass, laterPass, end }: ReturnType<typeof timelineOfPlaying>, elapsed: number): number {
  const now = Math.min(elapsed, end);
  if (now < firstPass) return now;
  if (now >= end) return firstPass;
  return firstPass - laterPass + ((now - firstPass) % laterPass);
}

/** Events of the first round, as shares of its time. */
function eventsOf(playing: Playing): { readonly share: number; readonly names: string }[] {
  if (!playing.steps.some(({ events }) => events?.length)) return [];
  const timeline = timelineOfPlaying(playing);
  return [...timeline.entries(-1, timeline.firstPass - 1)].flatMap(({ at, step }) => {
    const names = playing.steps[step]?.events;
    return names?.length ? [{ share: at / timeline.firstPass, names: names.join(", ") }] : [];
  });
}
