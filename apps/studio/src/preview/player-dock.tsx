"use client";

import { msFromMicros } from "@caravan/core/model";
import { ChevronLeft, ChevronRight, Minus, Plus } from "lucide-react";
import { useState } from "react";
import { Button, IconButton } from "../ui/button";
import { Choice } from "../ui/choice";
import { useCountFrom } from "../ui/counting";
import { useKeys } from "../ui/keys";
import { written } from "../ui/number-field";
import { Tick } from "../ui/tick";
import { SPEEDS, stepBy, timelineOfPlaying, togglePlaying, usePlayer, usePlayhead } from "./player-state";
import type { Playing } from "./playing";
import { Stage } from "./stage";
import { neighbourZoom } from "./stage-scene";

/** The player: at the top right of every stop, it plays what is being worked on. */
export function PlayerDock({ playing }: { playing: Playing | null }) {
  const running = usePlayer((state) => state.running);
  const speed = usePlayer((state) => state.speed);
  const ground = usePlayer((state) => state.ground);
  const origin = usePlayer((state) => state.origin);
  const [zoom, setZoom] = useState(1);
  const over = usePlayhead(({ elapsed }) => playing !== null && elapsed >= timelineOfPlaying(playing).end);
  const zoomBy = (direction: 1 | -1) => usePlayer.setState({ zoom: neighbourZoom(zoom, direction) });
  const faster = (direction: 1 | -1) => {
    const at = SPEEDS.findIndex((each) => each >= speed) + direction;
    usePlayer.setState({ speed: SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, at))] ?? 1 });
  };

  useKeys("Player", [
    { keys: "Space", label: "Play or pause", run: () => togglePlaying(playing) },
    { keys: ",", label: "One step back", run: () => stepBy(playing, -1) },
    { keys: ".", label: "One step on", run: () => stepBy(playing, 1) },
    { keys: "<", label: "Slower", run: () => faster(-1) },
    { keys: ">", label: "Faster", run: () => faster(1) },
    { keys: "Mod+Alt+ArrowUp", label: "Player: larger", run: () => zoomBy(1) },
    { keys: "Mod+Alt+ArrowDown", label: "Player: smaller", run: () => zoomBy(-1) },
  ]);

  return (
    <section aria-label="Player" className="flex shrink-0 flex-col border-b border-line">
      <div className="relative h-[230px]">
        <Stage playing={playing} onZoom={setZoom} />
        <div className="absolute top-2 left-2 flex items-center rounded-box border border-line bg-raised">
          <IconButton label="Player: smaller" look="quiet" onClick={() => zoomBy(-1)}>
            <Minus size={14} />
          </IconButton>
          <span className="number min-w-8 text-center text-small">{zoomInWords(zoom)}</span>
          <IconButton label="Player: larger" look="quiet" onClick={() => zoomBy(1)}>
            <Plus size={14} />
          </IconButton>
        </div>
      </div>
      <div className="flex items-center gap-2 px-3 pt-3">
        <IconButton label="One step back" onClick={() => stepBy(playing, -1)} disabled={!playing}>
          <ChevronLeft size={16} />
        </IconButton>
        <Button look="now" className="min-w-20" onClick={() => togglePlaying(playing)} disabled={!playing} aria-keyshortcuts="Space">
          {over ? "Play again" : running ? "Pause" : "Play"}
        </Button>
        <IconButton label="One step on" onClick={() => stepBy(playing, 1)} disabled={!playing}>
          <ChevronRight size={16} />
        </IconButton>
        <label className="ml-auto flex items-center gap-1.5">
          <span className="text-small text-muted">speed</span>
          <select
            className="number min-h-7 rounded-box border border-line bg-raised px-1 text-body"
            value={speed}
            onChange={(event) => usePlayer.setState({ speed: Number(event.target.value) })}
          >
            {SPEEDS.map((each) => (
              <option key={each} value={each}>
                {each}×
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="flex items-center justify-between gap-2 px-3 py-2">
        <Choice
          label="Ground"
          value={ground}
          options={[
            ["check", "Check"],
            ["flat", "Flat"],
          ]}
          onChange={(next) => usePlayer.setState({ ground: next })}
        />
        <Tick label="Origin" checked={origin} onChange={(next) => usePlayer.setState({ origin: next })} />
      </div>
      <Reading playing={playing} />
    </section>
  );
}

/** What is on the stage, in words and numbers; told to screen readers when it stands still. */
function Reading({ playing }: { playing: Playing | null }) {
  const running = usePlayer((state) => state.running);
  const countFrom = useCountFrom();
  // A string, so that this is drawn again only when what it says changes.
  const said = usePlayhead(({ elapsed }) => (playing ? readingOf(playing, elapsed, countFrom) : ""));
  if (!playing) return <p className="border-t border-line px-3 py-2 text-muted">Nothing to play yet: bring art in, cut it, pick frames.</p>;
  const [frame, place, time, fired] = said.split("\n");
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
    </div>
  );
}

function readingOf(playing: Playing, elapsed: number, countFrom: number): string {
  const timeline = timelineOfPlaying(playing);
  const { step, pass, ended, visible } = timeline.shownAt(Math.round(elapsed));
  const shown = playing.steps[step];
  const frame = ended && !visible ? "nothing shown" : (shown?.frame?.name ?? "missing frame");
  const place = `step ${step + countFrom} of ${playing.steps.length}${ended ? " · ended" : pass > 0 ? ` · pass ${pass}` : ""}`;
  return `${frame}\n${place}\n${written(msFromMicros(shown?.duration ?? 0), 3)} ms\n${shown?.events?.join(", ") ?? ""}`;
}

function zoomInWords(zoom: number): string {
  return zoom === 0.25 ? "¼×" : zoom === 0.5 ? "½×" : `${zoom}×`;
}
