"use client";

import { type RefObject, useRef } from "react";
import { togglePlaying } from "../../preview/clock";
import { timelineOfPlaying, usePlayerClock } from "../../preview/player-state";
import { playingAtFrames } from "../../preview/playing";
import { currentProject } from "../../project/open-project";
import { useView } from "../../project/view";
import { useKeys } from "../../ui/keys";
import { t } from "../../ui/words";

/** Set while Space is held over the sheet; `moved` once the pointer has moved with it. */
export type HeldSpace = { moved: boolean };

const tap = () => {
  const playing = playingAtFrames(currentProject(), useView.getState());
  togglePlaying(usePlayerClock, playing && timelineOfPlaying(playing));
};

/**
 * Space has two uses over the sheet: held, the pointer moves the sheet; tapped, it plays or pauses as everywhere. So a tap counts only on
 * key-up without movement.
 */
export function useSpaceToPan(pointer: RefObject<unknown>): RefObject<HeldSpace | null> {
  const held = useRef<HeldSpace | null>(null);
  useKeys(
    t("Over the sheet"),
    [
      {
        keys: "Space",
        label: t("Held: the pointer moves the sheet; tapped: play or pause"),
        run() {
          if (pointer.current) held.current = { moved: false };
          else tap();
        },
        release() {
          if (held.current && !held.current.moved) tap();
          held.current = null;
        },
      },
    ],
    { scope: "surface" },
  );
  return held;
}
