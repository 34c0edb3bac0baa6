import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const clipsStop = {
  title: "Clips",
  List,
  Surface,
  Details,
  help: "← → choose a step, Alt+← → move it, Del drops it from the clip. Drag frames from the tray into the ribbon, or pick them and press Enter.",
};
