import type { Project } from "@caravan/core/model";
import { playingAtSources } from "../../preview/playing";
import { screenOf } from "../screen-of";

export const sourcesStop = {
  title: "Sources",
  ...screenOf(() => import("./screen")),
  help: "Drop or paste art anywhere on the page: files, folders, ZIPs. Enter opens the chosen sheet at Frames.",
  playing: playingAtSources,
  state: ({ sources }: Project) => (sources.length === 0 ? "add art" : String(sources.length)),
};
