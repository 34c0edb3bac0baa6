"use client";

import { msFromMicros } from "@caravan/core/model";
import { useCountFrom } from "../ui/counting";
import { written } from "../ui/number-field";
import { facts, t } from "../ui/words";
import { stepAfter, timelineOfPlaying, usePlayerClock } from "./player-state";
import type { Playing } from "./playing";

/** Describes what is on the stage, in words and numbers; announced to screen readers while the player is paused. */
export function Reading({ playing }: { playing: Playing | null }) {
  const running = usePlayerClock((state) => state.running);
  const countFrom = useCountFrom();
  // A string, so that it renders again only when its text changes.
  const said = usePlayerClock(({ elapsed }) => (playing ? readingOf(playing, elapsed, countFrom) : ""));
  if (!playing)
    return <p className="border-t border-line px-3 py-2 text-muted">{t("Nothing to play yet: add art, cut it, pick frames.")}</p>;
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
        <span className="truncate">{facts(frame, playing.note)}</span>
        <span className="shrink-0">
          {fired && <strong className="mr-2 rounded-box bg-now px-1.5 text-on-now">{fired}</strong>}
          {time}
        </span>
      </p>
      <p className="truncate text-small text-muted">{facts(turningInWords(playing), next)}</p>
    </div>
  );
}

function turningInWords({ turning }: Playing): string {
  if (!turning) return "";
  const { wanted, shown } = turning;
  return wanted === shown ? t("Facing {shown}", { shown }) : t("Facing {shown}, because {wanted} is missing", { shown, wanted });
}

function readingOf(playing: Playing, elapsed: number, countFrom: number): string {
  const timeline = timelineOfPlaying(playing);
  const { step, pass, ended, visible } = timeline.shownAt(Math.round(elapsed));
  const shown = playing.steps[step];
  const frame = ended && !visible ? t("nothing shown") : (shown?.frame?.name ?? t("missing frame"));
  const which = { step: step + countFrom, count: playing.steps.length };
  const place = ended
    ? t("step {step} of {count} · ended", which)
    : pass > 0
      ? t("step {step} of {count} · loop {pass}", { ...which, pass: pass + 1 })
      : t("step {step} of {count}", which);
  const after = stepAfter(playing, elapsed);
  const next =
    after === null
      ? ended
        ? t("It has ended.")
        : t("Then it ends: {end}.", { end: endInWords(playing) })
      : t("Next is step {after}.", { after: after + countFrom });
  return `${frame}\n${place}\n${written(msFromMicros(shown?.duration ?? 0), 3)} ms\n${shown?.events?.join(", ") ?? ""}\n${next}`;
}

function endInWords({ rules: { after } }: Playing): string {
  return after === "hide" ? t("nothing is shown") : after === "first" ? t("its first step is shown") : t("it holds its last step");
}
