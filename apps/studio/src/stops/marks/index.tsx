import type { Project } from "@caravan/core/model";
import { playingAtMarks } from "../../preview/playing";
import { chosenMark, type View } from "../../project/view";
import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const marksStop = {
  title: "Marks",
  List,
  Surface,
  Details,
  help: (project: Project, view: View) =>
    chosenMark(project, view)?.shape === "outline"
      ? "Drag a corner to move it, an edge to draw a corner out of it, elsewhere to draw an outline. C chooses the next corner, arrows nudge it, I adds one, Del takes it off."
      : "Drag to draw a box, inside one to move it, with Alt to draw another; at its edge to resize it. Arrow keys nudge, with Alt by halves; , and . change the step.",
  loadRest: () => import("./drift-chart"),
  playing: playingAtMarks,
  state: ({ marks }: Project) => String(marks.length),
};
