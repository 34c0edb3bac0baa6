import type { Project } from "@caravan/core/model";
import { playingAtClips } from "../../preview/playing";
import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const clipsStop = {
  title: "Clips",
  List,
  Surface,
  Details,
  help: "← → choose a step, Alt+← → move it, Del drops it. Drag a step’s edge to change its time, with Alt only the border. Shift+drag on the ruler sweeps over steps.",
  loadRest: () => import("./rhythm/rhythm-bench"),
  playing: playingAtClips,
  state: ({ clips }: Project) => String(clips.length),
};
