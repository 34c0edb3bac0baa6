import { keptFrames, type Project } from "@caravan/core/model";
import { playingAtFrames } from "../../preview/playing";
import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const framesStop = {
  title: "Frames",
  List,
  Surface,
  Details,
  help: "Click picks a frame, Shift+click a run, R the row. C makes a clip of what is picked, in picking order. Wheel zooms, drag moves the sheet.",
  playing: playingAtFrames,
  state: (project: Project) => String(keptFrames(project).length),
};
