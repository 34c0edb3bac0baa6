import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const shipStop = {
  title: "Ship",
  List,
  Surface,
  Details,
  help: "D delivers, Shift+D from any stop. The pages are shown as they will be; what was written has been read back and compared pixel by pixel.",
};
