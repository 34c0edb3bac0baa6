import { isOfPieces, keptFrames, type Project } from "@caravan/core/model";
import { playingAtFrames } from "../../preview/playing";
import { chosenSource, type View } from "../../project/view";
import { t } from "../../ui/words";
import { screenOf } from "../screen-of";

export const framesStop = {
  title: t("Frames"),
  ...screenOf(() => import("./screen")),
  help: (project: Project, view: View) => {
    const source = chosenSource(project, view);
    return source && isOfPieces(source)
      ? t(
          "A click places the piece in hand, a drag moves one. Arrows nudge, with Shift by the grid. X flips, PgUp and PgDn restack, N copies to the next frame.",
        )
      : t(
          "Click picks a frame, Shift+click a run, R the row. C makes a clip of what is picked, in picking order. Wheel zooms, drag moves the sheet.",
        );
  },
  playing: playingAtFrames,
  state: (project: Project) => String(keptFrames(project).length),
};
