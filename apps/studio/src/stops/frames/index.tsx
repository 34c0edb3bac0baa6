import { isOfPieces, keptFrames, type Project } from "@caravan/core/model";
import { playingAtFrames } from "../../preview/playing";
import { chosenSource, type View } from "../../project/view";
import { screenOf } from "../screen-of";

export const framesStop = {
  title: "Frames",
  ...screenOf(() => import("./screen")),
  help: (project: Project, view: View) => {
    const source = chosenSource(project, view);
    return source && isOfPieces(source)
      ? "A click puts the piece in hand, a drag moves one. Arrows nudge, with Shift by the grid. X flips, PgUp and PgDn restack, N copies to the next frame."
      : "Click picks a frame, Shift+click a run, R the row. C makes a clip of what is picked, in picking order. Wheel zooms, drag moves the sheet.";
  },
  playing: playingAtFrames,
  state: (project: Project) => String(keptFrames(project).length),
};
