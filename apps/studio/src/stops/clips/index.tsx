import type { Project } from "@caravan/core/model";
import { playingAtClips } from "../../preview/playing";
import { chosenAction, type View } from "../../project/view";
import { t } from "../../ui/words";
import { screenOf } from "../screen-of";

export const clipsStop = {
  title: t("Clips"),
  ...screenOf(() => import("./screen")),
  help: (project: Project, view: View) =>
    chosenAction(project, view)
      ? t(
          "← → turn to the next facing, M mirrors the one across, Del clears it, Enter works on its clip. Shift+← → turn the whole rose. Drag a clip onto a petal to put it there.",
        )
      : t(
          "← → select a step, Alt+← → move it, Del drops it. Drag a step’s edge to change its duration, with Alt only the border. Shift+drag on the ruler selects steps.",
        ),
  playing: playingAtClips,
  state: ({ clips }: Project) => String(clips.length),
};
