import type { Project } from "@caravan/core/model";
import { playingAtMarks } from "../../preview/playing";
import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const marksStop = {
  title: "Marks",
  List,
  Surface,
  Details,
  help: "Drag to draw a box, inside one to move it, with Alt to draw another; at its edge to resize it. Arrow keys nudge, with Alt by halves; , and . change the step.",
  loadRest: () => import("./drift-chart"),
  playing: playingAtMarks,
  state: ({ marks }: Project) => String(marks.length),
};
