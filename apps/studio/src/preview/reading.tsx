"use client";

import { msFromMicros } from "@caravan/core/model";
import { useCountFrom } from "../ui/counting";
import { written } from "../ui/number-field";
import { stepAfter, timelineOfPlaying, usePlayerClock } from "./player-state";
import type { Playing } from "./playing";

/** What is on the stage, in words and numbers; told to screen readers when it stands still. */
export function Reading({ playing }: { playing: Playing | null }) {
  const running = usePlayerClock((state) => state.running);
  const countFrom = useCountFrom();
  // A string, so that this is drawn again only when what it says changes.
  const said = usePlayerClock(({ elapsed }) => (playing ? readingOf(playing, elapsed, countFrom) : ""));
  if (!playing) return <p className="border-t border-line px-3 py-2 text-muted">Nothing to play yet: bring art in, cut it, pick frames.</p>;
  const [frame, place, time, fired, next] = said.split("\n");
  return (
    <div className="border-t border-line px-3 py-2" aria-live={running ? "off" : "polite"}>
      <p className="flex justify-between gap-2">
        <strong className="truncate">{playing.title}</strong>
        <span className="shrink-0" data-testid="reading">
          {place}
        </span>
      </p>
      <p className="flex justify-between gap-2 text-muted">
        <span className="truncate">
          {frame}
          {playing.note && ` · ${playing.note}`}
        </span>
        <span className="shrink-0">
          {fired && <strong className="mr-2 rounded-box bg-now px-1.5 text-on-now">{fired}</strong>}
          {time}
        </span>
      </p>
      <p className="truncate text-small text-muted">
        {turningInWords(playing)}
        {next}
      </p>
    </div>
  );
}

function turningInWords({ turning }: Playing): string {
  if (!turning) return "";
  const { wanted, shown } = turning;
  return `Looks ${shown}${wanted === shown ? "" : `, since ${wanted} is missing`} · `;
}

function readingOf(playing: Playing, elapsed: number, countFrom: number): string {
  const timeline = timelineOfPlaying(playing);
  const { step, pass, ended, visible } = timeline.shownAt(Math.round(elapsed));
  const shown = playing.steps[step];
  const frame = ended && !visible ? "nothing shown" : (shown?.frame?.name ?? "missing frame");
  const place = `step ${step + countFrom} of ${playing.steps.length}${ended ? " · ended" : pass > 0 ? ` · loop ${pass + 1}` : ""}`;
  const after = stepAfter(playing, elapsed);
  const next = after === null ? (ended ? "It has ended." : `Then it ends: ${endInWords(playing)}.`) : `Next is step ${after + countFrom}.`;
  return `${frame}\n${place}\n${written(msFromMicros(shown?.duration ?? 0), 3)} ms\n${shown?.events?.join(", ") ?? ""}\n${next}`;
}

function endInWords({ rules: { after } }: Playing): string {
  return after === "hide" ? "nothing is shown" : after === "first" ? "its first step is shown" : "it holds its last step";
}
