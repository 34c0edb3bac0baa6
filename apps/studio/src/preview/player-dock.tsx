"use client";

import { turnedBy } from "@caravan/core/facing";
import { isOver } from "@caravan/core/playback";
import { ChevronLeft, ChevronRight, LocateFixed, Maximize2, Minimize2, Minus, Plus, RotateCcw, RotateCw, SkipForward } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { useProject } from "../project/open-project";
import { useSeenArt } from "../project/seen-art";
import { useView } from "../project/view";
import { Button, IconButton } from "../ui/button";
import { useKeys } from "../ui/keys";
import { Select } from "../ui/select";
import { Tick } from "../ui/tick";
import { t } from "../ui/words";
import { seek, stepBy, togglePlaying, useTicking } from "./clock";
import { HiddenLayersWord } from "./layers-shown";
import type { ShownMarks } from "./marks-scene";
import { IN_THE_MIDDLE, SPEEDS, seekNextEvent, timelineOfPlaying, usePlayer, usePlayerClock } from "./player-state";
import type { Playing } from "./playing";
import { Reading } from "./reading";
import { ScrubBar } from "./scrub-bar";
import { Stage } from "./stage";
import { StageEdge, toggleWhole, useStageRoom } from "./stage-room";
import { neighbourZoom } from "./stage-scene";
import { StageSettings } from "./stage-settings";

