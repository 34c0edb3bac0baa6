import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const clipsStop = {
  title: "Clips",
  List,
  Surface,
  Details,
  help: "← → choose a step, Alt+← → move it, Del drops it. Drag a step’s edge to change its time, with Alt only the border. Drag frames into the ribbon, or pick them and press Enter.",
};
