import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const sourcesStop = {
  title: "Sources",
  List,
  Surface,
  Details,
  help: "Drop PNG pictures anywhere on the page. Enter opens the chosen sheet at Frames.",
};
