import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const marksStop = {
  title: "Marks",
  List,
  Surface,
  Details,
  help: "Drag on the frame to draw a box, inside one to move it, at its edge to resize it. Arrow keys nudge, with Alt by halves; , and . go from step to step.",
};