/** The player at the top right of every stop. It plays whatever is being worked on. */
export function PlayerDock({ playing }: { playing: Playing | null }) {
  const running = usePlayerClock((state) => state.running);
  const speed = usePlayerClock((state) => state.speed);
  const origin = usePlayer((state) => state.origin);
  const [zoom, setZoom] = useState(1);
  const [picking, setPicking] = useState(false);
  const height = useStageRoom((room) => room.height);
  const whole = useStageRoom((room) => room.whole);
  const atMarks = useView((view) => view.stop === "marks");
  const showsMarks = usePlayer((state) => (atMarks ? state.marks : state.marksElsewhere));
  const marks = useShownMarks(showsMarks);
  const hasKinds = useProject((project) => project.marks.length > 0);
  const isMoved = usePlayer((state) => state.pan !== IN_THE_MIDDLE);
  const timeline = playing && timelineOfPlaying(playing);
  const over = usePlayerClock((state) => timeline !== null && isOver(timeline, state));
  useTicking(usePlayerClock, timeline);
  // Another item starts at its beginning; an edit of the same item continues where it is.
  const key = playing?.key;
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the change of key that starts over
  useEffect(() => {
    seek(usePlayerClock, 0);
    usePlayer.setState({ pan: IN_THE_MIDDLE });
  }, [key]);
  const zoomBy = (direction: 1 | -1) => usePlayer.setState({ zoom: neighbourZoom(zoom, direction) });
  const faster = (direction: 1 | -1) => {
    const at = SPEEDS.findIndex((each) => each >= speed) + direction;
    usePlayerClock.setState({ speed: SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, at))] ?? 1 });
  };
  const turn = (by: 1 | -1) => {
    const turning = playing?.turning;
    if (turning) usePlayer.setState(({ facing }) => ({ facing: turnedBy(facing, turning.ways, by) }));
  };
  const hasEvents = playing?.steps.some(({ events }) => events?.length) ?? false;

  useKeys(
    t("Player"),
    [
      { keys: "Space", label: t("Play or pause"), run: () => togglePlaying(usePlayerClock, timeline) },
      { keys: ",", repeats: true, label: t("Previous step"), run: () => timeline && stepBy(usePlayerClock, timeline, -1) },
      { keys: ".", repeats: true, label: t("Next step"), run: () => timeline && stepBy(usePlayerClock, timeline, 1) },
      { keys: ";", label: t("Go to the next event"), run: () => playing && seekNextEvent(playing) },
      { keys: "<", repeats: true, label: t("Slower"), run: () => faster(-1) },
      { keys: ">", repeats: true, label: t("Faster"), run: () => faster(1) },
      { keys: "]", label: t("Turn the action clockwise"), run: () => turn(1) },
      { keys: "[", label: t("Turn the action the other way"), run: () => turn(-1) },
      { keys: "w", label: t("The player in the whole window, and back"), run: toggleWhole },
      { keys: "Mod+Alt+ArrowUp", repeats: true, label: t("Player: larger"), run: () => zoomBy(1) },
      { keys: "Mod+Alt+ArrowDown", repeats: true, label: t("Player: smaller"), run: () => zoomBy(-1) },
    ],
    { scope: "everywhere" },
  );

  useKeys(t("The whole window"), whole ? [{ keys: "Escape", label: t("Dock the player"), run: toggleWhole, whileTyping: true }] : [], {
    scope: "layer",
  });

  return (
    <section
      aria-label={t("Player")}
      className={whole ? "fixed inset-0 z-40 flex flex-col bg-paper" : "flex shrink-0 flex-col border-b border-line"}
    >
      <div
        className={`relative ${whole ? "min-h-0 grow" : "shrink-0"}`}
        style={whole ? undefined : { height, maxHeight: "calc(100vh - 240px)" }}
      >
        <Stage
          clock={usePlayerClock}
          playing={playing}
          onWheelZoom={zoomBy}
          onDoubleClick={toggleWhole}
          marks={marks}
          onZoom={setZoom}
          onColour={
            picking
              ? (colour) => {
                  usePlayer.setState({ ground: "flat", colour });
                  setPicking(false);
                }
              : null
          }
        />
        <div className="absolute top-2 left-2 flex items-center rounded-box border border-line bg-raised">
          <IconButton label={t("Player: smaller")} look="quiet" onClick={() => zoomBy(-1)}>
            <Minus size={14} />
          </IconButton>
          <span data-testid="player-zoom" className="number min-w-8 text-center text-small">
            {zoomInWords(zoom)}
          </span>
          <IconButton label={t("Player: larger")} look="quiet" onClick={() => zoomBy(1)}>
            <Plus size={14} />
          </IconButton>
          <IconButton
            label={whole ? t("Dock the player") : t("Player in the whole window")}
            look="quiet"
            onClick={toggleWhole}
            aria-keyshortcuts="w"
          >
            {whole ? <Minimize2 size={14} /> : <Maximize2 size={14} />}
          </IconButton>
          {isMoved && (
            <IconButton label={t("Centre the figure")} look="quiet" onClick={() => usePlayer.setState({ pan: IN_THE_MIDDLE })}>
              <LocateFixed size={14} />
            </IconButton>
          )}
        </div>
        {playing?.turning && (
          <div className="absolute top-2 right-2 flex items-center rounded-box border border-line bg-raised">
            <IconButton label={t("Turn the other way")} look="quiet" onClick={() => turn(-1)}>
              <RotateCcw size={14} />
            </IconButton>
            <span className="min-w-6 text-center text-small font-semibold">{playing.turning.shown}</span>
            <IconButton label={t("Turn clockwise")} look="quiet" onClick={() => turn(1)}>
              <RotateCw size={14} />
            </IconButton>
          </div>
        )}
        {!picking && <HiddenLayersWord />}
        {picking && (
          <p className="pointer-events-none absolute inset-x-2 bottom-2 rounded-box bg-raised px-2 py-1 text-small">
            {t("Click a colour of the art.")}
          </p>
        )}
      </div>
      {!whole && <StageEdge />}
      <ScrubBar playing={playing} />
      <div className="flex items-center gap-2 px-3 pt-1.5 pointer-coarse:gap-1">
        <IconButton label={t("Previous step")} onClick={() => timeline && stepBy(usePlayerClock, timeline, -1)} disabled={!playing}>
          <ChevronLeft size={16} />
        </IconButton>
        <Button
          look="now"
          className="min-w-20"
          onClick={() => togglePlaying(usePlayerClock, timeline)}
          disabled={!playing}
          aria-keyshortcuts="Space"
        >
          {over ? t("Play again") : running ? t("Pause") : t("Play")}
        </Button>
        <IconButton label={t("Next step")} onClick={() => timeline && stepBy(usePlayerClock, timeline, 1)} disabled={!playing}>
          <ChevronRight size={16} />
        </IconButton>
        {hasEvents && (
          <IconButton label={t("Go to the next event")} onClick={() => playing && seekNextEvent(playing)} aria-keyshortcuts=";">
            <SkipForward size={14} />
          </IconButton>
        )}
        <span className="ml-auto flex items-center gap-1.5">
          <span className="text-small text-muted pointer-coarse:sr-only">{t("speed")}</span>
          <Select
            label={t("speed")}
            className="number"
            value={speed}
            options={SPEEDS.map((each) => [each, `${each}×`] as const)}
            onChange={(next) => usePlayerClock.setState({ speed: next })}
          />
        </span>
      </div>
      <div className="flex flex-wrap items-center justify-between gap-x-2 px-3 py-1.5">
        <StageSettings onPickColour={() => setPicking(true)} />
        <Tick label={t("Origin")} checked={origin} onChange={(next) => usePlayer.setState({ origin: next })} />
        {(atMarks || hasKinds) && (
          <Tick
            label={t("Marks")}
            checked={showsMarks}
            onChange={(next) => usePlayer.setState(atMarks ? { marks: next } : { marksElsewhere: next })}
          />
        )}
      </div>
      <Reading playing={playing} />
    </section>
  );
}

/** The project's boxes, points and outlines, with the chosen kind, as the stage paints them. */
function useShownMarks(shown: boolean): ShownMarks | null {
  const kinds = useProject((project) => project.marks);
  const chosen = useView((view) => view.markName);
  const outlines = useSeenArt((seen) => seen.outlines);
  return useMemo(() => (shown && kinds.length > 0 ? { kinds, chosen, outlines } : null), [shown, kinds, chosen, outlines]);
}

function zoomInWords(zoom: number): string {
  return zoom === 0.25 ? "¼×" : zoom === 0.5 ? "½×" : `${zoom}×`;
}
