"use client";

import { setDrive } from "@caravan/core/edit";
import type { Stage } from "@caravan/core/model";
import { Circle, Pause, Play, RotateCcw, Square, StepBack, StepForward } from "lucide-react";
import { currentProject, edit } from "../../project/open-project";
import { Button, IconButton } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { toggleRecording } from "./recording";
import { restart, stepPicture, togglePause, useSession } from "./session";
import { focusStage } from "./stage-view";

const SPEEDS = [
  ["1", "1×"],
  ["0.5", "½"],
  ["0.2", "⅕"],
  ["0.05", "1/20"],
] as const;

/** What is rehearsed, and time: slower, picture by picture, paused, recorded. */
export function DriveBar({ stage }: { stage: Stage }) {
  const running = useSession((session) => session.running);
  const speed = useSession((session) => session.speed);
  const recording = useSession((session) => session.recording);
  const drive = useSession((session) => session.drive);
  return (
    <header className="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
      <div className="flex min-w-0 items-baseline gap-2">
        <h2 className="truncate text-title font-bold">{stage.behaviour}</h2>
        {drive ? (
          <span className="text-muted">
            {t("drive")}{" "}
            <TextField
              key={drive.name}
              id="drive-name"
              label={t("Name of the drive")}
              value={drive.name}
              onChange={(name) => {
                const error = edit(setDrive, drive.name, { name });
                const named = currentProject().drives?.find((each) => each.name === name.trim());
                if (!error && named) useSession.setState({ drive: named });
                return error?.message;
              }}
            />
          </span>
        ) : (
          <span className="truncate text-muted">{t("on {name}", { name: stage.name })}</span>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-1.5">
        <Choice
          label={t("Speed of time")}
          value={String(speed)}
          options={SPEEDS}
          onChange={(next) => useSession.setState({ speed: Number(next) })}
        />
        <IconButton label={t("Back by one display refresh")} aria-keyshortcuts="," onClick={() => stepPicture(-1)}>
          <StepBack size={14} />
        </IconButton>
        <IconButton label={running ? t("Pause") : t("Continue")} aria-keyshortcuts="Enter" onClick={() => thenDrive(togglePause)}>
          {running ? <Pause size={14} /> : <Play size={14} />}
        </IconButton>
        <IconButton label={t("Forward by one display refresh")} aria-keyshortcuts="." onClick={() => stepPicture(1)}>
          <StepForward size={14} />
        </IconButton>
        <IconButton label={t("Restart")} aria-keyshortcuts="Home" onClick={() => thenDrive(() => restart(drive))}>
          <RotateCcw size={14} />
        </IconButton>
        <Button onClick={() => thenDrive(toggleRecording)} aria-pressed={recording} aria-keyshortcuts="r" hint="R">
          {recording ? <Square size={12} className="fill-brick text-brick" /> : <Circle size={12} className="fill-brick text-brick" />}
          {recording ? t("Keep") : t("Record")}
        </Button>
      </div>
    </header>
  );
}

/** Does it, and gives the stage the keys. */
export function thenDrive(run: () => void): void {
  focusStage();
  run();
}
