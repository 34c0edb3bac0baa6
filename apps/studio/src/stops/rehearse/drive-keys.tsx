"use client";

import type { Stage } from "@caravan/core/model";
import { useEffect } from "react";
import { type Binding, useKeys } from "../../ui/keys";
import { t } from "../../ui/words";
import { pollGamepad } from "./gamepad";
import { chordOfCode, controlOf, nameOfControl } from "./keys-of-stage";
import { toggleRecording } from "./recording";
import { control, restart, stepPicture, togglePause, useSession } from "./session";
import { toggleWholeStage } from "./stage-view";

/** Keyboard and gamepad bindings: driving the figure, and moving through time. */
export function DriveKeys({ stage }: { stage: Stage }) {
  const driving = stage.keys.flatMap((key): Binding[] => {
    const chord = chordOfCode(key.code);
    if (chord === null) return [];
    const what = controlOf(key);
    return [
      {
        keys: chord,
        label: t("Drive: {control}", { control: nameOfControl(what) }),
        run: () => control(what, true),
        release: () => control(what, false),
      },
    ];
  });
  useKeys(t("Driving"), driving, { scope: "surface" });
  useKeys(t("Rehearsing"), [
    { keys: "Enter", label: t("Pause or continue"), run: togglePause },
    { keys: "r", label: t("Record; once more to keep it"), run: toggleRecording },
    { keys: "Home", label: t("Restart"), run: () => restart(useSession.getState().drive) },
    { keys: ",", repeats: true, label: t("Back by one display refresh"), run: () => stepPicture(-1) },
    { keys: ".", repeats: true, label: t("Forward by one display refresh"), run: () => stepPicture(1) },
    { keys: "z", label: t("Fill the window with the stage"), run: toggleWholeStage },
  ]);
  useEffect(() => {
    let request = 0;
    let held: ReadonlySet<string> = new Set();
    const poll = () => {
      held = pollGamepad(useSession.getState().setting?.stage ?? null, held);
      request = requestAnimationFrame(poll);
    };
    const begin = () => {
      if (request === 0) request = requestAnimationFrame(poll);
    };
    const stop = () => {
      cancelAnimationFrame(request);
      request = 0;
    };
    if ((navigator.getGamepads?.() ?? []).some((pad) => pad)) begin();
    addEventListener("gamepadconnected", begin);
    addEventListener("gamepaddisconnected", stop);
    return () => {
      stop();
      removeEventListener("gamepadconnected", begin);
      removeEventListener("gamepaddisconnected", stop);
    };
  }, []);
  return null;
}
